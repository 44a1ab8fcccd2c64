import type { EventKind } from "./events";

/** What an event of a run is called, for undo and for the log. */
const EVENT_WORDS: Record<EventKind, string> = {
  started: "started",
  acknowledged: "caution read",
  heated: "on the heat",
  burst: "burst",
  rested: "off the heat",
  reading: "reading",
  seen: "seen",
  poured: "poured",
  moved: "moved",
  flipped: "turned",
  bent: "bent",
  inserted: "put in or on",
  combed: "combed",
  grooved: "grooved",
  cut_out: "cut",
  unmoulded: "unmoulded",
  made: "made by hand",
  outcome: "outcome",
  mended: "mended",
  counted: "counted again",
  rearranged: "another order",
  left_out: "left out",
  went: "who is there",
  timer: "timer",
  note: "note",
  judged: "reading judged",
  discarded: "thrown away",
  short: "ran short",
  decanted: "into bags",
  merged: "put back",
  coloured: "coloured",
  tempered: "temper",
  replanned: "cook again",
  paused: "pause",
  resumed: "go on",
  ended: "ended",
  cancels: "taken back",
};

/** The same of a kind that this version may not know. */
export const eventWords = (kind: string): string =>
  kind in EVENT_WORDS ? EVENT_WORDS[kind as EventKind] : kind;
