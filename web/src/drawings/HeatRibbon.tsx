import { useId } from "react";
import type { Schemas, Spread } from "../api/client";
import { paired } from "../shared/points";
import { FILL_OF, Patterns, paint } from "./patterns";

interface Props {
  bands: Schemas["Band"][];
  curve?: Schemas["Curve"] | undefined;
  dots?: Schemas["Dot"][] | undefined;
  /** What was seen, when. */
  sights?: { at_s: number; word: string }[];
  /** Seconds at the left and right edge. */
  from: number;
  to: number;
  now?: number | undefined;
  width: number;
  height: number;
  /** Temperatures at the bottom and top edge, for the curve. */
  low?: number;
  high?: number | undefined;
  words: Record<Schemas["Band"]["state"], string>;
  label: string;
}

const OPEN_WORD = 24;
const WORD = 16;
const SMALL_WORD = 13;

/** Time across, states as bands with soft edges where they are uncertain, readings as dots, now as a line. */
export function HeatRibbon(p: Props) {
  const id = useId();
  const x = (s: number) => ((s - p.from) / (p.to - p.from)) * p.width;
  const low = p.low ?? 15;
  const high = p.high ?? 170;
  const y = (degc: number) => p.height - 5 - ((degc - low) / (high - low)) * (p.height - 10);
  const shown = p.bands.filter((band) => band.end.high > p.from && band.start.low < p.to);
  return (
    <svg width={p.width} height={p.height} role="img" aria-label={p.label} className="block overflow-hidden">
      <defs>
        <Patterns id={id} />
        {shown.map((band) => (
          <SoftMask
            key={band.state}
            id={`${id}-${band.state}-soft`}
            start={band.start}
            end={band.end}
            x={x}
            height={p.height}
          />
        ))}
      </defs>
      {shown.map((band) => (
        <rect
          key={band.state}
          x={x(band.start.low)}
          width={Math.max(x(band.end.high) - x(band.start.low), 0)}
          height={p.height}
          fill={paint(id, FILL_OF[band.state])}
          mask={`url(#${id}-${band.state}-soft)`}
        />
      ))}
      {p.curve && <CurveLine curve={p.curve} x={x} y={y} />}
      {shown.map((band) => (
        <BandWord
          key={band.state}
          band={band}
          word={p.words[band.state] ?? band.state}
          x={x}
          width={p.width}
          height={p.height}
        />
      ))}
      {p.dots?.map((dot) => (
        <circle
          key={dot.id}
          cx={x(dot.at_s)}
          cy={y(dot.taken_degc)}
          r="6"
          fill={dot.odd ? "none" : "var(--ground)"}
          stroke={dot.odd ? "var(--heat)" : "var(--ink)"}
          strokeWidth="2.5"
          strokeDasharray={dot.odd ? "3 2" : undefined}
        />
      ))}
      {p.sights?.map((sight) => (
        <g key={sight.at_s}>
          <path d={`M${x(sight.at_s)} 0l7 9l-7 9l-7 -9Z`} fill="var(--ink)" stroke="var(--ground)" />
          <text
            x={x(sight.at_s) - 12}
            y="14"
            textAnchor="end"
            fontSize={SMALL_WORD}
            fill="var(--ink)"
            stroke="var(--ground)"
            strokeWidth="4"
            strokeOpacity="0.75"
            paintOrder="stroke"
          >
            {sight.word}
          </text>
        </g>
      ))}
      {p.now !== undefined && (
        <line x1={x(p.now)} x2={x(p.now)} y1="0" y2={p.height} stroke="var(--heat)" strokeWidth="3" />
      )}
    </svg>
  );
}

function SoftMask({
  id,
  start,
  end,
  x,
  height,
}: {
  id: string;
  start: Spread;
  end: Spread;
  x: (s: number) => number;
  height: number;
}) {
  const left = x(start.low);
  const width = Math.max(x(end.high) - left, 0.01);
  const at = (s: number) => `${Math.min(100, Math.max(0, ((x(s) - left) / width) * 100))}%`;
  return (
    <mask id={id} maskUnits="userSpaceOnUse" x={left} y="0" width={width} height={height}>
      <linearGradient id={`${id}-g`}>
        <stop offset="0%" stopColor="#fff" stopOpacity={start.low < start.high ? 0 : 1} />
        <stop offset={at(Math.min(start.high, end.likely))} stopColor="#fff" />
        <stop offset={at(Math.max(end.low, start.likely))} stopColor="#fff" />
        <stop offset="100%" stopColor="#fff" stopOpacity={end.low < end.high ? 0 : 1} />
      </linearGradient>
      <rect x={left} width={width} height={height} fill={`url(#${id}-g)`} />
    </mask>
  );
}

function CurveLine({
  curve,
  x,
  y,
}: {
  curve: Schemas["Curve"];
  x: (s: number) => number;
  y: (c: number) => number;
}) {
  const points = (series: number[]) =>
    paired(curve.times_s, series).map(([t, degc]) => `${x(t).toFixed(1)},${y(degc).toFixed(1)}`);
  const band = [...points(curve.high_degc), ...points(curve.low_degc).reverse()];
  return (
    <>
      <polygon points={band.join(" ")} fill="var(--ink)" opacity="0.14" />
      <polyline
        points={points(curve.likely_degc).join(" ")}
        fill="none"
        stroke="var(--ground)"
        strokeWidth="4"
        opacity="0.6"
      />
      <polyline
        points={points(curve.likely_degc).join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2"
      />
    </>
  );
}

function BandWord({
  band,
  word,
  x,
  width,
  height,
}: {
  band: Schemas["Band"];
  word: string;
  x: (s: number) => number;
  width: number;
  height: number;
}) {
  const open = FILL_OF[band.state] === "open";
  const right = Math.min(x(band.end.likely), width);
  const sharp = Math.max(x(band.start.high), 0) + 10;
  // past the soft edge where there is room, so that the word stands on its own tone
  const left =
    right - sharp > word.length * OPEN_WORD * 0.82 ? sharp : Math.max(x(band.start.likely), 0) + 10;
  const sizes = height > 40 ? [open ? OPEN_WORD : WORD, SMALL_WORD] : [SMALL_WORD];
  const size = sizes.find((px) => right - left > word.length * px * (open ? 0.8 : 0.54));
  if (!size) return null;
  const ink = open ? "var(--on-glass)" : "var(--ink)";
  return (
    <text
      x={left}
      y={height > 40 ? height - 11 : height / 2 + size * 0.35}
      fontSize={size}
      fontWeight={open ? 800 : 500}
      fill={ink}
      stroke={open ? "var(--glass)" : "var(--ground)"}
      strokeWidth="4"
      strokeOpacity={open ? 1 : 0.75}
      paintOrder="stroke"
    >
      {word}
    </text>
  );
}
