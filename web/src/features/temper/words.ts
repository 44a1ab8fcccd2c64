import type { Schemas } from "../../api/client";
import { amount, range, type Units } from "../../shared/format/units";

/** The one act at the bowl, large, and why. */
export function nowWords({ now, smear_s }: Schemas["Seeded"], units: Units): { title: string; why: string } {
  const to = amount(now.to_degc, "temperature", units);
  const kg = amount(now.kg, "mass", units);
  const melted = `${Math.round(now.melted_frac * 100)} % of the seed has melted.`;
  switch (now.act) {
    case "melt":
      return {
        title: `Melt on, to ${to}`,
        why: "Below that old crystals are left in it, and they are the wrong ones.",
      };
    case "cool":
      return {
        title: `Stir, let it cool to ${to}`,
        why: "Off the heat, stirring. Seed stirred in hotter melts away, and more of it is needed.",
      };
    case "seed":
      return {
        title: `Stir in ${kg} seed`,
        why: `In handfuls, chopped, all the while. It takes the bowl to ${to}; then read it.`,
      };
    case "stir":
      return {
        title: "Keep stirring",
        why: `${melted} ${kg} is still to melt and cools it further. Read again in a minute.`,
      };
    case "more":
      return { title: `Stir in ${kg} more`, why: `${melted} It is still too warm for what is left.` };
    case "take out":
      return {
        title: "In its window: take out the lumps",
        why: `${melted} About ${kg} is left: lift it out, then test.`,
      };
    case "test":
      return {
        title: "In its window: test it",
        why: `${melted} A smear on a knife sets with gloss in ${range(smear_s, "s", units)} at room temperature.`,
      };
    case "warm":
      return {
        title: `Warm it a little, to ${to}`,
        why: "Two seconds at a time, stirring. It has too much crystal and thickens.",
      };
    default:
      return { title: now.act, why: "" };
  }
}

type CurveKind = Schemas["TemperTest"]["kind"];

export const KIND_WORDS: Record<CurveKind, string> = {
  under: "under-tempered",
  well: "well tempered",
  over: "over-tempered",
};

export const KIND_MEANS: Record<CurveKind, string> = {
  under:
    "Too little seed: it warms itself as it sets. Cool a little further or stir in more seed; poured so it sticks and blooms.",
  well: "It sets evenly. Pour.",
  over: "Too much seed: it is thick and shrinks little. Warm it by half a degree, stirring, and test again.",
};
