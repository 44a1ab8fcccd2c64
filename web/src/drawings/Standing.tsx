interface Spot {
  name: string;
  kg: number;
  x_m: number;
  z_m: number;
}

interface Props {
  spots: Spot[];
  base_m: number;
  middle: [number, number];
  inside: boolean;
  length: (si: number) => string;
  width: number;
}

const MARGIN = 48;
const TALLEST = 260;
const LEAST_M = 0.04;

/** A piece that stands, from the side and to scale: its parts as weights, what it stands on, and where its middle comes down. */
export function Standing({ spots, base_m, middle, inside, length, width }: Props) {
  const far = Math.max(base_m / 2, ...spots.map((s) => Math.abs(s.x_m)), LEAST_M);
  const high = Math.max(...spots.map((s) => s.z_m), LEAST_M);
  const scale = Math.min((width - 2 * MARGIN) / (2 * far), TALLEST / high);
  const x = (v: number) => width / 2 + v * scale;
  const board = high * scale + MARGIN;
  const y = (v: number) => board - v * scale;
  const heaviest = Math.max(...spots.map((s) => s.kg), 1e-9);
  const tone = inside ? "var(--glass)" : "var(--heat)";
  return (
    <svg
      viewBox={`0 0 ${width} ${board + 44}`}
      className="h-auto w-full"
      role="img"
      aria-label={`It stands on ${length(base_m)}, its middle ${length(Math.abs(middle[0]))} beside the centre, ${length(middle[1])} up`}
    >
      <line x1={0} x2={width} y1={board} y2={board} stroke="var(--quiet)" strokeWidth="2" />
      <rect x={x(-base_m / 2)} y={board} width={base_m * scale} height={9} fill="var(--ink)" />
      <text x={x(0)} y={board + 32} textAnchor="middle" fontSize="15" fill="var(--quiet)">
        stands on {length(base_m)}
      </text>
      {spots.map((spot, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the piece
        <g key={i}>
          <circle
            cx={x(spot.x_m)}
            cy={y(spot.z_m)}
            r={8 + 16 * Math.sqrt(spot.kg / heaviest)}
            fill="var(--raised)"
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
          <text
            x={x(spot.x_m) + 32}
            y={y(spot.z_m) + 5}
            fontSize="15"
            fill="var(--ink)"
            stroke="var(--ground)"
            strokeWidth="4"
            paintOrder="stroke"
          >
            {spot.name}
          </text>
        </g>
      ))}
      <path
        d={`M${x(middle[0])} ${y(middle[1])}V${board}`}
        stroke={tone}
        strokeWidth="3"
        strokeDasharray="7 5"
      />
      <path
        d={`M${x(middle[0]) - 9} ${y(middle[1])}h18m-9 -9v18`}
        stroke={tone}
        strokeWidth="3"
        fill="none"
      />
    </svg>
  );
}
