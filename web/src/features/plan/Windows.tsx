import type { Schemas, Spread } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { ThermoStick, type Zone } from "../../drawings/ThermoStick";
import { BAND_WORDS, drawnTo, reach } from "../../shared/bands";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wholeName } from "../../shared/named";
import { Figure } from "../../shared/ui/Figure";
import { useWidth } from "../../shared/useWidth";
import type { Wording } from "../../shared/wording";
import type { Plan } from "./queries";

const ROW_PX = 46;

/** When to pour, bend and unmould: the pot from off the heat, the rounds from their pour, on one scale. */
export function Windows({ plan, kitchen }: { plan: Plan; kitchen: Schemas["Kitchen"] }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const to = Math.max(
    ...plan.rounds.map((r) => reach(spreads(r), r.never)),
    ...plan.cooks.map((c) => Math.min(c.closes.value.high, c.closes.value.likely * 1.6) * 1.2),
  );
  const nameOf = (round: Schemas["RoundPlan"]) => {
    const line = plan.lines[round.round.line];
    return line ? wholeName(line.named) : "";
  };
  const isJoin = (round: Schemas["RoundPlan"]) => plan.lines[round.round.line]?.kind === "join";
  const placeOf = (melt: string) => {
    const id = plan.cooks.find((cook) => cook.melt_key === melt)?.sets_in_id;
    return kitchen.places.find((p) => p.id === id)?.name.toLowerCase() ?? "";
  };
  const cooks = distinct(plan.cooks, (c) => `${c.casts} ${c.charge.value.likely.toFixed(5)}`);
  const rounds = distinct(
    plan.rounds,
    (r) => `${r.round.line} ${r.windows.unmould?.value.likely.toFixed(1)}`,
  );
  const [first] = plan.cooks;
  return (
    <section aria-label="Windows">
      <h2 className="border-b border-line pb-1 text-xl">Windows</h2>
      <div className="mt-3 flex gap-6">
        {first && <CookStick cook={first} />}
        <div ref={ref} className="min-w-0 flex-1">
          {cooks.map((cook) => (
            <div key={cook.number} className="mb-4">
              <p className="mb-1">
                <b>
                  {{ sugar: "Pot, cook", fat: "Bowl, melt" }[cook.wording]} {cook.number + 1}
                </b>
                , off the heat: pour from <Figure of={cook.opens} name="Pour window opens" /> to{" "}
                <Figure of={cook.closes} name="Pour window closes" />;{" "}
                <Figure of={cook.capacity} name="Cavities one person fills in it" /> cavities fit at{" "}
                {duration(kitchen.paces.pour_each_s)} each
              </p>
              <HeatRibbon
                bands={potBands(cook, to)}
                from={0}
                to={to}
                width={width}
                height={ROW_PX}
                words={BAND_WORDS}
                label={`Pour window of cook ${cook.number + 1}`}
              />
            </div>
          ))}
          {rounds.map((round) => (
            <div key={round.round.number} className="mb-4">
              <p className="mb-1">
                <b>
                  {nameOf(round)}, {round.round.casts} at a time
                </b>
                {isJoin(round) ? (
                  <>
                    , from the join: <JoinWords round={round} />
                  </>
                ) : (
                  <>
                    , from the pour, {{ sugar: "on", fat: "in" }[round.wording]} the {placeOf(round.melt)}:{" "}
                    <RoundWords round={round} />
                  </>
                )}
              </p>
              <HeatRibbon
                bands={drawnTo(round.bands, to)}
                from={0}
                to={to}
                width={width}
                height={ROW_PX}
                words={BAND_WORDS}
                label={`Windows of ${nameOf(round)}`}
              />
            </div>
          ))}
          <Minutes to={to} width={width} />
          <p className="mt-1 text-sm text-quiet">
            Soft edges are what is not known. Readings at the bench narrow them.
          </p>
        </div>
      </div>
    </section>
  );
}

function distinct<T>(rows: T[], key: (row: T) => string): T[] {
  return [...new Map(rows.map((row) => [key(row), row] as const).reverse()).values()].reverse();
}

const TOO_HOT: Record<Wording, Schemas["Band"]["state"]> = { sugar: "too_hot", fat: "too_warm" };
const at = (s: number): Spread => ({ low: s, likely: s, high: s });

function potBands(cook: Schemas["CookReply"], to: number): Schemas["Band"][] {
  return [
    { state: TOO_HOT[cook.wording], start: at(0), end: cook.opens.value },
    { state: "pour", start: cook.opens.value, end: cook.closes.value },
    { state: "thickening", start: cook.closes.value, end: at(to) },
  ];
}

const spreads = (round: Schemas["RoundPlan"]): Record<string, Spread> =>
  Object.fromEntries(Object.entries(round.windows).map(([name, of]) => [name, of.value]));

/** How long a join is held, and left. */
function JoinWords({ round }: { round: Schemas["RoundPlan"] }) {
  const w = round.windows;
  const held = w.still ?? w.holds;
  return (
    <>
      {held && (
        <>
          hold it or prop it for <Figure of={held} name="Until it holds" />;{" "}
        </>
      )}
      {w.unmould && (
        <>
          do not move it for <Figure of={w.unmould} name="Until it may be moved" />
        </>
      )}
    </>
  );
}

/** What may be done with a round when, each number explaining itself. */
function RoundWords({ round }: { round: Schemas["RoundPlan"] }) {
  const w = round.windows;
  const figure = (key: string, name: string) => {
    const of = w[key];
    return of && <Figure of={of} name={name} />;
  };
  return (
    <>
      {w.bend_opens && round.work !== "stick" && (
        <>
          {round.work === "bend" ? "bend from " : "soft enough to bend "}
          {figure("bend_opens", "Bend window opens")} to {figure("bend_closes", "Bend window closes")}; snaps
          from {figure("brittle", "Brittle")};{" "}
        </>
      )}
      {round.work === "stick" && <>sticks in until {figure("stick_closes", "Takes a stick until")}; </>}
      {round.bears_next !== null ? (
        <>the next pass from {figure(round.bears_next, "Bears the next pass")}</>
      ) : (
        <>
          {w.touch && <>touch-set from {figure("touch", "Touch-set")}; </>}
          {round.never.includes("unmould") ? (
            "it does not set there"
          ) : (
            <>unmould from {figure("unmould", "May be unmoulded")}</>
          )}
        </>
      )}
      {round.bears_next === null && w.over_chilled && !round.never.includes("over_chilled") && (
        <>; over-chilled from {figure("over_chilled", "Over-chilled")}</>
      )}
      {(w.cool_to_hold?.value.likely ?? 0) > 0 && (
        <>; hot to hold until {figure("cool_to_hold", "Hot to hold until")}</>
      )}
    </>
  );
}

function Minutes({ to, width }: { to: number; width: number }) {
  const every = [60, 120, 300, 600, 1200, 1800, 3600].find((s) => to / s < 14) ?? 7200;
  return (
    <div className="relative h-6" aria-hidden="true">
      {Array.from({ length: Math.floor(to / every) + 1 }, (_, i) => i * every).map((s) => (
        <span
          key={s}
          className={`absolute text-sm text-quiet ${s === 0 ? "" : "-translate-x-1/2"}`}
          style={{ left: (s / to) * width }}
        >
          {s / 60}
          {s === 0 ? "" : s === every ? " min" : ""}
        </span>
      ))}
    </div>
  );
}

function CookStick({ cook }: { cook: Schemas["CookReply"] }) {
  const units = useUnits();
  const input = (of: Schemas["Explained"] | null, name: string) =>
    of?.inputs.find((i) => i.name === name)?.value.likely ?? 0;
  const opens = input(cook.opens, "at");
  const closes = input(cook.closes, "at");
  const end = cook.end_degc;
  const glass = input(cook.water_left, "glass transition");
  const low = { sugar: 20, fat: 15 }[cook.wording];
  const every: Record<Wording, Zone[]> = {
    sugar: [
      { from: low, to: glass, fill: "plain", word: "glass" },
      { from: glass, to: closes, fill: "close-dots", word: "thickens" },
      { from: closes, to: opens, fill: "open", word: "pour" },
      { from: opens, to: end, fill: "hatch", word: "bubbles" },
    ],
    fat: [
      { from: low, to: closes, fill: "close-dots", word: "thickens, sets" },
      { from: closes, to: opens, fill: "open", word: "fluid: pour" },
      { from: opens, to: end + 8, fill: "hatch", word: "too hot" },
    ],
  };
  const zones = every[cook.wording];
  return (
    <div className="hidden shrink-0 md:block">
      <ThermoStick
        low={low}
        high={end + 8}
        height={300}
        word={(degc) => amount(degc, "temperature", units)}
        zones={zones}
        reading={end}
      />
    </div>
  );
}
