import { useQuery } from "@tanstack/react-query";
import type { EventBody } from "../../shared/events";
import { eventWords } from "../../shared/eventWords";
import { amount, duration, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { timeOfDay } from "../../shared/format/zone";
import { spotWords } from "../../shared/spots";
import { eventsQuery } from "./queries";

/** Who did what, when: the run's own words, those taken back struck through. */
export function Happened({ id, zone }: { id: string; zone: string }) {
  const units = useUnits();
  const events = useQuery(eventsQuery(id)).data?.items ?? [];
  const gone = new Set(events.flatMap(({ tells }) => (tells?.kind === "cancels" ? [tells.payload.id] : [])));
  const shown = events
    .filter((e) => e.kind !== "cancels")
    .sort((a, b) => a.happened_at.localeCompare(b.happened_at));
  return (
    <section aria-label="What happened">
      <h2 className="border-b border-line pb-1 text-xl">What happened</h2>
      <ol className="mt-2 columns-[18rem] gap-8">
        {shown.map((event) => (
          <li
            key={event.id}
            className={`flex break-inside-avoid gap-3 py-0.5 ${gone.has(event.id) ? "text-quiet line-through" : ""}`}
          >
            <span className="w-20 shrink-0 text-quiet">
              {timeOfDay(new Date(event.happened_at), zone, true)}
            </span>
            <span className="w-14 shrink-0 truncate font-bold">{event.actor}</span>
            <span>
              {[eventWords(event.kind), ...(event.tells ? saysWhat(event.tells, units) : [])].join(", ")}
              {event.tells?.kind === "note" && "picture" in event.tells.payload && (
                <a href={`/api/runs/${id}/pictures/${event.tells.payload.picture}`} className="mt-1 block">
                  <img
                    src={`/api/runs/${id}/pictures/${event.tells.payload.picture}`}
                    alt={event.tells.payload.text || "Noted picture"}
                    loading="lazy"
                    className="max-h-48 rounded-sm"
                  />
                </a>
              )}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Of what an event speaks, and what it says of it. */
function saysWhat(told: EventBody, units: Units): string[] {
  const vessel = (n: number) => `vessel ${n + 1}`;
  const round = (n: number) => `round ${n + 1}`;
  const batch = (n: number) => `batch ${n + 1}`;
  const of = (payload: { cook: number } | { round: number } | { batch: number }) =>
    "cook" in payload
      ? vessel(payload.cook)
      : "round" in payload
        ? round(payload.round)
        : batch(payload.batch);
  const degc = (value: number | null | undefined) =>
    typeof value === "number" ? [amount(value, "temperature", units)] : [];
  switch (told.kind) {
    case "started":
    case "acknowledged":
    case "paused":
    case "resumed":
    case "ended":
    case "cancels":
    case "made":
    case "judged":
    case "replanned":
      return [];
    case "heated":
      return "batch" in told.payload
        ? [batch(told.payload.batch), `${told.payload.seconds} s`]
        : [vessel(told.payload.cook), ...degc(told.payload.degc)];
    case "burst":
      return [vessel(told.payload.cook), ...degc(told.payload.degc), `${told.payload.seconds} s`];
    case "rested":
      return [vessel(told.payload.cook), ...degc(told.payload.degc)];
    case "reading":
      return [of(told.payload), ...degc(told.payload.degc)];
    case "seen":
      return [of(told.payload), told.payload.what.replaceAll("_", " ")];
    case "moved":
      return [of(told.payload), ...("spot" in told.payload ? [spotWords(told.payload.spot)] : [])];
    case "poured":
    case "discarded":
    case "merged":
    case "coloured":
    case "inserted":
    case "bent":
    case "combed":
    case "grooved":
    case "cut_out":
    case "flipped":
    case "unmoulded":
    case "short":
      return [of(told.payload)];
    case "outcome":
      return [
        round(told.payload.round),
        `cavity ${told.payload.cavities.map((cavity) => cavity + 1).join(", ")}`,
        ...(told.payload.usable ? ["good"] : told.payload.kinds?.length ? told.payload.kinds : ["failed"]),
      ];
    case "mended":
      return [
        round(told.payload.round),
        `cavity ${told.payload.cavities.map((cavity) => cavity + 1).join(", ")}`,
        told.payload.how,
      ];
    case "rearranged":
      return [`${told.payload.pours.length} rounds`];
    case "left_out":
      return told.payload.rounds.map(round);
    case "went":
      return [`${told.payload.person} ${told.payload.away ? "left" : "is back"}`];
    case "counted":
      return [`${told.payload.good} in hand`];
    case "timer":
      return "name" in told.payload
        ? [`“${told.payload.name}”`, duration(told.payload.seconds)]
        : [`timer ${told.payload.timer + 1} over`];
    case "note":
      return told.payload.text ? [`“${told.payload.text}”`] : [];
    case "decanted":
      return [of(told.payload), told.payload.into.map((row) => row.name).join(", ")];
    case "tempered": {
      const { payload } = told;
      if ("added_kg" in payload)
        return [vessel(payload.cook), `${amount(payload.added_kg, "mass", units)} seed`];
      if ("step" in payload) return [vessel(payload.cook), payload.step];
      return [vessel(payload.cook), "test" in payload ? `smear: ${payload.test}` : "smear laid"];
    }
  }
}
