import { useId } from "react";
import { Patterns } from "./patterns";

const WIDE = 560;
const TALLEST = 230;
const GAP = 0.18;

/** The number of columns that leaves the fewest gaps in the last row, for a mould wider than deep. */
function evenColumns(cavities: number): number {
  const fewest = Math.ceil(Math.sqrt(cavities * 1.2));
  const most = Math.max(fewest, Math.floor(Math.sqrt(cavities * 4)));
  const gaps = (columns: number) => Math.ceil(cavities / columns) * columns - cavities;
  return Array.from({ length: most - fewest + 1 }, (_, i) => fewest + i).reduce((best, columns) =>
    gaps(columns) < gaps(best) ? columns : best,
  );
}

/** The mould seen from above, its cavities in the fewest even rows, to the same scale among themselves. */
export function MouldFromAbove({
  top,
  bottom,
  cavities,
  owned,
}: {
  top: number;
  bottom: number;
  cavities: number;
  owned: number;
}) {
  const id = useId();
  const columns = evenColumns(cavities);
  const rows = Math.ceil(cavities / columns);
  const pitch = Math.min(WIDE / columns, TALLEST / rows);
  const radius = (pitch * (1 - GAP)) / 2;
  return (
    <figure className="mt-6">
      <svg
        viewBox={`0 0 ${columns * pitch} ${rows * pitch}`}
        width={columns * pitch}
        height={rows * pitch}
        className="max-w-full"
        role="img"
        aria-label={`${cavities} cavities from above`}
      >
        <defs>
          <Patterns id={id} />
        </defs>
        <rect width={columns * pitch} height={rows * pitch} fill={`url(#${id}-mould)`} />
        {Array.from({ length: cavities }, (_, i) => ({
          x: ((i % columns) + 0.5) * pitch,
          y: (Math.floor(i / columns) + 0.5) * pitch,
        })).map((at) => (
          <g key={`${at.x} ${at.y}`} fill="var(--ground)" stroke="var(--glass)">
            <circle cx={at.x} cy={at.y} r={radius} strokeWidth="1.5" />
            <circle cx={at.x} cy={at.y} r={radius * (bottom / top)} strokeWidth="0.7" opacity="0.6" />
          </g>
        ))}
      </svg>
      <figcaption className="mt-1 text-quiet">
        {cavities} {cavities === 1 ? "cavity" : "cavities"} from above
        {owned > 1 && `, ${owned} moulds owned: ${owned * cavities} castings a round`}
      </figcaption>
    </figure>
  );
}
