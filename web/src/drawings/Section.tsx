import { type PointerEvent, useId, useRef } from "react";
import type { Schemas } from "../api/client";
import { Patterns } from "./patterns";

interface Props {
  section: Schemas["Section"];
  fill?: number | undefined;
  stick?: Schemas["Stick"] | null;
  onFill?: (si: number) => void;
  length: (si: number) => string;
  width?: number;
}

/** How much of a stick is drawn outside the cast. */
const STICK_OUT_M = 0.004;
const MARGIN = 46;
const TOP = 74;

/** A cavity cut open, to scale: mould hatched, the cast in it, its fill line to be dragged. */
export function Section({ section, fill, stick, onFill, length, width = 560 }: Props) {
  const id = useId();
  const ref = useRef<SVGSVGElement>(null);
  const { top_m, bottom_m, depth_m, wall_m } = section;
  const scale = Math.min(
    (width - 2 * MARGIN) / (top_m + 2 * Math.max(wall_m, top_m * 0.06)),
    260 / (depth_m + wall_m),
  );
  const middle = width / 2;
  const half = (level: number) => ((bottom_m + (top_m - bottom_m) * (level / depth_m)) / 2) * scale;
  const floor = TOP + depth_m * scale;
  const y = (level: number) => floor - level * scale;
  const side = half(depth_m) + Math.max(wall_m, top_m * 0.06) * scale;
  const bottom = floor + wall_m * scale;
  const height = bottom + 34;
  const cavity = (level: number) =>
    `M${middle - half(0)} ${floor}H${middle + half(0)}L${middle + half(level)} ${y(level)}H${middle - half(level)}Z`;

  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (!onFill || !ref.current || event.buttons === 0) return;
    const box = ref.current.getBoundingClientRect();
    const at = ((event.clientY - box.top) / box.height) * height;
    onFill(Math.min(depth_m, Math.max(0.0002, (floor - at) / scale)));
  };
  return (
    <svg
      ref={ref}
      viewBox={`0 0 ${width} ${height}`}
      className={`h-auto w-full max-w-3xl ${onFill ? "touch-none" : ""}`}
      aria-label={`Section, ${length(top_m)} wide, ${length(depth_m)} deep`}
      role={onFill ? undefined : "img"}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={drag}
    >
      <defs>
        <Patterns id={id} />
      </defs>
      <path
        fillRule="evenodd"
        fill={`url(#${id}-mould)`}
        stroke="var(--quiet)"
        d={`M${middle - side} ${TOP}H${middle + side}V${bottom}H${middle - side}Z ${cavity(depth_m)}`}
      />
      <path d={cavity(depth_m)} fill="var(--ground)" stroke="var(--glass)" strokeWidth="2.5" />
      {fill !== undefined && <path d={cavity(Math.min(fill, depth_m))} fill="var(--melt)" />}
      {stick && fill !== undefined && (
        <rect
          x={middle + half(fill / 2) - stick.inside_m * scale}
          y={y(fill / 2) - (stick.diameter_m / 2) * scale}
          width={(stick.inside_m + STICK_OUT_M) * scale}
          height={stick.diameter_m * scale}
          fill="var(--raised)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      )}
      <Measure x1={middle - half(depth_m)} x2={middle + half(depth_m)} y={TOP - 32} text={length(top_m)} />
      <text x={middle + half(0) - 6} y={bottom + 24} fontSize="15" textAnchor="end" fill="var(--quiet)">
        floor {length(bottom_m)}, wall {length(wall_m)}
      </text>
      <text x={middle - half(0)} y={bottom + 24} fontSize="15" fill="var(--quiet)">
        {length(depth_m)} deep
      </text>
      {fill !== undefined && onFill && (
        <g
          role="slider"
          tabIndex={0}
          aria-label="Fill level"
          aria-orientation="vertical"
          aria-valuemin={0.2}
          aria-valuemax={depth_m * 1000}
          aria-valuenow={fill * 1000}
          aria-valuetext={length(fill)}
          className="cursor-ns-resize"
          onKeyDown={(event) => {
            const by = { ArrowUp: 0.0001, ArrowDown: -0.0001, PageUp: 0.001, PageDown: -0.001 }[event.key];
            if (by === undefined) return;
            event.preventDefault();
            onFill(Math.min(depth_m, Math.max(0.0002, Math.round((fill + by) * 1e5) / 1e5)));
          }}
        >
          <line
            x1={middle - half(fill) - 18}
            x2={middle + half(fill) + 18}
            y1={y(fill)}
            y2={y(fill)}
            stroke="var(--glass)"
            strokeWidth="4"
          />
          <circle cx={middle + half(fill) + 18} cy={y(fill)} r="11" fill="var(--glass)" />
          <path
            d={`M${middle + half(fill) + 14} ${y(fill) - 3}l4 -4l4 4M${middle + half(fill) + 14} ${y(fill) + 3}l4 4l4 -4`}
            stroke="var(--on-glass)"
            strokeWidth="2"
            fill="none"
          />
        </g>
      )}
    </svg>
  );
}

function Measure({ x1, x2, y, text }: { x1: number; x2: number; y: number; text: string }) {
  return (
    <g stroke="var(--ink)" fill="none">
      <path d={`M${x1} ${y}H${x2}M${x1} ${y - 7}v28M${x2} ${y - 7}v28`} />
      <text
        x={(x1 + x2) / 2}
        y={y - 9}
        fontSize="17"
        fontWeight="700"
        textAnchor="middle"
        fill="var(--ink)"
        stroke="none"
      >
        {text}
      </text>
    </g>
  );
}
