import type { Schemas, Spread } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { ThermoStick } from "../../drawings/ThermoStick";
import { BAND_WORDS } from "../../shared/actWords";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Figure } from "../../shared/ui/Figure";
import { useWidth } from "../../shared/useWidth";
import type { Order, Plan } from "./queries";

const ROW_PX = 46;

/** When to pour, bend and unmould: the pot from off the heat, the rounds from their pour, on one scale. */
export function Windows({ plan, order, kitchen }: { plan: Plan; order: Order; kitchen: Schemas["Kitchen"] }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const to =
    1.02 *
    Math.max(
      ...plan.rounds.map((r) => r.unmould.value.high * 1.25),
      ...plan.cooks.map((c) => c.closes.value.high * 1.2),
    );
  const place = kitchen.places.find((p) => p.id === order.place_id)?.name ?? "";
  const cooks = distinct(plan.cooks, (c) => `${c.casts} ${c.charge.value.likely.toFixed(5)}`);
  const rounds = distinct(plan.rounds, (r) => `${r.round.line} ${r.unmould.value.likely.toFixed(1)}`);
  const [first] = plan.cooks;
  return (
    <section aria-label="Windows">
      <h2 className="border-b border-line pb-1 text-xl">Windows</h2>
      <div className="mt-3 flex gap-6">
        {first && <CookStick cook={first} order={order} />}
        <div ref={ref} className="min-w-0 flex-1">
          {cooks.map((cook) => (
            <div key={cook.number} className="mb-4">
              <p className="mb-1">
                <b>Pot, cook {cook.number + 1}</b>, off the heat: pour from{" "}
                <Figure of={cook.opens} name="Pour window opens" /> to{" "}
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
                  {plan.lines[round.round.line]?.name}, {round.round.casts} at a time
                </b>
                , from the pour, on {place.toLowerCase()}:{" "}
                {round.bend ? "bend from " : "soft enough to bend "}
                <Figure of={round.bend_opens} name="Bend window opens" /> to{" "}
                <Figure of={round.bend_closes} name="Bend window closes" />; snaps from{" "}
                <Figure of={round.brittle} name="Brittle" />; unmould from{" "}
                <Figure of={round.unmould} name="May be unmoulded" />; hot to hold until{" "}
                <Figure of={round.cool_to_hold} name="Hot to hold until" />
              </p>
              <HeatRibbon
                bands={roundBands(round, to)}
                from={0}
                to={to}
                width={width}
                height={ROW_PX}
                words={BAND_WORDS}
                label={`Windows of ${plan.lines[round.round.line]?.name}`}
              />
            </div>
          ))}
          <Minutes to={to} width={width} />
          <p className="mt-1 text-sm text-quiet">
            Soft edges are what is not known:{" "}
            {amount(first?.closes.inputs.find((i) => i.name === "at")?.value.low ?? 0, "temperature", units)}{" "}
            to{" "}
            {amount(first?.closes.inputs.find((i) => i.name === "at")?.value.high ?? 0, "temperature", units)}{" "}
            is where this cook turns too thick. Readings at the bench narrow them.
          </p>
        </div>
      </div>
    </section>
  );
}

function distinct<T>(rows: T[], key: (row: T) => string): T[] {
  return [...new Map(rows.map((row) => [key(row), row] as const).reverse()).values()].reverse();
}

const at = (s: number): Spread => ({ low: s, likely: s, high: s });

function potBands(cook: Schemas["CookReply"], to: number): Schemas["Band"][] {
  return [
    { state: "too_hot", start: at(0), end: cook.opens.value },
    { state: "pour", start: cook.opens.value, end: cook.closes.value },
    { state: "thickening", start: cook.closes.value, end: at(to) },
  ];
}

function roundBands(round: Schemas["RoundPlan"], to: number): Schemas["Band"][] {
  const last = { state: "unmould", start: round.unmould.value, end: at(to) };
  if (!round.bend) return [{ state: "setting", start: at(0), end: round.unmould.value }, last];
  return [
    { state: "soft", start: at(0), end: round.bend_opens.value },
    { state: "bend", start: round.bend_opens.value, end: round.bend_closes.value },
    { state: "stiff", start: round.bend_closes.value, end: round.unmould.value },
    last,
  ];
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

function CookStick({ cook, order }: { cook: Schemas["CookReply"]; order: Order }) {
  const units = useUnits();
  const input = (of: Schemas["Explained"], name: string) =>
    of.inputs.find((i) => i.name === name)?.value.likely ?? 0;
  const opens = input(cook.opens, "at");
  const closes = input(cook.closes, "at");
  const glass = input(cook.water_left, "glass transition");
  return (
    <div className="hidden shrink-0 md:block">
      <ThermoStick
        low={20}
        high={order.cook_degc + 8}
        height={300}
        word={(degc) => amount(degc, "temperature", units)}
        zones={[
          { from: 20, to: glass, fill: "plain", word: "glass" },
          { from: glass, to: closes, fill: "close-dots", word: "thickens" },
          { from: closes, to: opens, fill: "open", word: "pour" },
          { from: opens, to: order.cook_degc, fill: "hatch", word: "bubbles" },
        ]}
        reading={order.cook_degc}
      />
    </div>
  );
}
