import type { Schemas } from "../api/client";
import type { ActWords } from "./actWords";
import { amount, duration, type Units } from "./format/units";

export const TEMPER_SHORT: Record<string, string> = {
  seed: "Stir in the seed",
  more: "Stir in more seed",
  read: "Stir, then read the bowl",
  stir: "Keep stirring",
  "take out": "Take out the lumps, lay a smear",
  test: "Lay a smear",
  look: "Look at the smear",
  warm: "Warm it a little",
  melt: "Melt it on",
};

const seedShare = (p: Record<string, number>) => `${Math.round((p.share_frac ?? 0) * 100)} %`;

/** The one act at a bowl that is tempered, readable from the hob. */
export function temperWords(act: Schemas["ActView"], units: Units): ActWords {
  const p = act.params as Record<string, number>;
  const to = amount(p.to_degc ?? 0, "temperature", units);
  const kg = amount(p.kg ?? 0, "mass", units);
  const share = `${Math.round((p.share_frac ?? 0) * 100)} %`;
  const melted = `${Math.round((p.melted_frac ?? 0) * 100)} % of the seed has melted.`;
  const clock = `${duration(p.smear_low_s ?? 0)} to ${duration(p.smear_high_s ?? 0)}`;
  const say = (title: string, detail: string, button: string, before = ""): ActWords => ({
    title,
    detail: [detail],
    button,
    before,
    during: "",
  });
  switch (String(act.params.step)) {
    case "seed":
      return say(
        `Stir in ${kg} seed`,
        `In handfuls, all the while. It takes the bowl to ${to}. That is ${seedShare(p)} of the whole; ${Math.round((p.practised_frac ?? 0) * 100)} % is usual.`,
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
        act.params.seeded
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
    default:
      return say("Temper the bowl", "", "Done");
  }
}
