import { useId } from "react";
import type { Schemas } from "../api/client";
import { pointsOf, spanOf } from "../shared/points";
import { Patterns } from "./patterns";

interface Props {
  section: Schemas["Section"];
  length: (si: number) => string;
  width?: number;
}

const MARGIN = 46;
const TOP = 74;
const SIDE_SHARE = 0.06;

/** A cavity cut open, to scale: mould hatched, the hollow in it measured. */
export function Section({ section, length, width = 560 }: Props) {
  const id = useId();
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
    .map(
      (run) =>
        `M${pointsOf(run)
          .map(([across, level]) => `${x(across)} ${y(level)}`)
          .join("L")}Z`,
    )
    .join("");
  const open = spanOf(pointsOf(runs.flat()).map(([a]) => a));
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="h-auto w-full max-w-3xl"
      aria-label={`Section, ${length(across_m)} wide, ${length(depth_m)} deep`}
      role="img"
    >
      <defs>
        <Patterns id={id} />
      </defs>
      <path
        fillRule="evenodd"
        fill={`url(#${id}-mould)`}
        stroke="var(--quiet)"
        d={`M${middle - side} ${TOP}H${middle + side}V${bottom}H${middle - side}Z ${cavity}`}
      />
      <path d={cavity} fill="var(--ground)" stroke="var(--glass)" strokeWidth="2.5" strokeLinejoin="round" />
      <Measure x1={x(open[0])} x2={x(open[1])} y={TOP - 32} text={length(open[1] - open[0])} />
      <text x={middle + side} y={bottom + 24} fontSize="15" textAnchor="end" fill="var(--quiet)">
        {length(wall_m)} under it
      </text>
      <text x={middle - side} y={bottom + 24} fontSize="15" fill="var(--quiet)">
        {length(depth_m)} deep
      </text>
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
