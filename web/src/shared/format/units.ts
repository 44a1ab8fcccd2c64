import type { Schemas, Spread } from "../../api/client";

export type Units = Schemas["Units"];
/** What a number measures; SI inside. */
export type Quantity =
  | "temperature"
  | "mass"
  | "length"
  | "volume"
  | "area"
  | "share"
  | "angle"
  | "power"
  | "seconds"
  | "minutes"
  | "count"
  | "altitude"
  | "slope";

interface Shown {
  label: string;
  factor: number;
  shift?: number;
  digits: (value: number) => number;
}

const byExtent = (value: number) => (Math.abs(value) < 10 ? 2 : Math.abs(value) < 100 ? 1 : 0);
const fixed = (digits: number) => () => digits;
/** Oven and scale habits: spoons and cups are metric (15 and 250 ml). */
const TABLE: Record<string, Shown> = {
  C: { label: "°C", factor: 1, digits: fixed(0) },
  F: { label: "°F", factor: 1.8, shift: 32, digits: fixed(0) },
  g: { label: "g", factor: 1000, digits: (v) => (Math.abs(v) < 20 ? 1 : 0) },
  oz: { label: "oz", factor: 1 / 0.028349523125, digits: byExtent },
  mm: { label: "mm", factor: 1000, digits: (v) => (Math.abs(v) < 20 ? 1 : 0) },
  in: { label: "in", factor: 1 / 0.0254, digits: fixed(2) },
  mm2: { label: "cm²", factor: 1e4, digits: fixed(1) },
  in2: { label: "in²", factor: 1 / 0.0254 ** 2, digits: fixed(2) },
  ml: { label: "ml", factor: 1e6, digits: byExtent },
  tbsp: { label: "tbsp", factor: 1e6 / 15, digits: fixed(2) },
  cup: { label: "cups", factor: 1e6 / 250, digits: fixed(3) },
  slopeC: { label: "K/min", factor: 1, digits: fixed(2) },
  slopeF: { label: "°F/min", factor: 1.8, digits: fixed(2) },
  share: { label: "%", factor: 100, digits: (v) => (Math.abs(v) < 10 ? 1 : 0) },
  angle: { label: "°", factor: 180 / Math.PI, digits: fixed(0) },
  power: { label: "W", factor: 1, digits: fixed(0) },
  seconds: { label: "s", factor: 1, digits: (v) => (Math.abs(v) < 10 ? 1 : 0) },
  minutes: { label: "min", factor: 1 / 60, digits: (v) => (Math.abs(v) < 10 ? 1 : 0) },
  count: { label: "", factor: 1, digits: fixed(0) },
  altitude: { label: "m", factor: 1, digits: fixed(0) },
};

export function shownIn(quantity: Quantity, units: Units): Shown {
  const key = {
    temperature: units.temperature,
    mass: units.mass,
    length: units.length,
    area: `${units.length}2`,
    volume: units.volume,
    share: "share",
    angle: "angle",
    power: "power",
    seconds: "seconds",
    minutes: "minutes",
    count: "count",
    altitude: "altitude",
    slope: `slope${units.temperature}`,
  }[quantity];
  const shown = TABLE[key];
  if (!shown) throw new Error(`no unit ${key}`);
  return shown;
}

export const toShown = (si: number, { factor, shift = 0 }: Shown): number => si * factor + shift;
export const toSi = (value: number, { factor, shift = 0 }: Shown): number => (value - shift) / factor;

export function number(value: number, digits: number): string {
  const text = value.toFixed(digits);
  return Number(text) === 0 ? (0).toFixed(digits) : text;
}

export function amount(si: number, quantity: Quantity, units: Units, label = true): string {
  const s = shownIn(quantity, units);
  const value = toShown(si, s);
  const unit = label ? s.label : "";
  // not broken across lines
  const gap = unit === "" || unit === "°" ? "" : "\u00a0";
  return `${number(value, s.digits(value))}${gap}${unit}`;
}

/** A length of line or ribbon: in metres once it is as long. */
export function runLength(m: number, units: Units): string {
  return units.length === "mm" && m >= 1 ? `${number(m, 2)}\u00a0m` : amount(m, "length", units);
}

/** A weight to be weighed out: rounded up to what the scale shows, so that it never falls short. */
export function weighed(kg: number, units: Units): string {
  const s = shownIn("mass", units);
  const value = toShown(kg, s);
  const digits = s.digits(value);
  const up = Math.ceil(value * 10 ** digits - 1e-6) / 10 ** digits;
  return `${number(up, digits)}\u00a0${s.label}`;
}

const QUANTITY_OF: Record<string, Quantity> = {
  kg: "mass",
  m: "length",
  m2: "area",
  m3: "volume",
  degC: "temperature",
  frac: "share",
  rad: "angle",
  W: "power",
  count: "count",
};

/** A value in one of the API's own units, worded for the user. */
export function inUnit(si: number, unit: string, units: Units): string {
  if (unit === "s") return duration(si);
  const quantity = QUANTITY_OF[unit];
  if (quantity) return amount(si, quantity, units);
  if (unit === "kg/m3") return `${number(si / 1000, 2)} g/ml`;
  return `${number(si, byExtent(si))} ${unit}`;
}

export function range(spread: Spread, unit: string, units: Units): string {
  const low = unit === "s" && spread.low < 0.5 ? "at once" : inUnit(spread.low, unit, units);
  const high = inUnit(spread.high, unit, units);
  return low === high || (unit === "s" && spread.high < 0.5) ? low : `${low} to ${high}`;
}

/** Minutes and seconds, or hours and minutes when long. */
export function duration(seconds: number): string {
  const whole = Math.round(Math.abs(seconds));
  const sign = seconds < 0 && whole > 0 ? "−" : "";
  if (whole >= 3600)
    return `${sign}${Math.floor(whole / 3600)} h ${String(Math.floor((whole % 3600) / 60)).padStart(2, "0")}`;
  return `${sign}${clock(whole)}`;
}

const HOUR_S = 3600;

/** A time in the unit one thinks of it in, where it is not known to the second. */
export function roughly(s: number): string {
  const minutes = Math.round(Math.max(s, 0) / 60);
  if (s < 10 * HOUR_S)
    return minutes < 60
      ? `${minutes} min`
      : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, "0")}`;
  return s < 48 * HOUR_S ? `${Math.floor(s / HOUR_S)} h` : `${Math.floor(s / (24 * HOUR_S))} days`;
}

/** On how many days of ten something is so, or of twenty where it nearly always is. */
export function daysWords(share: number): string {
  const of = share >= 0.945 ? 20 : 10;
  const days = Math.round(share * of);
  return days === of ? "all days" : `${days} days of ${of}`;
}

/** m:ss for countdowns. */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const minutes = Math.floor(whole / 60);
  if (minutes >= 60) return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, "0")}`;
  return `${minutes}:${String(whole % 60).padStart(2, "0")}`;
}
