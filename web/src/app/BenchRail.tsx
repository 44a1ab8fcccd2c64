import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { actShort } from "../shared/actWords";
import { clock } from "../shared/format/units";
import { timeOfDay } from "../shared/format/zone";
import { kitchenQuery } from "../shared/kitchen";
import { usePerson } from "../shared/person";
import { keyOf } from "../shared/subject";
import { useBench } from "../shared/useBench";
import { useElapsed } from "../shared/useElapsed";

/** The live bench on every other screen: what needs a hand next, so that planning never loses the stove. */
export function BenchRail() {
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const actor = usePerson(kitchen?.people ?? []);
  const { view } = useBench(actor, kitchen !== undefined);
  const elapsed = useElapsed(view);
  if (!view) return null;
  const [first, ...rest] = view.acts;
  const zone = kitchen?.zone ?? "UTC";
  const held = view.ribbons.filter((ribbon) => ribbon.phase === "held");
  const at = new Date(new Date(view.started_at).getTime() + elapsed * 1000);
  return (
    <Link
      to="/bench"
      className="bench flex shrink-0 items-center gap-6 overflow-hidden bg-[#1b1512] px-5 py-3 whitespace-nowrap text-[#f6f1ea]"
      title="The live bench"
    >
      {first && (
        <span className="flex items-center gap-3">
          <Due opens={first.opens_s} closes={first.closes_s} elapsed={elapsed} />
          <strong className="text-lg">{actShort(first, view)}</strong>
        </span>
      )}
      {rest.slice(0, held.length > 3 ? 0 : held.length > 0 ? 1 : 2).map((act) => (
        <span key={`${act.what.kind} ${keyOf(act.subject)}`} className="hidden gap-2 md:flex">
          <span className="text-quiet">{act.opens_s > elapsed ? clock(act.opens_s - elapsed) : "now"}</span>
          {actShort(act, view)}
        </span>
      ))}
      {held.length > 0 && (
        <ul className="flex min-w-0 gap-3 overflow-hidden" aria-label="Held">
          {held.map((batch) => (
            <li key={keyOf(batch.subject)} className="flex items-center gap-1.5">
              <span
                className="h-3.5 w-3.5 rounded-full border border-[#f6f1ea]"
                style={{ backgroundColor: batch.colour ?? "transparent" }}
                aria-hidden="true"
              />
              {batch.name}
              <strong className={soon(batch, elapsed) ? "text-[#ff8a3c]" : ""}>{left(batch, elapsed)}</strong>
            </li>
          ))}
        </ul>
      )}
      <span className={`ml-auto hidden text-quiet ${held.length > 3 ? "" : "sm:block"}`}>
        {view.name} <strong className="text-ink">{timeOfDay(at, zone)}</strong>
      </span>
    </Link>
  );
}

const SOON_S = 180;
type Held = Schemas["Ribbon"];

/** How long a held batch still flows as it stands. */
function left(batch: Held, elapsed: number): string {
  const until = batch.flows_until_s?.low;
  if (until === undefined) return "keeps";
  return until > elapsed ? clock(until - elapsed) : "thick";
}

const soon = (batch: Held, elapsed: number) =>
  batch.flows_until_s !== null && batch.flows_until_s.low - elapsed < SOON_S;

function Due({ opens, closes, elapsed }: { opens: number; closes: number | null; elapsed: number }) {
  if (opens > elapsed)
    return <span className="bg-[#322722] px-3 py-1 font-bold">in {clock(opens - elapsed)}</span>;
  if (closes === null) return <span className="bg-[#63d2d6] px-3 py-1 font-bold text-[#06282b]">now</span>;
  return (
    <span className="bg-[#ff8a3c] px-3 py-1 font-bold text-[#06282b]">{clock(closes - elapsed)} left</span>
  );
}
