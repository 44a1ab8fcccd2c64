import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { actShort } from "../shared/actWords";
import { clock } from "../shared/format/units";
import { timeOfDay } from "../shared/format/zone";
import { kitchenQuery, railQuery } from "../shared/kitchen";
import { usePerson } from "../shared/person";
import { useElapsed } from "../shared/useElapsed";

/** The live bench on every other screen: what needs a hand next, so that planning never loses the stove. */
export function BenchRail() {
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const actor = usePerson(kitchen?.people ?? []);
  const view = useQuery({ ...railQuery(actor), enabled: kitchen !== undefined }).data?.view ?? null;
  const elapsed = useElapsed(view);
  if (!view) return null;
  const [first, ...rest] = view.acts;
  const zone = kitchen?.zone ?? "UTC";
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
      {rest.slice(0, 2).map((act) => (
        <span key={act.kind + act.subject} className="hidden gap-2 md:flex">
          <span className="text-quiet">{act.opens_s > elapsed ? clock(act.opens_s - elapsed) : "now"}</span>
          {actShort(act, view)}
        </span>
      ))}
      <span className="ml-auto hidden text-quiet sm:block">
        {view.name} <strong className="text-ink">{timeOfDay(at, zone)}</strong>
      </span>
    </Link>
  );
}

function Due({ opens, closes, elapsed }: { opens: number; closes: number | null; elapsed: number }) {
  if (opens > elapsed)
    return <span className="bg-[#322722] px-3 py-1 font-bold">in {clock(opens - elapsed)}</span>;
  if (closes === null) return <span className="bg-[#63d2d6] px-3 py-1 font-bold text-[#06282b]">now</span>;
  return (
    <span className="bg-[#ff8a3c] px-3 py-1 font-bold text-[#06282b]">{clock(closes - elapsed)} left</span>
  );
}
