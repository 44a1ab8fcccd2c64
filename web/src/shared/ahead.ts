/**
 * The bench moved on by what this browser has noted and could not send yet: along the acts to come as the server last reckoned them,
 * each later by as much as what it waits for was done later. What comes when is the server's; here it is only followed.
 */
import type { Schemas } from "../api/client";
import type { Act, View } from "./acts";
import type { Item } from "./outbox";
import { isSame } from "./subject";

type Link = Schemas["LinkView"];

const TAKES_BACK = "cancels";

/** Ids of what was taken back among what was noted. */
const takenBack = (noted: readonly Item[]) =>
  new Set(noted.flatMap(({ event }) => (event.kind === TAKES_BACK ? [event.payload.id] : [])));

/** What still stands of what was noted for a run, the oldest first. */
export function standing(noted: readonly Item[]): Item[] {
  const back = takenBack(noted);
  return noted.filter((of) => of.event.kind !== TAKES_BACK && !back.has(of.event.id));
}

const same = (a: Act, b: Act) => a.what.kind === b.what.kind && isSame(a.subject, b.subject);

/** Whether an event tells that an act is done; a round's outcomes are told once every casting has one. */
function tells({ told, act }: Link, item: Item, before: readonly Item[], view: View): boolean {
  if (told === null || item.event.kind !== told.kind) return false;
  const payload: Record<string, unknown> = item.event.payload;
  if (!Object.entries(told.says).every(([key, value]) => payload[key] === value)) return false;
  if (act.what.kind !== "outcomes") return true;
  const known = view.ribbons.find((ribbon) => isSame(ribbon.subject, act.subject))?.outcomes ?? {};
  const said = new Set(Object.keys(known).map(Number));
  for (const of of [...before, item])
    if (of.event.kind === "outcome" && of.event.payload.round === act.subject.number)
      for (const cavity of of.event.payload.cavities) said.add(cavity);
  return said.size >= act.what.casts;
}

/** When each link that was noted as done was done [s since the run started]. */
function doneAt(links: readonly Link[], noted: readonly Item[], view: View): Map<number, number> {
  const done = new Map<number, number>();
  noted.forEach((item, i) => {
    const at = links.findIndex((link, k) => !done.has(k) && tells(link, item, noted.slice(0, i), view));
    const when = item.event.happened_at;
    if (at >= 0 && when !== null) done.set(at, (Date.parse(when) - Date.parse(view.started_at)) / 1000);
  });
  return done;
}

/** A round's outcomes, with those noted here: a rest that is good leaves out what was said to be broken. */
function outcomesOf(ribbon: Schemas["Ribbon"], noted: readonly Item[]): Schemas["Ribbon"]["outcomes"] {
  const outcomes = { ...ribbon.outcomes };
  for (const { event } of noted)
    if (event.kind === "outcome" && isSame(ribbon.subject, { of: "round", number: event.payload.round }))
      for (const cavity of event.payload.cavities) outcomes[cavity] = event.payload.usable;
  return outcomes;
}

const later = (act: Act, by: number): Act =>
  by === 0
    ? act
    : { ...act, opens_s: act.opens_s + by, closes_s: act.closes_s === null ? null : act.closes_s + by };

/** The bench as it would be had the server heard what was noted here. */
export function movedOn(view: View, ahead: Schemas["Ahead"] | undefined, box: readonly Item[]): View {
  const all = box.filter(
    (item) => item.run === view.run_id && item.refused === null && item.event.happened_at !== null,
  );
  if (all.length === 0) return view;
  const noted = standing(all);
  const last = noted.at(-1)?.event;
  const back = takenBack(all);
  const pausing = noted.filter(({ event }) => event.kind === "paused" || event.kind === "resumed").at(-1);
  const paused = pausing ? pausing.event.kind === "paused" : view.paused;
  const moved: View = {
    ...view,
    paused,
    calls: paused ? [] : view.calls,
    ribbons: view.ribbons.map((ribbon) => ({ ...ribbon, outcomes: outcomesOf(ribbon, noted) })),
    last: last ? { id: last.id, told: last } : view.last && back.has(view.last.id) ? null : view.last,
  };
  // a chain of before begins with what is first now
  const places =
    ahead?.run_id === view.run_id
      ? view.acts.map((act) => ahead.links.findIndex((link) => same(link.act, act)))
      : [];
  const from = places.find((place) => place >= 0) ?? -1;
  if (from < 0 || !ahead) return moved;
  // what came before it is done and known; taken back, an act stands as it did
  const links = ahead.links
    .slice(from)
    .map((link) => ({ ...link, after: link.after === null ? null : link.after - from }));
  const done = doneAt(links, noted, view);
  if (done.size === 0) return moved;
  const by: number[] = [];
  links.forEach((link, i) => {
    const at = done.get(i);
    const before = link.after === null ? undefined : by[link.after];
    by.push(at === undefined ? (before === undefined ? 0 : before) : at - link.at_s);
  });
  const rest = links.flatMap((link, i) => {
    const ready = link.after === null || link.after < 0 || done.has(link.after);
    const late = by[i];
    return done.has(i) || late === undefined ? [] : [{ link, by: late, ready }];
  });
  return {
    ...moved,
    acts: rest.map(({ link, by, ready }) => {
      const now = by === 0 ? view.acts.find((act) => same(act, link.act)) : undefined;
      return now ?? { ...later(link.act, by), forecast: !ready };
    }),
    calls: rest.flatMap(({ link, by, ready }) =>
      ready && !paused ? link.calls.map((call) => ({ ...call, at_s: call.at_s + by })) : [],
    ),
  };
}
