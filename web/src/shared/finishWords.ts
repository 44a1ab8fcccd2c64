import type { Schemas } from "../api/client";
import type { ActWords, What } from "./acts";
import { amount, duration, type Units } from "./format/units";
import { wholeName } from "./named";

type Coat = Schemas["FinishCoat"];

const DOES: Record<Schemas["Finish"]["sort"], string> = { dust: "Dust", paint: "Paint", lacquer: "Lacquer" };

const nth = ({ of, nth: n }: Coat) => (of.coats > 1 ? `, coat ${n + 1} of ${of.coats}` : "");

/** How a coat of a finish is put on, with what it takes and how long it dries. */
export function finishWords(step: What<"by_hand">["step"], coat: Coat, units: Units): ActWords {
  const { of } = coat;
  return {
    title: `${DOES[of.sort]} ${step.count}${nth(coat)}: ${wholeName(step.named)}`,
    detail: [`${HOW[of.sort](coat, units)} About ${duration(step.count * step.each_s)}.`, ...cautions(coat)],
    button: "It is on",
    before: coat.nth > 0 ? "dry in" : "no longer cold in",
    during: "whenever you like",
  };
}

const HOW: Record<Schemas["Finish"]["sort"], (coat: Coat, units: Units) => string> = {
  dust: ({ coat }, units) =>
    `Dry, with a soft brush, ${amount(coat.dust_kg, "mass", units)} each; knock off what is over. Gloves: a fingerprint shows.`,
  paint: ({ of, coat }, units) =>
    `${amount(coat.liquid_m3, "volume", units)} of spirit and ${amount(coat.dust_kg, "mass", units)} dust each, ${Math.round(of.dust_frac * 100)} parts of dust by volume in a hundred: runs, more dust; does not cover, more dust; drags, a drop of spirit. Dry in about ${duration(coat.dries_s)}.`,
  lacquer: ({ coat }, units) =>
    `${amount(coat.liquid_m3, "volume", units)} each, from about 25 cm, one light pass, begun and ended beside it. Dry in about ${duration(coat.dries_s)}: never over what is wet.`,
};

/** What can hurt. */
function cautions({ of }: Coat): string[] {
  if (of.sort === "dust") return ["Fine dust: a mask, and no draught."];
  return of.sort === "paint"
    ? ["Spirit burns: no flame near it, a window open. Local rules come first."]
    : [
        "A spray of spirit burns and is breathed in: no flame, a mask, a window open. Local rules come first.",
      ];
}
