import { useQuery } from "@tanstack/react-query";
import { EVENT_WORDS } from "../../shared/eventWords";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { timeOfDay } from "../../shared/format/zone";
import { spotWords } from "../../shared/spots";
import { eventsQuery } from "./queries";

/** Who did what, when: the run's own words, those taken back struck through. */
export function Happened({ id, zone }: { id: string; zone: string }) {
  const units = useUnits();
  const events = useQuery(eventsQuery(id)).data?.items ?? [];
  const gone = new Set(events.filter((e) => e.kind === "cancels").map((e) => String(e.payload.id)));
  const shown = events
    .filter((e) => e.kind !== "cancels")
    .sort((a, b) => a.happened_at.localeCompare(b.happened_at));
  const what = (payload: Record<string, unknown>) => [
    typeof payload.cook === "number" ? `vessel ${payload.cook + 1}` : "",
    typeof payload.round === "number" ? `round ${payload.round + 1}` : "",
    typeof payload.degc === "number" ? amount(payload.degc, "temperature", units) : "",
    typeof payload.batch === "number" ? `batch ${payload.batch + 1}` : "",
    typeof payload.added_kg === "number" ? `${amount(payload.added_kg, "mass", units)} seed` : "",
    typeof payload.step === "string" ? payload.step : "",
    payload.smear === true ? "smear laid" : "",
    typeof payload.test === "string" ? `smear: ${payload.test}` : "",
    typeof payload.spot === "string" ? spotWords(payload.spot) : "",
    Array.isArray(payload.into) ? payload.into.map((row) => row.name).join(", ") : "",
    typeof payload.seconds === "number" ? `${payload.seconds} s` : "",
    typeof payload.what === "string" ? payload.what.replaceAll("_", " ") : "",
    Array.isArray(payload.cavities) ? `cavity ${payload.cavities.map((c) => Number(c) + 1).join(", ")}` : "",
    Array.isArray(payload.kinds) ? payload.kinds.join(", ") : "",
    typeof payload.text === "string" ? `“${payload.text}”` : "",
  ];
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
              {[EVENT_WORDS[event.kind] ?? event.kind, ...what(event.payload)].filter(Boolean).join(", ")}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
