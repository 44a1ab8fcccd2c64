import type { ActWords, What } from "./acts";
import { amount, duration, type Units } from "./format/units";

type Step = What<"temper">["step"];

export const TEMPER_SHORT: Record<Step, string> = {
  seed: "Stir in the seed",
  more: "Stir in more seed",
  read: "Stir, then read the bowl",
  stir: "Keep stirring",
  "take out": "Take out the lumps, lay a smear",
  test: "Lay a smear",
  look: "Look at the smear",
  warm: "Warm it a little",
  melt: "Melt it on",
  cool: "Stir, let it cool",
  powder: "Stir in the powder",
  slab: "Part of it onto the slab",
  return: "Back into the bowl",
  "cold bowl": "Over cold water",
};

const percent = (frac: number) => `${Math.round(frac * 100)} %`;

/** The one act at a bowl that is tempered, readable from the hob. */
export function temperWords(what: What<"temper">, units: Units): ActWords {
  const to = amount(what.to_degc, "temperature", units);
  const kg = amount(what.kg, "mass", units);
  const share = percent(what.share_frac);
  const melted = `${percent(what.melted_frac)} of the seed has melted.`;
  const clock = `${duration(what.smear_s.low)} to ${duration(what.smear_s.high)}`;
  const say = (title: string, detail: string, button: string, before = ""): ActWords => ({
    title,
    detail: [detail],
    button,
    before,
    during: "",
  });
  switch (what.step) {
    case "seed":
      return say(
        `Stir in ${kg} seed`,
        `In handfuls, all the while. It takes the bowl to ${to}. That is ${share} of the whole; ${percent(what.usual_frac)} is usual.`,
        "Stirred in",
      );
    case "more":
      return say(`${kg} more seed`, `${melted} It is still too warm for what is left.`, "Stirred in");
    case "read":
      return say(
        "Stir, then read",
        "How warm it is now says how much of the seed has melted.",
        "Type a reading",
        "stir, read in",
      );
    case "stir":
      return say(
        "Keep stirring",
        `${melted} The rest cools it further. Read again.`,
        "Type a reading",
        "read again in",
      );
    case "take out":
      return say(
        "Take out the lumps",
        `In its window. About ${kg} is left: lift it out, then lay a smear.`,
        "Smear laid",
      );
    case "test":
      return say(
        "Lay a smear",
        `In its window at ${to}. On a knife or paper, at room temperature.`,
        "Smear laid",
      );
    case "look":
      return say(
        "Look at the smear",
        `In temper it sets with gloss in ${clock}. Keep the bowl at ${to} meanwhile.`,
        "",
        "look in",
      );
    case "warm":
      return say(
        `Warm it, to ${to}`,
        what.seeded
          ? "Two seconds at a time, stirring, never above: then its temper is gone."
          : "Two seconds at a time, stirring: then its seed goes in.",
        "Warmed",
      );
    case "cool":
      return say(
        `Stir, let it cool to ${to}`,
        "Off the heat, stirring now and then. Type what the probe says: the time follows.",
        "It is there",
        "there in about",
      );
    case "powder":
      return say(
        `${kg} powder in`,
        `Cocoa-butter powder, ${share} of the bowl, at ${to}. Stir well.`,
        "Stirred in",
      );
    case "slab":
      return say(
        `${share} on the slab`,
        `About ${kg}. Spread and gather until it thickens, at ${to}; leave none to set.`,
        "Thickens",
      );
    case "return":
      return say("Back into the bowl", `Stir both together: the whole comes to ${to}.`, "Stirred");
    case "cold bowl":
      return say(
        `Cold bowl, to ${to}`,
        "Over cold water, stirring from the wall, no drop into it.",
        "Cooled",
      );
    case "melt":
      return say(
        `Melt it on, to ${to}`,
        "Below that old crystals are left in it, the wrong ones. Was it warmer than it says? Then tap.",
        "It was melted through",
      );
  }
}
