import type { Schemas } from "../api/client";
import { amount, type Units } from "./format/units";
import { isDark, toneOf } from "./tones";

/** What a melt is called: its colour as the palettes have it, and its material. */
export function meltName(key: string, material: string, palettes: Schemas["StoredPalette"][]): string {
  const hex = hexOf(key);
  if (hex === null) return material;
  const known = palettes.flatMap((p) => p.doc.colours).find((c) => c.hex === hex);
  return `${known?.name ?? hex}, ${material.toLowerCase()}`;
}

const hexOf = (key: string): string | null => (key.includes("#") ? `#${key.split("#")[1]}` : null);

/** The tone a melt is drawn in, and one that shows on it. */
export function tonesOf(key: string): { tone: string; line: string } {
  const tone = hexOf(key) ?? toneOf(key.split("#")[0] ?? "");
  return { tone, line: isDark(tone) ? "#ffffff88" : "#2b1b1477" };
}

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
