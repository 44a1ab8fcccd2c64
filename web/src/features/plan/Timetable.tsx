import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Lanes } from "../../drawings/Lanes";
import { duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { day, dayAndTime, sinceMidnight_s, timeOfDay } from "../../shared/format/zone";
import { paletteListQuery } from "../../shared/kitchen";
import { laneRows, meltsByCook, type Names, ofWhat, spanKey, TASK_WORDS } from "../../shared/laneWords";
import { Fold } from "../../shared/ui/Fold";
import { Part } from "./Part";
import { Picked } from "./Picked";
import { type Asked, timetableQuery } from "./queries";
import { Wishes } from "./Wishes";
import type { OfThing, OnWishes, Wish, WishNames } from "./wishWords";

type Lane = Schemas["Lane"];
type Span = Schemas["Span"];

interface Props {
  asked: Asked;
  kept: Schemas["WishesKept"] | null;
  kitchen: Schemas["Kitchen"];
  pieces: Schemas["StoredPiece"][];
  wishes: Wish[];
  onChange: OnWishes;
}

/** Back from the due time: who and what is busy with what, and what waits, each in its row; and what is wished of it. */
export function Timetable(p: Props) {
  return (
    <Part query={timetableQuery(p.asked)} place="min-h-[36rem]">
      {(of) => <Rows of={of} {...p} />}
    </Part>
  );
}

const MINUTE_MS = 60_000;

function Rows({
  of,
  asked,
  kept,
  kitchen,
  pieces,
  wishes,
  onChange,
}: Props & { of: Schemas["TimetablePart"] }) {
  const units = useUnits();
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const [picked, setPicked] = useState<string | null>(null);
  const names: Names = { kitchen, palettes, units };
  const zero = new Date(of.planned_at).getTime();
  const at = (s: number) => new Date(zero + s * 1000);
  const spans = of.lanes.flatMap((lane) => lane.spans);
  const from = Math.min(...spans.map((span) => span.start_s));
  const to = Math.max(...spans.map((span) => span.end_s.likely));
  // over a night, times have their day
  const over = day(at(from), kitchen.zone) !== day(at(to), kitchen.zone);
  const clock = (s: number) => timeOfDay(at(s), kitchen.zone);
  const dated = (s: number) => (over ? dayAndTime : timeOfDay)(at(s), kitchen.zone);
  const hands = of.lanes.filter((lane) => lane.kind === "hands");
  // what nobody is there for is drawn short
  const away = awayOf(hands);
  const melts = meltsByCook(of.lanes, names);
  const things = thingsOf(hands, of.pieces);
  const wishNames: WishNames = {
    zone: kitchen.zone,
    dated: over,
    pieces: Object.fromEntries(
      of.pieces.map((id) => [id, pieces.find((piece) => piece.id === id)?.doc.name ?? "A piece"]),
    ),
    spanOf: (thing) => [...things.values()].find((of) => isSameThing(of.thing, thing))?.span,
  };
  // one wish of a kind for a thing: the last one counts
  const wish = (next: Wish) =>
    onChange((now) => [
      ...now.filter(
        (old) => !("of" in old && "of" in next && old.wish === next.wish && isSameThing(old.of, next.of)),
      ),
      next,
    ]);
  const drop = (key: string, start_s: number) => {
    const thing = things.get(key)?.thing;
    const moment = new Date(Math.round(at(start_s).getTime() / MINUTE_MS) * MINUTE_MS);
    if (thing) wish({ wish: "begins_at", of: thing, at: moment.toISOString() });
  };
  const chosen = picked === null ? undefined : things.get(picked);
  const people = hands.map((lane) => lane.name).filter(Boolean);
  return (
    <>
      <Wishes
        asked={asked}
        wishes={wishes}
        kept={kept}
        names={wishNames}
        people={asked.order.people}
        span={[at(from), at(to)]}
        onChange={onChange}
      />
      {chosen && (
        <Picked
          key={picked}
          span={chosen.span}
          thing={chosen.thing}
          from={at(chosen.span.start_s)}
          to={at(chosen.span.end_s.likely)}
          zone={kitchen.zone}
          who={chosen.who}
          people={people}
          onWish={wish}
          onClose={() => setPicked(null)}
        />
      )}
      <Lanes
        lanes={laneRows(of.lanes, names, dated)}
        from={from}
        to={to}
        away={away}
        now={(Date.now() - zero) / 1000}
        clock={clock}
        midnight_s={sinceMidnight_s(at(0), kitchen.zone)}
        label={`Timetable from ${clock(from)} to ${clock(to)}`}
        hand={{ may: new Set(things.keys()), picked, onPick: setPicked, onDrop: drop }}
      />
      <div className="mt-5">
        {hands.map((lane) => {
          const { id, name } = lane;
          const tasks = lane.spans.map((task, i) => ({ task, key: spanKey(lane, i) }));
          const done = tasks.filter(({ task }) => task.role !== "away");
          return (
            <Fold
              key={id}
              title={`What ${name || "the hands"} ${name ? "does" : "do"}, one after the other`}
              note={`${done.length} tasks`}
            >
              <ol
                aria-label={`Tasks of ${name || "the hands"}`}
                className="columns-[17rem] gap-8 text-[0.95rem]"
              >
                {done.map(({ task, key }) => (
                  <li
                    key={key}
                    title={`takes ${duration(task.end_s.likely - task.start_s)}`}
                    className="flex break-inside-avoid gap-3"
                  >
                    <b className={`${over ? "w-36" : "w-12"} shrink-0`}>{dated(task.start_s)}</b>
                    <TaskOf
                      words={task.what ? TASK_WORDS[task.what] : ""}
                      of={ofWhat(task, melts).toLowerCase()}
                      onPick={things.has(key) ? () => setPicked(key) : undefined}
                    />
                  </li>
                ))}
              </ol>
            </Fold>
          );
        })}
      </div>
    </>
  );
}

/** What is done to what; pressed, it may be wished of. */
function TaskOf({ words, of, onPick }: { words: string; of: string; onPick: (() => void) | undefined }) {
  const text = (
    <>
      {words} <span className="text-quiet">{of}</span>
    </>
  );
  return onPick ? (
    <button type="button" onClick={onPick} className="min-w-0 truncate text-left hover:underline">
      {text}
    </button>
  ) : (
    <span className="min-w-0 truncate">{text}</span>
  );
}

interface Done {
  span: Span;
  thing: OfThing;
  who: string;
}

/** What hands do that may be wished of, by the keys of their bars. */
function thingsOf(hands: Lane[], pieces: string[]): Map<string, Done> {
  const out = new Map<string, Done>();
  for (const lane of hands)
    lane.spans.forEach((span, i) => {
      const piece_id = span.thing ? pieces[span.thing.item] : undefined;
      if (span.thing && piece_id !== undefined) {
        const { step, what, nth } = span.thing;
        out.set(spanKey(lane, i), { span, thing: { piece_id, step, what, nth }, who: lane.name });
      }
    });
  return out;
}

const isSameThing = (a: OfThing, b: OfThing) =>
  a.piece_id === b.piece_id && a.step === b.step && a.what === b.what && a.nth === b.nth;

/** When nobody is there. */
function awayOf(hands: Lane[]): [number, number][] {
  const [first = [], ...others] = hands.map((lane) =>
    lane.spans
      .filter((span) => span.role === "away")
      .map((span): [number, number] => [span.start_s, span.end_s.likely]),
  );
  return others.reduce(
    (both, spans) =>
      both.flatMap(([a, b]) =>
        spans
          .map(([c, d]): [number, number] => [Math.max(a, c), Math.min(b, d)])
          .filter(([start, end]) => end > start),
      ),
    first,
  );
}
