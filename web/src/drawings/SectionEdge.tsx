import type { PointerEvent } from "react";

const STEP_M = 0.0001;

/** The edge of a pass in a section, which is dragged or moved by the arrow keys. */
export function Edge({
  height_m,
  level,
  slope,
  name,
  x,
  left,
  y,
  depth_m,
  text,
  onEdge,
  onGrab,
}: {
  height_m: number;
  level: boolean;
  slope: number;
  name: string;
  x: number;
  left: number;
  y: number;
  depth_m: number;
  text: string;
  onEdge: (height_m: number) => void;
  onGrab: (event: PointerEvent) => void;
}) {
  const at = level ? y + (slope * (left - x)) / 2 : y;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={depth_m * 1000}
      aria-valuenow={height_m * 1000}
      aria-valuetext={text}
      className="cursor-ns-resize"
      onPointerDown={onGrab}
      onKeyDown={(event) => {
        const by = { ArrowUp: STEP_M, ArrowDown: -STEP_M, PageUp: 10 * STEP_M, PageDown: -10 * STEP_M }[
          event.key
        ];
        if (by === undefined) return;
        event.preventDefault();
        onEdge(Math.min(depth_m, Math.max(0, Math.round((height_m + by) * 1e5) / 1e5)));
      }}
    >
      {level && (
        <line
          x1={left}
          x2={x}
          y1={y - (slope * (left - x)) / 2}
          y2={y + (slope * (left - x)) / 2}
          stroke="var(--glass)"
          strokeWidth="3.5"
        />
      )}
      <circle cx={x} cy={at} r="22" fill="transparent" />
      <circle cx={x} cy={at} r="11" fill="var(--glass)" stroke="var(--ground)" strokeWidth="1.5" />
      <path
        d={`M${x - 4} ${at - 3}l4 -4l4 4M${x - 4} ${at + 3}l4 4l4 -4`}
        stroke="var(--on-glass)"
        strokeWidth="2"
        fill="none"
      />
    </g>
  );
}
