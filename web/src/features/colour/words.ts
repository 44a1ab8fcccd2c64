import type { Schemas } from "../../api/client";

export const BASES = [
  { key: "clear_isomalt", name: "Clear isomalt" },
  { key: "bright_coating", name: "Bright white coating" },
  { key: "dark_coating", name: "Dark coating" },
  { key: "white_chocolate", name: "White couverture, ivory" },
  { key: "milk_chocolate", name: "Milk couverture" },
  { key: "dark_chocolate", name: "Dark couverture" },
];

export const DYES: [Colour["dye"], string][] = [
  ["e102", "tartrazine, yellow"],
  ["e104", "quinoline yellow"],
  ["e110", "sunset yellow, orange"],
  ["e122", "carmoisine, crimson"],
  ["e124", "ponceau, red"],
  ["e127", "erythrosine, pink"],
  ["e129", "allura red"],
  ["e131", "patent blue"],
  ["e132", "indigotine, dark blue"],
  ["e133", "brilliant blue"],
  ["e142", "green S"],
  ["e151", "black, violet"],
];

type Colour = Schemas["Colour"];

/** How near a recipe comes, in words: differences as an eye sees them side by side. */
export function nearWords(delta: number): string {
  if (delta < 1) return "cannot be told from it";
  if (delta < 3) return "close: seen side by side";
  if (delta < 7) return "near, but another colour";
  return "far from it";
}

const HELD: Record<Schemas["Coloured"]["held_by"], string> = {
  "": "",
  "the most that is usual": "more colour than is usual would be needed",
  "what is in it already": "what is in it already cannot be taken out",
  "these colours": "these colours do not reach it",
};

/** What is missing to the wanted colour, and why. */
export function missWords(of: Schemas["Coloured"]): string {
  if (of.delta_e < 1) return "";
  const rows: [number, string, string][] = [
    [of.lighter, "lighter", "darker"],
    [of.redder, "redder", "greener"],
    [of.yellower, "yellower", "bluer"],
  ];
  const most = rows.reduce((a, b) => (Math.abs(b[0]) > Math.abs(a[0]) ? b : a));
  const wish = most[0] > 0 ? most[1] : most[2];
  return `Wanted ${wish}, but ${HELD[of.held_by] ?? "this is the nearest"}.`;
}
