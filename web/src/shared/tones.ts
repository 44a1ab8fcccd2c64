import type { Schemas } from "../api/client";

/** How a material looks as it comes; a colour put into it is shown instead. */
const TONES: Record<string, string> = {
  isomalt: "#bfe2e4",
  cooked_sugar: "#e8cf9a",
  caramel: "#b06a2a",
  coating: "#efe2c4",
  dark: "#472a1d",
  milk: "#7d5236",
  white: "#f2e6cb",
  cocoa_butter: "#e9d9a8",
  cake: "#e2c58d",
  ganache: "#5b3a2c",
  fruit: "#b9566a",
  cream: "#f4ead6",
  biscuit: "#c99f62",
  fondant: "#f0e4df",
  gum_paste: "#ece6da",
  modelling_chocolate: "#8a5a3c",
  marzipan: "#e9d8b0",
  balloon: "#d9d4cb",
  steel: "#b8bfc4",
  glass: "#cfdcdd",
};
const OTHER = "#c9b79c";

export const toneOf = (material: string): string => TONES[material] ?? OTHER;
export const meltTone = (melt: Schemas["MeltRef"]): string => melt.colour ?? toneOf(melt.material);

/** Whether a tone wants light lines and letters on it. */
export function isDark(hex: string): boolean {
  const part = (at: number) => Number.parseInt(hex.slice(at, at + 2), 16);
  return 0.299 * part(1) + 0.587 * part(3) + 0.114 * part(5) < 128;
}
