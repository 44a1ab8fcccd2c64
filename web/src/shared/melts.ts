import type { Schemas } from "../api/client";
import { amount, type Units } from "./format/units";
import { isDark, toneOf } from "./tones";

interface Coloured {
  material: string;
  colour: string | null;
}

/** What a melt is called: its colour as the palettes have it, and its material. */
export function meltName(
  { colour, name }: Coloured & { name: string },
  palettes: Schemas["StoredPalette"][],
): string {
  if (colour === null) return name;
  const known = palettes.flatMap((p) => p.doc.colours).find((c) => c.hex === colour);
  return `${known?.name ?? colour}, ${name.toLowerCase()}`;
}

/** The tone a melt is drawn in, and one that shows on it. */
export function tonesOf({ material, colour }: Coloured): { tone: string; line: string } {
  const tone = colour ?? toneOf(material);
  return { tone, line: isDark(tone) ? "#ffffff88" : "#2b1b1477" };
}

/** From here a colour is seen to be another [CIEDE2000]. */
export const FAR_OFF = 3;

/** A dose in words: grams, drops, or that its strength is still unknown. */
export function doseWords(
  dose: { name: string; add_kg: number | null; drops: number | null },
  units: Units,
): string {
  if (dose.add_kg === null) return `${dose.name} (its strength is not known: lay a swatch)`;
  const drops = dose.drops !== null && dose.drops >= 1 ? `, ${Math.round(dose.drops)} drops` : "";
  const grams = dose.add_kg < 0.0001 ? "a trace" : amount(dose.add_kg, "mass", units);
  return `${grams} ${dose.name}${drops}`;
}
