import type { Schemas } from "../api/client";
import { askAddress, type Found, QUESTIONS } from "./ask";

type Thing = Schemas["FoundThing"];

/** A place that a phrase may lead to. */
export interface Goal {
  to: string;
  name: string;
  note: string;
}

const KIND: Record<Thing["kind"], { word: string; to: (id: string) => string }> = {
  order: { word: "order", to: (id) => `/orders/${id}` },
  piece: { word: "piece", to: (id) => `/pieces/${id}` },
  mould: { word: "mould", to: (id) => `/pieces/moulds/${id}` },
  run: { word: "run", to: (id) => `/log/${id}` },
  colour: { word: "colour at hand", to: (id) => `/kitchen/colours?open=${id}` },
  material: { word: "material", to: (id) => `/kitchen/materials/${id}` },
  palette: { word: "palette", to: () => "/work-out/colour" },
};

const SLOT: Record<string, string> = {
  material: "what it is of",
  shape: "its shape",
  mould: "the mould",
  place: "where",
  doing: "what you do",
  wanted: "the colour",
  thickness_m: "how thick",
  across_m: "how wide",
  kg: "how much",
  degc: "how warm",
  quantity: "how many",
  piece_id: "the piece",
};

/** Where a phrase may lead, the likeliest first: the question it asks, things by their names, words of the trade. */
export function goalsOf({ understood, things, words }: Found, day: (at: string) => string): Goal[] {
  const { asked, read } = understood;
  const taken = read.taken
    .filter((of) => !understood.refused.some(({ slot }) => slot === of.slot))
    .map(({ words: said, slot }) => `${said}: ${SLOT[slot] ?? slot}`)
    .join("; ");
  const { refused } = understood;
  const unknown = [
    read.unknown.length > 0 && `not known here: ${read.unknown.join(", ")}`,
    refused.length > 0 && `too much or too little: ${refused.map((of) => of.words).join(", ")}`,
  ]
    .filter(Boolean)
    .join(". ");
  const question: Goal[] = asked
    ? [
        {
          to: askAddress(asked),
          name: QUESTIONS[asked.question].title,
          note: [taken, unknown].filter(Boolean).join(". ") || QUESTIONS[asked.question].note,
        },
      ]
    : [];
  const named = things.map(({ kind, id, name, at }) => ({
    to: KIND[kind].to(id),
    name,
    note: `${KIND[kind].word}${at ? `, ${day(at)}` : ""}`,
  }));
  const told = words.map(({ called, means, page }) => ({ to: `/${page}`, name: called, note: means }));
  // a name that is meant exactly comes before a question that was only guessed
  const guessed = read.taken.length + read.unknown.length > 0 && read.unknown.length >= read.taken.length;
  return guessed ? [...named, ...question, ...told] : [...question, ...named, ...told];
}

const KEY = "umber-pebble.used";
const MOST = 6;

/** What was gone to last from here, the newest first. */
export function lastUsed(): Goal[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]");
  } catch {
    return [];
  }
}

export function noteUsed(goal: Goal): void {
  const before = lastUsed().filter(({ to }) => to !== goal.to);
  try {
    localStorage.setItem(KEY, JSON.stringify([goal, ...before].slice(0, MOST)));
  } catch {
    // a browser that keeps nothing
  }
}
