import { useIsFetching, useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { capital } from "../../shared/format/capital";
import { amount, roughly, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { day, dayAndTime, timeOfDay } from "../../shared/format/zone";
import { waysQuery } from "../../shared/kitchen";
import type { Edit } from "../../shared/saving";
import { useDebounced } from "../../shared/useDebounced";
import { type Asked, alternativesQuery, type Order, PARTS_SHOWN } from "./queries";
import { wishWords, without } from "./wishWords";

type Alternative = Schemas["Alternative"];
type Change = Alternative["changes"][number];

/** While a quantity runs on, no other way is reckoned. */
const SETTLED_MS = 500;
/** Nobody is asked to come at 16:52 [ms]. */
const HELP_MS = 5 * 60_000;
/** Until it is known how many parts are asked for. */
const BEFORE_ANY = -1;

interface Props {
  asked: Asked;
  kitchen: Schemas["Kitchen"];
  pieces: Record<string, string>;
  onChange: (change: Edit<Order>) => void;
}

/** What else the order could do, each with its price against what is planned; one press takes it. */
export function Alternatives({ asked, kitchen, pieces, onChange }: Props) {
  const { zone, people, vessels } = kitchen;
  const units = useUnits();
  const navigate = useNavigate();
  const usual = useQuery(waysQuery).data?.ways ?? {};
  const settled = useDebounced(asked, SETTLED_MS);
  // what is on the screen comes first, and asks in its turn: to look for other ways takes the machine for a while
  const turn = useDebounced(useIsFetching(PARTS_SHOWN), SETTLED_MS, BEFORE_ANY);
  const { data, isPlaceholderData } = useQuery({ ...alternativesQuery(settled), enabled: turn === 0 });
  const [planned, ...others] = data ?? [];
  const at = ({ start_s }: Alternative) => new Date(new Date(settled.planned_at).getTime() + start_s * 1000);
  const helpAt = (s: number) =>
    new Date(
      Math.round((new Date(settled.planned_at).getTime() + s * 1000) / HELP_MS) * HELP_MS,
    ).toISOString();
  const clock = (s: number) => timeOfDay(new Date(helpAt(s)), zone);
  const lifted = (n: number) => {
    const wish = asked.order.wishes[n];
    return wish ? wishWords(wish, { zone, dated: false, pieces, spanOf: () => undefined }) : "";
  };
  const days = new Set((data ?? []).map((of) => day(at(of), zone)));
  const begins = (of: Alternative) => (days.size > 1 ? dayAndTime : timeOfDay)(at(of), zone);
  const take = (change: Change | undefined) => {
    switch (change?.code) {
      case "spares":
        return onChange((order) => ({
          lines: order.lines.map((line, i) =>
            change.items.includes(i) ? { ...line, spares: change.spares } : line,
          ),
        }));
      case "people": {
        const chosen = [...new Set([...asked.order.people, ...people])].slice(0, change.people);
        return chosen.length < change.people ? navigate("/kitchen/people") : onChange({ people: chosen });
      }
      case "help": {
        const chosen = [...new Set([...asked.order.people, ...people])].slice(0, change.people);
        const person = chosen[change.people - 1];
        if (person === undefined) return navigate("/kitchen/people");
        const [from, to] = [helpAt(change.from_s), helpAt(change.to_s)];
        const wish: Order["wishes"][number] = { wish: "there_from", person, at: from, until: to };
        return onChange((order) => ({ people: chosen, wishes: [...order.wishes, wish] }));
      }
      case "wish": {
        const lifted = asked.order.wishes[change.wish];
        return onChange((order) => ({ wishes: without(order.wishes, lifted) }));
      }
      case "divide": {
        const { family, divided } = change;
        return onChange((order) => {
          const way = order.ways[family] ?? usual[family];
          return way && "divided" in way ? { ways: { ...order.ways, [family]: { ...way, divided } } } : {};
        });
      }
      case "mould":
        return navigate(`/pieces/moulds/${change.mould_id}`);
      case "vessel":
        return navigate("/kitchen");
    }
  };
  return (
    <section
      aria-label="What else it could do"
      aria-busy={data === undefined || isPlaceholderData}
      className="grid min-h-[5.75rem] border-y border-line sm:grid-cols-2 lg:grid-flow-col lg:auto-cols-fr lg:grid-cols-none"
    >
      {planned === undefined ? (
        <p className="py-3 text-quiet">Looking for what would help…</p>
      ) : (
        <>
          <div className="border-l-4 border-glass bg-raised px-4 py-2.5">
            <strong className="block text-lg leading-tight">As planned</strong>
            <span className="text-quiet">{`${plannedWords(planned)}, begun by ${begins(planned)}`}</span>
          </div>
          {others.map((other) => (
            <button
              key={other.changes.map((change) => JSON.stringify(change)).join()}
              type="button"
              onClick={() => take(other.changes[0])}
              disabled={isPlaceholderData}
              className="flex flex-col items-start px-4 py-2.5 text-left hover:bg-raised disabled:opacity-50"
            >
              <strong className="block text-lg leading-tight text-glass">
                {other.changes.map((change) => changeWords(change, { clock, lifted, vessels })).join(", ")}
              </strong>
              <span className="text-quiet">{`${priceWords(planned, other, units)}, begun by ${begins(other)}`}</span>
            </button>
          ))}
          {others.length === 0 && (
            <p className="px-4 py-2.5 text-quiet">Nothing shorter or surer was found.</p>
          )}
        </>
      )}
    </section>
  );
}

const plannedWords = ({ casts, rounds, melts, sure_frac }: Alternative) =>
  melts === 0
    ? "nothing melted"
    : `${Math.round(100 * sure_frac)} % sure, ${casts} cast in ${rounds} ${rounds === 1 ? "round" : "rounds"}, ${melts} ${melts === 1 ? "melt" : "melts"}`;

interface Called {
  clock: (s: number) => string;
  lifted: (wish: number) => string;
  vessels: Schemas["Vessel"][];
}

function changeWords(change: Change, { clock, lifted, vessels }: Called): string {
  switch (change.code) {
    case "spares": {
      const of = change.named ? `${change.named.piece}: ` : "";
      return `${of}${SPARES[change.spares]}`;
    }
    case "people":
      return `${NTH[change.people] ?? "One more"} pair of hands`;
    case "help":
      return `${NTH[change.people] ?? "One more"} pair of hands from ${clock(change.from_s)} to ${clock(change.to_s)}`;
    case "wish":
      return `Without “${lifted(change.wish)}”`;
    case "mould":
      return `${NTH[change.owned] ?? "One more"} ${change.mould}`;
    case "divide":
      return `${capital(change.family.replaceAll("_", " "))}: ${change.divided ? "colours off one pot" : "each colour by itself"}`;
    case "vessel": {
      const like = vessels.find((vessel) => vessel.id === change.vessel_id)?.name;
      return like ? `One more like ${like}` : "One more vessel";
    }
  }
}

const SPARES: Record<Schemas["SparesChange"]["spares"], string> = {
  as_sure: "As many spares as asked",
  in_rounds: "No round for spares alone",
  full_rounds: "Every round filled",
};
const NTH: Record<number, string> = { 2: "A second", 3: "A third", 4: "A fourth" };

/** What an alternative costs and brings against another. */
export function priceWords(planned: Alternative, other: Alternative, units: Units): string {
  const casts = other.casts - planned.casts;
  const melts = other.melts - planned.melts;
  const kg = other.fresh_kg - planned.fresh_kg;
  const lasts = other.lasts_s - planned.lasts_s;
  const hands = other.hands_s - planned.hands_s;
  return [
    `${amount(other.sure_frac, "share", units)} sure`,
    Math.abs(lasts) >= 60 && `${roughly(Math.abs(lasts))} ${lasts < 0 ? "less" : "more"}`,
    hands < Math.min(lasts, 0) - 60 && `${roughly(-hands)} less of hands`,
    casts !== 0 && `${Math.abs(casts)} ${casts < 0 ? "fewer" : "more"} cast`,
    melts !== 0 &&
      `${Math.abs(melts)} ${melts < 0 ? "fewer" : "more"} ${Math.abs(melts) === 1 ? "melt" : "melts"}`,
    Math.abs(kg) >= 0.01 && casts > 0 && `${amount(kg, "mass", units)} more`,
  ]
    .filter(Boolean)
    .join(", ");
}
