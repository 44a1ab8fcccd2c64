import type { Schemas } from "../api/client";
import { amount, type Units } from "./format/units";

const QUARTERS: Record<number, string> = { 0.25: "¼", 0.5: "½", 0.75: "¾" };
const SPOONS: Record<Schemas["Measured"]["of"], { one: string; many: string }> = {
  tsp: { one: "teaspoon", many: "teaspoons" },
  tbsp: { one: "tablespoon", many: "tablespoons" },
  cup: { one: "cup", many: "cups" },
};

/** So many spoons or cups: "1¼ cups". */
export function measureWords({ count, of }: Schemas["Measured"]): string {
  const whole = Math.floor(count);
  const part = QUARTERS[count - whole] ?? "";
  const shown = whole === 0 ? part : `${whole}${part}`;
  return `${shown} ${count > 1 ? SPOONS[of].many : SPOONS[of].one}`;
}

/** Grams, and the same by the spoon or cup where that is known. */
export function gramsAndSpoons(
  { kg, measured }: { kg: number; measured: Schemas["Measured"] | null },
  units: Units,
): string {
  const grams = amount(kg, "mass", units);
  return measured ? `${grams} (${measureWords(measured)})` : grams;
}

/** What a mixture is of: "149 g (1¼ cups) cake crumbs, 31 g (2 tablespoons) frosting". */
export const mixedWords = (parts: Schemas["Ingredient"][], units: Units): string =>
  parts.map((part) => `${gramsAndSpoons(part, units)} ${part.name}`).join(", ");

const spoonful = (of: Schemas["Spoonful"], units: Units) =>
  `a ${SPOONS[of.of].one} of ${of.name} more (${amount(of.kg, "mass", units)})`;

/** What is added by feel, and how much of it is still usual. */
export function feelWords({ dry, soft }: Schemas["Feel"], units: Units): string[] {
  const most = (of: Schemas["Spoonful"]) => (of.most > 0 ? `, up to ${of.most}` : "");
  return [
    ...(dry ? [`Too stiff, it crumbles when pressed: ${spoonful(dry, units)}${most(dry)}.`] : []),
    ...(soft ? [`Too soft, it sticks: ${spoonful(soft, units)}${most(soft)}.`] : []),
  ];
}

/** A mixture as it is made at the bench. */
export const mixingWords = ({ name, of, feel }: Schemas["Mixing"], units: Units): string[] => [
  `${name}, if it is not made yet: ${mixedWords(of, units)}.`,
  ...feelWords(feel, units),
];
