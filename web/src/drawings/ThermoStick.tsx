import { useId } from "react";
import type { Fill } from "./patterns";
import { Patterns, paint } from "./patterns";

export interface Zone {
  from: number;
  to: number;
  fill: Fill;
  word: string;
}

interface Props {
  zones: Zone[];
  low: number;
  high: number;
  reading?: number | undefined;
  band?: { low: number; high: number } | undefined;
  word: (degc: number) => string;
  height: number;
  width?: number;
}

/** The lower edge of a zone slimmer than this is named below it, clear of the upper one. */
const SLIM = 14;

/** An upright temperature scale with the material's windows and the present reading. */
export function ThermoStick({ zones, low, high, reading, band, word, height, width = 190 }: Props) {
  const id = useId();
  const y = (degc: number) =>
    10 + (height - 20) * (1 - (Math.min(Math.max(degc, low), high) - low) / (high - low));
  const text = reading === undefined ? "no reading" : word(reading);
  return (
    <svg width={width} height={height} role="img" aria-label={`Temperature scale, now ${text}`}>
      <defs>
        <Patterns id={id} />
        <clipPath id={`${id}-stick`}>
          <rect x="56" y="8" width="26" height={height - 16} rx="13" />
        </clipPath>
      </defs>
      <g clipPath={`url(#${id}-stick)`}>
        <rect x="56" y="0" width="26" height={height} fill="var(--raised)" />
        {zones.map((zone) => (
          <rect
            key={zone.word}
            x="56"
            width="26"
            y={y(zone.to)}
            height={Math.max(y(zone.from) - y(zone.to), 0)}
            fill={paint(id, zone.fill)}
          />
        ))}
      </g>
      {zones.map((zone) => {
        const middle = (y(zone.from) + y(zone.to)) / 2;
        return y(zone.from) - y(zone.to) < 15 ? null : (
          <text
            key={zone.word}
            x="94"
            y={middle + 5}
            fontSize="15"
            fill="var(--ink)"
            fontWeight={zone.fill === "open" ? 700 : 400}
          >
            {zone.word}
          </text>
        );
      })}
      {zones
        .filter((zone) => zone.from > low)
        .map((zone) => (
          <text
            key={zone.from}
            x="50"
            y={y(zone.from) + (y(zone.from) - y(zone.to) < SLIM ? 12 : 5)}
            fontSize="13"
            textAnchor="end"
            fill="var(--quiet)"
          >
            {word(zone.from)}
          </text>
        ))}
      {band && reading !== undefined && (
        <rect
          x="52"
          width="34"
          y={y(band.high)}
          height={Math.max(y(band.low) - y(band.high), 2)}
          fill="var(--heat)"
          opacity="0.3"
        />
      )}
      {reading !== undefined && (
        <path d={`M50 ${y(reading)}h38`} stroke="var(--heat)" strokeWidth="4" strokeLinecap="round" />
      )}
    </svg>
  );
}
