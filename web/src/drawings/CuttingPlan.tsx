import { type Point, ringPath } from "../shared/points";

const WIDE = 720;
const TALLEST = 420;

export interface PieceOnSheet {
  kind: number;
  ring: Point[];
}

interface Props {
  length_m: number;
  width_m: number;
  margin_m: number;
  pieces: PieceOnSheet[];
  /** How long the last sheet is: beyond that none is poured. */
  last_m: number;
  /** The cutter that is chosen: its pieces are drawn stronger. */
  chosen: number;
  label: string;
}

/** A sheet from above, to scale, with every piece where it is cut. */
export function CuttingPlan({ length_m, width_m, margin_m, pieces, last_m, chosen, label }: Props) {
  const scale = Math.min(WIDE / length_m, TALLEST / width_m);
  const [wide, high] = [length_m * scale, width_m * scale];
  const x = (across: number) => across * scale;
  const y = (along: number) => high - along * scale;
  const margin = margin_m * scale;
  return (
    <svg
      viewBox={`0 0 ${wide} ${high}`}
      width={wide}
      height={high}
      className="h-auto max-w-full"
      role="img"
      aria-label={label}
    >
      <rect width={wide} height={high} fill="var(--raised)" stroke="var(--line)" />
      {margin > 0 && (
        <rect
          x={margin}
          y={margin}
          width={wide - 2 * margin}
          height={high - 2 * margin}
          fill="none"
          stroke="var(--quiet)"
          strokeDasharray="2 5"
        />
      )}
      {pieces.map(({ kind, ring }) => (
        <path
          key={ringPath(ring, x, y)}
          d={ringPath(ring, x, y)}
          fill="var(--ground)"
          stroke="var(--glass)"
          strokeWidth={kind === chosen ? 2 : 1}
        />
      ))}
      {last_m < length_m && (
        <>
          <rect x={x(last_m)} width={wide - x(last_m)} height={high} fill="var(--ground)" />
          <line x1={x(last_m)} x2={x(last_m)} y1={0} y2={high} stroke="var(--ink)" strokeWidth={2} />
        </>
      )}
    </svg>
  );
}
