import type { Act, ActWords, What } from "./acts";
import { amount, type Units } from "./format/units";
import { colours } from "./pourWords";
import type { Wording } from "./wording";

const SHAKE = "Shake the pot now and then, never stir: it crystallises.";
const STIR = "Stir now and then until the last grain is gone, then leave it: stirring on folds in air.";

/** A pot or bowl as hot as it has to be. */
export function offWords(
  act: Act,
  { cook_degc, shaken }: What<"off">,
  units: Units,
): Record<Wording, ActWords> {
  const at = amount(cook_degc, "temperature", units);
  return {
    fat: {
      title: `Smooth at ${at}: take it out`,
      detail: [
        "Stir now and then. Type what the probe says: the time follows.",
        ...colours(act, units, "Stir in, oil-based"),
      ],
      button: "Melted",
      before: "molten in about",
      during: "overheats in",
    },
    sugar: {
      title: `Take it off at ${at}`,
      detail: [
        `${shaken ? SHAKE : STIR} Type what the probe says: the time follows.`,
        ...colours(act, units, "After the bubbles, water-based, a drop at a time (it spits)"),
      ],
      button: "Off the heat",
      before: "gets there in",
      during: "browns in",
    },
  };
}
