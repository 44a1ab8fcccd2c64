/** Where a filled bag, bowl or jug is kept, by the event's own word. */
export const SPOTS: [string, string][] = [
  ["air", "standing in a glass"],
  ["towel", "in a towel"],
  ["bath", "over hot water"],
  ["counter", "on the counter"],
  ["hand", "in the hand"],
];

export const spotWords = (spot: string): string => SPOTS.find(([key]) => key === spot)?.[1] ?? spot;
