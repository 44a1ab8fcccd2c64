import type { Schemas } from "../api/client";
import { amount, type Units } from "./format/units";

/** A step of tempering in a line. */
export function stepWords(step: Schemas["Step"], units: Units): string {
  const to = amount(step.to_degc, "temperature", units);
  const kg = amount(step.kg, "mass", units);
  const share = `${Math.round(step.share_frac * 100)} %`;
  return (
    {
      melt: `melt to ${to}`,
      seed: `stir in ${kg} seed, to ${to}`,
      powder: `${kg} cocoa-butter powder, at ${to}`,
      cool: `stir, cool to ${to}`,
      slab: `${share} (${kg}) on the slab, to ${to}`,
      return: `back into the bowl: ${to}`,
      "cold bowl": `over cold water to ${to}`,
      warm: `warm to ${to}, never above`,
      test: "lay a smear: it sets with gloss",
      pour: `pour at ${to}, untempered`,
      chill: "chill hard at once",
    } satisfies Record<typeof step.act, string>
  )[step.act];
}
