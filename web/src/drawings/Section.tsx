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
const SIDE_SHARE = 0.06;

/** A cavity cut open, to scale: mould hatched, the cast in it, its fill line to be dragged. */
export function Section({ section, fill, stick, onFill, length, width = 560 }: Props) {
  const id = useId();
  const ref = useRef<SVGSVGElement>(null);
  const { runs, across_m, depth_m, wall_m } = section;
  const side_m = Math.max(wall_m, across_m * SIDE_SHARE);
  const scale = Math.min((width - 2 * MARGIN) / (across_m + 2 * side_m), 260 / (depth_m + wall_m));
  const middle = width / 2;
  const x = (across: number) => middle + across * scale;
  const floor = TOP + depth_m * scale;
  const y = (level: number) => floor - level * scale;
  const side = (across_m / 2 + side_m) * scale;
  const bottom = floor + wall_m * scale;
  const height = bottom + 34;
  const cavity = runs
    .map((run) => `M${run.map(([across, level]) => `${x(across ?? 0)} ${y(level ?? 0)}`).join("L")}Z`)
    .join("");
  const [left, right] = shore(runs, fill ?? depth_m);
  const open = shore(runs, depth_m);

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
      aria-label={`Section, ${length(across_m)} wide, ${length(depth_m)} deep`}
      role={onFill ? undefined : "img"}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={drag}
    >
      <defs>
        <Patterns id={id} />
        <clipPath id={`${id}-melt`}>
          <rect x="0" y={y(fill ?? 0)} width={width} height={height} />
        </clipPath>
      </defs>
      <path
        fillRule="evenodd"
        fill={`url(#${id}-mould)`}
        stroke="var(--quiet)"
        d={`M${middle - side} ${TOP}H${middle + side}V${bottom}H${middle - side}Z ${cavity}`}
      />
      <path d={cavity} fill="var(--ground)" stroke="var(--glass)" strokeWidth="2.5" strokeLinejoin="round" />
      {fill !== undefined && <path d={cavity} fill="var(--melt)" clipPath={`url(#${id}-melt)`} />}
      {stick && fill !== undefined && (
        <rect
          x={x(right - stick.inside_m)}
          y={y(fill / 2) - (stick.diameter_m / 2) * scale}
          width={(stick.inside_m + STICK_OUT_M) * scale}
          height={stick.diameter_m * scale}
          fill="var(--raised)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      )}
      <Measure x1={x(open[0])} x2={x(open[1])} y={TOP - 32} text={length(open[1] - open[0])} />
      <text x={middle + side} y={bottom + 24} fontSize="15" textAnchor="end" fill="var(--quiet)">
        {length(wall_m)} under it
      </text>
      <text x={middle - side} y={bottom + 24} fontSize="15" fill="var(--quiet)">
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
            x1={x(left) - 18}
            x2={x(right) + 18}
            y1={y(fill)}
            y2={y(fill)}
            stroke="var(--glass)"
            strokeWidth="4"
          />
          <circle cx={x(right) + 18} cy={y(fill)} r="11" fill="var(--glass)" />
          <path
            d={`M${x(right) + 14} ${y(fill) - 3}l4 -4l4 4M${x(right) + 14} ${y(fill) + 3}l4 4l4 -4`}
            stroke="var(--on-glass)"
            strokeWidth="2"
            fill="none"
          />
        </g>
      )}
    </svg>
  );
}

/** Where the melt meets the wall at a level, leftmost and rightmost. */
function shore(runs: Schemas["Section"]["runs"], level: number): [number, number] {
  const wet = runs.flatMap((run) =>
    run.filter(([, floor]) => (floor ?? 0) <= level + 1e-9).map(([across]) => across ?? 0),
  );
  return [Math.min(...wet), Math.max(...wet)];
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
