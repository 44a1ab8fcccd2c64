import type { EventBody } from "./events";

export type Spot = Extract<EventBody, { kind: "moved"; payload: { spot: unknown } }>["payload"]["spot"];

/** Where a filled bag, bowl or jug is kept, by the event's own word. */
export const SPOTS: [Spot, string][] = [
  ["air", "standing in a glass"],
  ["towel", "in a towel"],
  ["bath", "over hot water"],
  ["counter", "on the counter"],
  ["hand", "in the hand"],
];

export const spotWords = (spot: string): string => SPOTS.find(([key]) => key === spot)?.[1] ?? spot;
