import { farthest, pointsOf, ringPath } from "../shared/points";

/** A part of a piece that stands: where its middle is, its edges from the front, its tone, how many of it, and whether props hold it. */
export interface StandingPart {
  name: string;
  x_m: number;
  z_m: number;
  rings: readonly (readonly (readonly number[])[])[];
  tone: string;
  count: number;
  propped: boolean;
}

interface Props {
  parts: StandingPart[];
  base_m: number;
  middle: { x_m: number; z_m: number };
  inside: boolean;
  length: (si: number) => string;
  width: number;
}

const MARGIN = 40;
const TALLEST = 300;
const LEAST_M = 0.04;
/** Of several of the same so many are drawn, so far behind each other. */
const MOST_DRAWN = 3;
const BEHIND_PX = 6;

/** A piece that stands, from the front and to scale: its parts in their shapes, its props, and where its middle comes down. */
export function Standing({ parts, base_m, middle, inside, length, width }: Props) {
  const shapes = parts.map((part) => ({ ...part, rings: part.rings.map(pointsOf) }));
  const reach = (part: (typeof shapes)[number], at: 0 | 1) => farthest(part.rings, at);
  const far = Math.max(base_m / 2, LEAST_M, ...shapes.map((s) => Math.abs(s.x_m) + reach(s, 0)));
  const high = Math.max(LEAST_M, ...shapes.map((s) => s.z_m + reach(s, 1)));
  const scale = Math.min((width - 2 * MARGIN) / (2 * far), TALLEST / high);
  const x = (v: number) => width / 2 + v * scale;
  const board = high * scale + MARGIN;
  const y = (v: number) => board - v * scale;
  const tone = inside ? "var(--glass)" : "var(--heat)";
  return (
    <svg
      viewBox={`0 0 ${width} ${board + 44}`}
      className="h-auto w-full"
      role="img"
      aria-label={`It stands on ${length(base_m)}, its middle ${length(Math.abs(middle.x_m))} beside the centre, ${length(middle.z_m)} up`}
    >
      <line x1={0} x2={width} y1={board} y2={board} stroke="var(--quiet)" strokeWidth="2" />
      <rect x={x(-base_m / 2)} y={board} width={base_m * scale} height={9} fill="var(--ink)" />
      <text x={x(0)} y={board + 32} textAnchor="middle" fontSize="18" fill="var(--quiet)">
        stands on {length(base_m)}
      </text>
      {shapes
        .filter((part) => part.propped)
        .map((part) => (
          <g key={part.name}>
            <Prop x={x(part.x_m - reach(part, 0))} top={y(part.z_m)} board={board} left />
            <Prop x={x(part.x_m + reach(part, 0))} top={y(part.z_m)} board={board} />
          </g>
        ))}
      {shapes.map((part, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the piece
        <g key={i}>
          {Array.from({ length: Math.min(part.count, MOST_DRAWN) }, (_, k) => k)
            .reverse()
            .map((k) => (
              <path
                key={k}
                d={part.rings
                  .map((ring) =>
                    ringPath(
                      ring,
                      (a) => x(part.x_m + a),
                      (b) => y(part.z_m + b),
                    ),
                  )
                  .join("")}
                fillRule="evenodd"
                transform={`translate(${k * BEHIND_PX} ${-k * BEHIND_PX})`}
                fill={part.tone}
                stroke="var(--ink)"
                strokeWidth="1.5"
              />
            ))}
        </g>
      ))}
      {shapes.map((part, i) => (
        <text
          // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the piece
          key={i}
          x={x(part.x_m)}
          y={y(part.z_m) + 5}
          textAnchor="middle"
          fontSize="18"
          fill="var(--ink)"
          stroke="var(--ground)"
          strokeWidth="4"
          paintOrder="stroke"
        >
          {part.count > 1 ? `${part.count} × ${part.name.toLowerCase()}` : part.name}
        </text>
      ))}
      <path
        d={`M${x(middle.x_m)} ${y(middle.z_m)}V${board}`}
        stroke={tone}
        strokeWidth="3"
        strokeDasharray="7 5"
      />
      <path
        d={`M${x(middle.x_m) - 9} ${y(middle.z_m)}h18m-9 -9v18`}
        stroke={tone}
        strokeWidth="3"
        fill="none"
      />
    </svg>
  );
}

/** A prop that leans against a part until its join has set. */
function Prop({ x, top, board, left = false }: { x: number; top: number; board: number; left?: boolean }) {
  const out = left ? -26 : 26;
  return (
    <path
      d={`M${x} ${top}L${x + out} ${board}`}
      stroke="var(--mould-hatch)"
      strokeWidth="7"
      strokeLinecap="round"
    />
  );
}
