import type { Schemas } from "../api/client";
import type { ActWords, What } from "./acts";
import { amount, duration, type Units } from "./format/units";

type Coat = Schemas["FinishCoat"];

const DOES: Record<Schemas["Finish"]["sort"], string> = { dust: "Dust", paint: "Paint", lacquer: "Lacquer" };

const nth = ({ of, nth: n }: Coat) => (of.coats > 1 ? `, coat ${n + 1} of ${of.coats}` : "");

/** How a coat of a finish is put on, with what it takes and how long it dries. */
export function finishWords(step: What<"by_hand">["step"], coat: Coat, units: Units): ActWords {
  const { of } = coat;
  const [put] = step.items;
  const { piece, part } = step.named;
  return {
    title: `${DOES[of.sort]} ${step.count}${nth(coat)}: ${part ? `${piece}, ${part}` : piece}`,
    detail: [
      `${put ? `${put.name}: ` : ""}${HOW[of.sort](coat, step.count, units)} About ${duration(step.count * step.each_s)}.`,
      ...cautions(coat),
    ],
    button: "It is on",
    before: coat.nth > 0 ? "dry in" : "no longer cold in",
    during: "whenever you like",
  };
}

/** Less than is weighed or measured. */
const PINCH_KG = 0.0001;
const DROPS_M3 = 5e-7;

export const dustOf = (kg: number, units: Units) => (kg < PINCH_KG ? "a pinch" : amount(kg, "mass", units));
export const liquidOf = (m3: number, units: Units) =>
  m3 < DROPS_M3 ? "a few drops" : amount(m3, "volume", units);

const HOW: Record<Schemas["Finish"]["sort"], (coat: Coat, count: number, units: Units) => string> = {
  dust: ({ coat }, count, units) =>
    `dry, with a soft brush, ${dustOf(count * coat.dust_kg, units)} for all; knock off what is over. Gloves: a fingerprint shows.`,
  paint: ({ of, coat }, count, units) =>
    `${dustOf(count * coat.dust_kg, units)} of dust and ${liquidOf(count * coat.liquid_m3, units)} of spirit for all, ${Math.round(of.dust_frac * 10)} parts of dust to ${10 - Math.round(of.dust_frac * 10)} by volume. Runs or does not cover: more dust; drags: a drop of spirit. Dry in about ${duration(coat.dries_s)}.`,
  lacquer: ({ coat }, count, units) =>
    `${liquidOf(count * coat.liquid_m3, units)} for all, from about ${amount(coat.far_m, "length", units)}, one light pass, begun and ended beside it. Dry in about ${duration(coat.dries_s)}: never over what is wet.`,
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
