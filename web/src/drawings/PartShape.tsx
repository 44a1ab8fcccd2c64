import { farthest, pointsOf, ringPath } from "../shared/points";

interface Props {
  rings: readonly (readonly (readonly number[])[])[];
  tone: string;
  /** Pixels a metre. */
  scale: number;
}

/** A part from the front, in its tone. */
export function PartShape({ rings, tone, scale }: Props) {
  const shown = rings.map(pointsOf);
  const [w, h] = [2 * scale * farthest(shown, 0), 2 * scale * farthest(shown, 1)];
  return (
    <svg width={w + 4} height={h + 4} aria-hidden="true" className="my-1">
      <path
        d={shown
          .map((ring) =>
            ringPath(
              ring,
              (a) => w / 2 + 2 + a * scale,
              (b) => h / 2 + 2 - b * scale,
            ),
          )
          .join("")}
        fillRule="evenodd"
        fill={tone}
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
    </svg>
  );
}
