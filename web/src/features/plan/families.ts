import type { Schemas } from "../../api/client";
import type { FamilyOf } from "./Ways";

type Shown = Schemas["MaterialShown"];

/** The families that an order's melts belong to, each once, with what the first of its materials says of it. */
export function familiesOf(melts: (Shown | undefined)[]): FamilyOf[] {
  const out = new Map<string, FamilyOf>();
  for (const melt of melts) {
    const key = melt?.family?.key;
    if (!melt || !key || out.has(key)) continue;
    out.set(key, {
      key,
      name: key.replaceAll("_", " "),
      nibs: melt.family?.nibs === true,
      wet: melt.family?.wet === true,
      heated_to: melt.heated_to,
    });
  }
  return [...out.values()];
}
