import type { Schemas } from "../../api/client";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { paired, pointsOf } from "../../shared/points";

const HEIGHT = 300;
const LEFT = 46;
const BOTTOM = 30;
/** The tangent is drawn this far to both sides of where the curve turns [s]. */
const TANGENT_S = 55;
/** A live curve is drawn at least so wide [s]. */
const SHORTEST_S = 180;

/** A cooling curve with its readings, and the slope where it turns. */
export function Curve({
  read,
  width,
  word,
}: {
  read: Schemas["CurveRead"];
  width: number;
  word: (degc: number) => string;
}) {
  const { test } = read;
  const points = pointsOf(read.points);
  const temps = points.map(([, degc]) => degc);
  const end = Math.max(test?.times_s.at(-1) ?? points.at(-1)?.[0] ?? 1, SHORTEST_S);
  const low = Math.floor(Math.min(...temps) / 5) * 5;
  const high = Math.ceil(Math.max(...temps) / 5) * 5;
  const x = (s: number) => LEFT + (s / end) * (width - LEFT - 10);
  const y = (degc: number) => 10 + ((high - degc) / (high - low)) * (HEIGHT - BOTTOM - 10);
  const marks = Array.from({ length: Math.round((high - low) / 5) + 1 }, (_, i) => low + 5 * i);
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="img"
      aria-label={test ? `Cooling curve, turns at ${word(test.at_degc)}` : "Cooling curve so far"}
    >
      {marks.map((degc) => (
        <g key={degc}>
          <line x1={LEFT} x2={width} y1={y(degc)} y2={y(degc)} stroke="var(--line)" />
          <text x={LEFT - 6} y={y(degc) + 5} textAnchor="end" fontSize="13" fill="var(--quiet)">
            {word(degc)}
          </text>
        </g>
      ))}
      {Array.from({ length: Math.floor(end / 60) + 1 }, (_, i) => i * 60).map((s) => (
        <text key={s} x={x(s)} y={HEIGHT - 8} textAnchor="middle" fontSize="13" fill="var(--quiet)">
          {s / 60}
        </text>
      ))}
      {points.map(([s, degc]) => (
        <circle key={`${s} ${degc}`} cx={x(s)} cy={y(degc)} r="2" fill="var(--quiet)" opacity="0.6" />
      ))}
      {test && <Turn test={test} end={end} x={x} y={y} />}
    </svg>
  );
}

/** The smoothed curve, its slope where it turns, and the words for it. */
function Turn({
  test,
  end,
  x,
  y,
}: {
  test: Schemas["TemperTest"];
  end: number;
  x: (s: number) => number;
  y: (degc: number) => number;
}) {
  const units = useUnits();
  const slope = test.slope_k_min.likely;
  const [from, to] = [Math.max(test.at_s - TANGENT_S, 0), Math.min(test.at_s + TANGENT_S, end)];
  const at = (s: number) => test.at_degc + (slope / 60) * (s - test.at_s);
  return (
    <>
      <polyline
        points={paired(test.times_s, test.smooth_degc)
          .map(([s, degc]) => `${x(s).toFixed(1)},${y(degc).toFixed(1)}`)
          .join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2.5"
      />
      <line x1={x(from)} x2={x(to)} y1={y(at(from))} y2={y(at(to))} stroke="var(--heat)" strokeWidth="4" />
      <circle
        cx={x(test.at_s)}
        cy={y(test.at_degc)}
        r="7"
        fill="var(--ground)"
        stroke="var(--heat)"
        strokeWidth="3"
      />
      <text x={x(test.at_s) + 14} y={y(test.at_degc) - 12} fontSize="15" fontWeight="700" fill="var(--ink)">
        {`${amount(slope, "slope", units)} at ${duration(test.at_s)}`}
      </text>
    </>
  );
}
