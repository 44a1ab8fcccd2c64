import type { Schemas } from "../../api/client";
import type { FamilyOf } from "./Ways";

type Shown = Schemas["MaterialShown"];

/** So far below its usual cook, and above it, the slider of a cook goes [K]. */
const BELOW_K = 10;
const ABOVE_K = 12;

/** The families that an order's melts belong to, each once, with what the first of its materials says of it. */
export function familiesOf(melts: (Shown | undefined)[]): FamilyOf[] {
  const out = new Map<string, FamilyOf>();
  for (const melt of melts) {
    const key = melt?.family?.key;
    if (!melt || !key || out.has(key)) continue;
    const value = (name: string) => melt.properties.find((p) => p.name === name);
    const cook = value("cook_to");
    out.set(key, {
      key,
      name: key.replaceAll("_", " "),
      nibs: melt.family?.nibs === true,
      wet: melt.family?.wet === true,
      cook: cook && { low: cook.likely - BELOW_K, high: cook.likely + ABOVE_K, least: cook.low },
      melt: value("melt_to"),
      spoils: value("spoils_at"),
    });
  }
  return [...out.values()];
}
