import type { Schemas } from "../../api/client";
import { amount, number } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { useWidth } from "../../shared/useWidth";

const HEIGHT = 260;
const LEFT = 52;
const BOTTOM = 30;

/** What was foretold before any reading, with its band; what the readings made of it; the readings themselves. */
export function CoolingChart({ cooling }: { cooling: Schemas["Cooling"] }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const { predicted, fitted, dots } = cooling;
  const to = Math.max(...dots.map((d) => d.at_s * 1.25), 420);
  const inside = predicted.times_s.filter((t) => t <= to).length;
  const high = Math.ceil(((predicted.likely_degc[0] ?? 160) + 4) / 10) * 10;
  const low = Math.floor(((predicted.low_degc[Math.max(inside - 1, 0)] ?? 100) - 2) / 10) * 10;
  const x = (s: number) => LEFT + (s / to) * (width - LEFT - 8);
  const y = (c: number) => 8 + ((high - c) / (high - low)) * (HEIGHT - BOTTOM - 8);
  const line = (curve: Schemas["Curve"], series: number[]) =>
    curve.times_s
      .filter((t) => t <= to)
      .map((t, i) => `${x(t).toFixed(1)},${y(series[i] ?? low).toFixed(1)}`);
  const closes = cooling.marks_degc.pour_closes;
  const degrees = Array.from({ length: Math.floor((high - low) / 10) + 1 }, (_, i) => low + i * 10);
  return (
    <figure>
      <figcaption className="mb-1">
        <b>
          {cooling.vessel}, {cooling.cook + 1}
        </b>
        {cooling.worst_k !== null && (
          <span className="text-quiet">
            , readings up to {number(cooling.worst_k * (units.temperature === "F" ? 1.8 : 1), 1)} °
            {units.temperature} from the prediction
          </span>
        )}
      </figcaption>
      <div ref={ref}>
        <svg width={width} height={HEIGHT} role="img" aria-label={`Cooling of cook ${cooling.cook + 1}`}>
          {degrees.map((c) => (
            <g key={c}>
              <line x1={LEFT} x2={width - 8} y1={y(c)} y2={y(c)} stroke="var(--line)" />
              <text x={LEFT - 8} y={y(c) + 5} fontSize="13" textAnchor="end" fill="var(--quiet)">
                {amount(c, "temperature", units)}
              </text>
            </g>
          ))}
          {Array.from({ length: Math.floor(to / 60) + 1 }, (_, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a minute is its number
            <text key={i} x={x(i * 60)} y={HEIGHT - 8} fontSize="13" textAnchor="middle" fill="var(--quiet)">
              {i === 0 ? "0 min" : i}
            </text>
          ))}
          <polygon
            points={[
              ...line(predicted, predicted.high_degc),
              ...line(predicted, predicted.low_degc).reverse(),
            ].join(" ")}
            fill="var(--quiet)"
            opacity="0.18"
          />
          <polyline
            points={line(predicted, predicted.likely_degc).join(" ")}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth="2"
            strokeDasharray="7 5"
          />
          <polyline
            points={line(fitted, fitted.likely_degc).join(" ")}
            fill="none"
            stroke="var(--glass)"
            strokeWidth="3"
          />
          {closes > low && (
            <>
              <line
                x1={LEFT}
                x2={width - 8}
                y1={y(closes)}
                y2={y(closes)}
                stroke="var(--heat)"
                strokeWidth="2"
                strokeDasharray="2 5"
              />
              <text x={width - 12} y={y(closes) - 6} fontSize="14" textAnchor="end" fill="var(--ink)">
                too thick to pour
              </text>
            </>
          )}
          {dots.map((dot) => (
            <circle
              key={dot.id}
              cx={x(dot.at_s)}
              cy={y(dot.taken_degc)}
              r="5.5"
              fill={dot.odd ? "none" : "var(--ground)"}
              stroke={dot.odd ? "var(--heat)" : "var(--ink)"}
              strokeWidth="2.5"
            />
          ))}
        </svg>
      </div>
      <p className="text-sm text-quiet">dashed: predicted, grey its band; line: fitted to the readings</p>
    </figure>
  );
}
