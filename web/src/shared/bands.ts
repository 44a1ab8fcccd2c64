import type { Schemas, Spread } from "../api/client";

type Band = Schemas["Band"];
const at = (s: number): Spread => ({ low: s, likely: s, high: s });

/** Bands as they are drawn: the last one up to the edge of the drawing. */
export const drawnTo = (bands: readonly Band[], to: number): Band[] =>
  bands.map((band, i) => (i === bands.length - 1 ? { ...band, end: at(to) } : band));

/** How far a drawing of these windows must reach. */
export function reach(windows: Record<string, Spread>, never: readonly string[]): number {
  const seen = Object.entries(windows).filter(([name]) => !never.includes(name) && name !== "cool_to_hold");
  return 1.15 * Math.max(60, ...seen.map(([, spread]) => spread.high));
}

/** What the bands of a ribbon are called. */
export const BAND_WORDS: Record<Schemas["Band"]["state"], string> = {
  too_hot: "bubbles, too hot",
  too_warm: "too hot",
  pour: "POUR",
  thickening: "thickening",
  stiff: "too stiff",
  heating: "heating",
  ready: "OFF THE HEAT",
  browns: "browns",
  soft: "too soft",
  bend: "BEND",
  setting: "setting",
  unmould: "UNMOULD",
  release: "RELEASE WARM",
  next_pass: "NEXT PASS",
  film: "PRESS ON",
  drag: "DRAG",
  comb: "COMB",
  groove: "GROOVE",
  cut: "CUT",
  shape: "BEND",
  hold: "HOLD IT",
  holds: "holds, leave it",
  firm: "FIRM",
  set: "set",
  stick: "STICKS",
  fluid: "fluid",
  thickens: "thickening",
  touch: "touch-set",
  over_chilled: "over-chilled",
  overheats: "overheats",
  flows: "FLOWS",
  tempering: "to be tempered",
};
