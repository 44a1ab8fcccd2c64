import { hashKey } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { roughly } from "../../shared/format/units";
import { dayAndTime, timeOfDay } from "../../shared/format/zone";
import { TASK_WORDS } from "../../shared/laneWords";
import { wholeName } from "../../shared/named";
import type { Order } from "./queries";

export type Wish = Order["wishes"][number];
/** What is done to the wishes as they stand. */
export type OnWishes = (change: (now: Wish[]) => Wish[]) => void;

export const isSameWish = (a: Wish | undefined, b: Wish | undefined) => hashKey([a]) === hashKey([b]);
export const without = (wishes: Wish[], lifted: Wish | undefined) =>
  wishes.filter((wish) => !isSameWish(wish, lifted));
export type OfThing = Extract<Wish, { of: unknown }>["of"];
type Span = Schemas["Span"];

/** What wishes are worded by: the kitchen's zone, whether times need their day, pieces by id, and what hands do in the plan. */
export interface WishNames {
  zone: string;
  dated: boolean;
  pieces: Record<string, string>;
  /** A span of the thing that is meant, where the plan has one. */
  spanOf: (thing: OfThing) => Span | undefined;
}

/** What is meant by a wish: a piece, or one thing that is done to it. */
export function thingWords(thing: OfThing, { pieces, spanOf }: WishNames): string {
  const piece = pieces[thing.piece_id] ?? "A piece";
  if (thing.what === null) return piece;
  const span = spanOf(thing);
  const named = span?.named ? wholeName(span.named) : piece;
  const nth = thing.nth ? ` of the ${nthWords(thing.nth + 1)} filling` : "";
  return `${named}: ${TASK_WORDS[thing.what]}${nth}`;
}

/** A wish in words. */
export function wishWords(wish: Wish, names: WishNames): string {
  const at = (moment: string) => (names.dated ? dayAndTime : timeOfDay)(new Date(moment), names.zone);
  switch (wish.wish) {
    case "begins_at":
      return `${thingWords(wish.of, names)} at ${at(wish.at)}`;
    case "not_before":
      return `${thingWords(wish.of, names)} not before ${at(wish.at)}`;
    case "over_by":
      return `${thingWords(wish.of, names)} ready by ${at(wish.at)}`;
    case "only_by":
      return `${thingWords(wish.of, names)} by ${wish.person} only`;
    case "not_by":
      return `${thingWords(wish.of, names)} not by ${wish.person}`;
    case "there_from":
      return `${wish.person} there from ${at(wish.at)} to ${at(wish.until)}`;
    case "away_from":
      return `${wish.person} away from ${at(wish.at)} to ${at(wish.until)}`;
  }
}

function nthWords(n: number): string {
  const ending = n % 100 > 10 && n % 100 < 14 ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th");
  return `${n}${ending}`;
}

/** What is said where wishes cannot be kept, each with whether it is all of them that fail. */
export function outcomeWords(
  of: Schemas["WishesKept"],
  wishes: readonly Wish[],
  names: WishNames,
  due: string,
): string[] {
  const listed = (numbers: readonly number[]) =>
    numbers
      .map((n) => wishes[n])
      .map((wish) => (wish ? `“${wishWords(wish, names)}”` : "a wish of another order"))
      .join(" and ");
  const clashes = of.clashes.map((set) =>
    set.length === 1
      ? `${listed(set)} cannot be kept: what goes before it or after it takes longer than that leaves, or nobody has hands for it then. The timetable leaves it out.`
      : `${listed(set)} cannot ${set.length === 2 ? "both" : "all"} be kept. The timetable leaves them out: lift one of them, or move its time.`,
  );
  const unfound =
    of.unfound.length > 0
      ? [
          `No timetable with ${listed(of.unfound)} was found in the time there was; there may be one. The timetable leaves ${of.unfound.length === 1 ? "it" : "them"} out.`,
        ]
      : [];
  const late =
    of.late.length > 0
      ? [`With ${listed(of.late)} it is not ready by ${due}. Move one of the times, or when it is due.`]
      : [];
  return [...clashes, ...unfound, ...late];
}

/** What the wishes that are kept cost. */
export function costWords({ longer_s, sooner_s, melts }: Schemas["WishesKept"]): string {
  const costs = [
    longer_s >= 60 && `${roughly(longer_s)} longer`,
    melts > 0 && `${melts} ${melts === 1 ? "melt" : "melts"} more`,
    sooner_s >= 60 && `begun ${roughly(sooner_s)} sooner`,
  ].filter(Boolean);
  return costs.length > 0
    ? `What you asked for costs: ${costs.join(", ")}.`
    : "What you asked for costs nothing.";
}
