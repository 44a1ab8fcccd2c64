import { useId } from "react";
import { type Point, spanOf } from "../shared/points";
import { Patterns } from "./patterns";

const WIDE = 560;
const TALLEST = 260;
const GAP = 1.18;

export interface Kind {
  name: string;
  count: number;
  rim: Point[];
}

function extent(rim: Point[], axis: 0 | 1): number {
  const [low, high] = spanOf(rim.map((p) => p[axis]));
  return high - low;
}

/** The number of columns that leaves the fewest gaps in the last row, for a mould wider than deep. */
function evenColumns(cavities: number): number {
  const fewest = Math.ceil(Math.sqrt(cavities * 1.2));
  const most = Math.max(fewest, Math.floor(Math.sqrt(cavities * 4)));
  const gaps = (columns: number) => Math.ceil(cavities / columns) * columns - cavities;
  return Array.from({ length: most - fewest + 1 }, (_, i) => fewest + i).reduce((best, columns) =>
    gaps(columns) < gaps(best) ? columns : best,
  );
}

/** The mould seen from above: a block of rows for each kind of cavity, all to one scale. */
export function MouldFromAbove({ kinds, chosen, owned }: { kinds: Kind[]; chosen: number; owned: number }) {
  const id = useId();
  let top = 0;
  const blocks = kinds.map((kind) => {
    const columns = kinds.length > 1 ? Math.min(kind.count, 8) : evenColumns(kind.count);
    const [w, h] = [extent(kind.rim, 0) * GAP, extent(kind.rim, 1) * GAP];
    const block = { ...kind, columns, w, h, top };
    top += Math.ceil(kind.count / columns) * h;
    return block;
  });
  const wide = Math.max(...blocks.map((b) => b.columns * b.w));
  const scale = Math.min(WIDE / wide, TALLEST / top);
  const cavities = kinds.reduce((sum, kind) => sum + kind.count, 0);
  return (
    <figure className="mt-6">
      <svg
        viewBox={`0 0 ${wide * scale} ${top * scale}`}
        width={wide * scale}
        height={top * scale}
        className="max-w-full"
        role="img"
        aria-label={`${cavities} cavities from above`}
      >
        <defs>
          <Patterns id={id} />
        </defs>
        <rect width={wide * scale} height={top * scale} fill={`url(#${id}-mould)`} />
        {blocks.map((block, index) =>
          Array.from({ length: block.count }, (_, i) => ({
            x: (wide / 2 + ((i % block.columns) + 0.5 - block.columns / 2) * block.w) * scale,
            y: (block.top + (Math.floor(i / block.columns) + 0.5) * block.h) * scale,
          })).map((at) => (
            <polygon
              key={`${block.name} ${at.x} ${at.y}`}
              points={block.rim.map(([px, py]) => `${at.x + px * scale},${at.y - py * scale}`).join(" ")}
              fill="var(--ground)"
              stroke="var(--glass)"
              strokeWidth={kinds.length > 1 && index === chosen ? 2.5 : 1.2}
            />
          )),
        )}
      </svg>
      <figcaption className="mt-1 text-quiet">
        {cavities} {cavities === 1 ? "cavity" : "cavities"} from above
        {owned > 1 && `, ${owned} moulds owned: ${owned * cavities} castings a round`}
      </figcaption>
    </figure>
  );
}
