import type { EventBody } from "./events";
import type { Wording } from "./wording";

export type Seen<S extends "cook" | "round"> = Extract<
  EventBody,
  { kind: "seen"; payload: Record<S, number> }
>["payload"]["what"];

/** What may be seen of a cast in its mould, by the event's own word. */
export const SIGHTS: Record<Wording, [Seen<"round">, string][]> = {
  sugar: [
    ["moves", "still moves"],
    ["lets_go", "rim lets go"],
    ["resists", "resists bending"],
    ["cracked", "cracked"],
  ],
  fat: [
    ["moves", "still moves"],
    ["lets_go", "rim lets go"],
    ["resists", "will not let go"],
    ["cracked", "cracked"],
  ],
};

/** What may be seen in a bowl between bursts. */
export const BOWL_SIGHTS: [Seen<"cook">, string][] = [
  ["solid", "solid"],
  ["half", "half melted"],
  ["few_lumps", "a few lumps"],
  ["smooth", "smooth"],
  ["thick", "smooth, but thick"],
  ["grainy", "grainy"],
  ["seized", "stiff, clumped (water)"],
];

export const sightWords = (what: string, wording: Wording): string =>
  [...BOWL_SIGHTS, ...SIGHTS[wording]].find(([key]) => key === what)?.[1] ?? what;
