import { pointsOf, ringPath } from "../shared/points";

interface Props {
  outline: readonly (readonly number[])[];
  tone: string;
  /** Pixels a metre. */
  scale: number;
}

/** A part from the front, in its tone. */
export function PartShape({ outline, tone, scale }: Props) {
  const ring = pointsOf(outline);
  const [w, h] = [0, 1].map((at) => 2 * scale * Math.max(...ring.map((p) => Math.abs(p[at as 0 | 1])))) as [
    number,
    number,
  ];
  return (
    <svg width={w + 4} height={h + 4} aria-hidden="true" className="my-1">
      <path
        d={ringPath(
          ring,
          (a) => w / 2 + 2 + a * scale,
          (b) => h / 2 + 2 - b * scale,
        )}
        fill={tone}
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
    </svg>
  );
}
