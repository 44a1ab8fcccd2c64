import type { Schemas } from "../api/client";
import type { LaneRow, LaneSpan } from "../drawings/Lanes";
import { amount, type Units } from "./format/units";
import { meltName, tonesOf } from "./melts";
import { partAndPass, wholeName } from "./named";

type Lane = Schemas["Lane"];
type Span = Schemas["Span"];

export const TASK_WORDS: Record<NonNullable<Span["what"]>, string> = {
  wash: "clean the vessel",
  weigh: "weigh",
  cook: "melt",
  warm: "warm again",
  temper: "temper",
  tend: "stir, look",
  rest: "rest",
  pour: "pour",
  bend: "bend",
  stick: "sticks",
  sprinkle: "put on",
  film: "press on",
  drag: "drag",
  comb: "comb",
  groove: "groove",
  cut: "cut the sheet",
  shape: "bend on its film",
  put_in: "fill",
  turn: "turn",
  set: "sets",
  unmould: "turn out",
  firm: "firms on its form",
  clean: "clean",
  dry: "dries",
  swirl: "swirl in",
  divide: "divide off",
  press: "press",
  model: "model",
  fit: "set out",
  finish: "finish",
  join: "join",
};

const ROLE_WORDS: Record<Span["role"], string> = {
  busy: "hands",
  pressed: "hands",
  away: "not there",
  heats: "gets hot",
  waits: "waits",
  open: "may be poured",
  holds: "lie there",
};

/** What lanes are named by: the kitchen's things, and the palettes' colours. */
export interface Names {
  kitchen: Schemas["Kitchen"];
  palettes: Schemas["StoredPalette"][];
  units: Units;
}

/** Lanes as rows to be drawn: named, noted, their spans worded; clock: seconds as a time of day. */
export function laneRows(lanes: Lane[], names: Names, clock: (s: number) => string): LaneRow[] {
  const melts = meltsByCook(lanes, names);
  return lanes.map((lane) => ({
    key: `${lane.kind} ${lane.id} ${lane.name} ${lane.colour ?? ""}`,
    name: laneName(lane, names),
    note: laneNote(lane, names),
    ...(lane.kind === "vessel" ? { tone: tonesOf(lane).tone } : {}),
    spans: lane.spans.map(
      (span, i): LaneSpan => ({
        key: spanKey(lane, i),
        role: span.role,
        start_s: span.start_s,
        end: span.end_s,
        word: inBar(span, lane),
        title: `${clock(span.start_s)} to ${clock(span.end_s.likely)}: ${inFull(span, melts)}`,
        ...(span.role === "holds" ? { full: span.count / Math.max(lane.takes ?? 1, span.count) } : {}),
      }),
    ),
  }));
}

/** What a bar is known by: its lane and its place in it. */
export const spanKey = (lane: Lane, i: number) =>
  `${lane.kind}-${lane.id}-${i}`.replaceAll(/[^a-z0-9-]/gi, "");

/** What each melt is called, by its number. */
export function meltsByCook(lanes: Lane[], names: Names): Map<number, string> {
  return new Map(
    lanes
      .filter((lane) => lane.kind === "vessel")
      .flatMap((lane) =>
        lane.spans.flatMap((span) =>
          span.cook === null ? [] : [[span.cook, meltName(lane, names.palettes)] as const],
        ),
      ),
  );
}

/** What a span is done to: a part of a piece, or a melt. */
export function ofWhat(span: Span, melts: Map<number, string>): string {
  if (span.into !== null) return melts.get(span.into) ?? "";
  if (span.named) return wholeName(span.named);
  return span.cook === null ? "" : (melts.get(span.cook) ?? "");
}

function inFull(span: Span, melts: Map<number, string>): string {
  const done = span.what ? TASK_WORDS[span.what] : ROLE_WORDS[span.role];
  const count = span.count > 1 ? `, ${span.count}` : "";
  return `${done} ${ofWhat(span, melts).toLowerCase()}${count}`;
}

/** The one word that stands in a bar: which part, where a lane is of one thing; else what is done. */
function inBar(span: Span, lane: Lane): string {
  if (span.role === "holds") return String(span.count);
  if (span.role === "waits") return "";
  if (span.role === "away") return ROLE_WORDS.away;
  if (span.role === "open") return span.what ? TASK_WORDS[span.what] : "";
  if (lane.kind === "vessel" && span.role === "pressed" && span.named)
    return (partAndPass(span.named) || span.named.piece).toLowerCase();
  return span.what ? TASK_WORDS[span.what] : "";
}

function laneName(lane: Lane, { kitchen, palettes }: Names): string {
  const named = (rows: { id: string; name: string }[]) => rows.find((row) => row.id === lane.id)?.name;
  switch (lane.kind) {
    case "hands":
      return lane.name || "Hands";
    case "heater":
      return named([...kitchen.rings, ...kitchen.microwaves, ...kitchen.baths]) ?? "Heat";
    case "vessel":
      return meltName(lane, palettes);
    case "mould":
      return lane.name;
    case "place":
      return named(kitchen.places) ?? "Place";
  }
}

function laneNote(lane: Lane, { kitchen, units }: Names): string {
  switch (lane.kind) {
    case "hands":
      return "";
    case "heater":
      return kitchen.microwaves.some((oven) => oven.id === lane.id) ? "one bowl at a time" : "";
    case "vessel":
      return `${amount(lane.kg, "mass", units)}, ${kitchen.vessels.find((v) => v.id === lane.id)?.name.toLowerCase() ?? ""}`;
    case "mould":
      return lane.takes === null ? "" : `${lane.takes} at once`;
    case "place":
      return lane.takes === null ? "" : `takes ${lane.takes} moulds`;
  }
}
