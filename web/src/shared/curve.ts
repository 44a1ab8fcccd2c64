import type { Schemas } from "../api/client";

/** One series of a curve at a time, straight between its points; null without points. */
export function curveAt(curve: Schemas["Curve"], series: number[], s: number): number | null {
  const i = curve.times_s.findIndex((t) => t >= s);
  if (i === 0) return series[0] ?? null;
  if (i < 0) return series.at(-1) ?? null;
  const [t0, t1, a, b] = [curve.times_s[i - 1], curve.times_s[i], series[i - 1], series[i]];
  if (t0 === undefined || t1 === undefined || a === undefined || b === undefined) return null;
  return a + ((b - a) * (s - t0)) / (t1 - t0);
}
