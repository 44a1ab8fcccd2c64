import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { amount, duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice } from "../../shared/ui/plain";
import { Fact, Sheet } from "../../shared/ui/Sheet";
import { Faults } from "./Faults";
import { cookQuery } from "./queries";

/** From this share of what is given up on, brown is seen. */
const BROWN_FRAC = 0.5;

type Shown = Schemas["MaterialShown"];

/** How hot a sugar is usually cooked [degC]. */
const cookTo = (sugar: Shown | undefined): number =>
  sugar?.properties.find((p) => p.name === "cook_to")?.likely ?? Number.NaN;

/** A cook of isomalt or sugar: water, stages, foam, how brown it gets, what may be seen in the pot. */
export function Cook({ kitchen, sugars }: { kitchen: Schemas["Kitchen"]; sugars: Shown[] }) {
  const units = useUnits();
  const [asked, setAsked] = useState<Schemas["CookRequest"]>(() => ({
    material: sugars[0]?.key ?? "",
    vessel_id: (kitchen.vessels.find((v) => v.made_of === "steel") ?? kitchen.vessels[0])?.id ?? "",
    ring_id: kitchen.rings[0]?.id ?? "",
    sugar_kg: 0.6,
    water_kg: null,
    cook_degc: cookTo(sugars[0]),
    crystalline: true,
    before: 0,
    white_frac: 0,
    thickness_m: 0.003,
  }));
  const sugar = sugars.find((m) => m.key === asked.material);
  const change = (patch: Partial<Schemas["CookRequest"]>) => setAsked((before) => ({ ...before, ...patch }));
  const query = useQuery(cookQuery(asked));
  const degc = (v: number) => amount(v, "temperature", units);
  const { cook, boils_over, passes_frac, faults, bursts } = query.data ?? {};
  return (
    <Sheet
      error={query.error}
      old={query.isPlaceholderData}
      fields={["sugar_kg", "water_kg", "cook_degc", "before", "white_frac", "thickness_m"]}
      inputs={(wrong) => (
        <>
          <Pick
            label="Of"
            value={asked.material}
            options={sugars.map((m) => ({ key: m.key, name: m.name }))}
            onChange={(material) =>
              change({ material, cook_degc: cookTo(sugars.find((m) => m.key === material)), water_kg: null })
            }
          />
          <NumberField
            label="How much"
            quantity="mass"
            value={asked.sugar_kg}
            onChange={(sugar_kg) => change({ sugar_kg })}
            error={wrong("sugar_kg")}
            step={50}
          />
          <NumberField
            label="Water added"
            quantity="mass"
            value={asked.water_kg ?? cook?.water_kg ?? null}
            onChange={(water_kg) => change({ water_kg })}
            onClear={() => change({ water_kg: null })}
            error={wrong("water_kg")}
            step={10}
            hint="empty: as is usual for so much"
          />
          <NumberField
            label="Cook to"
            quantity="temperature"
            value={asked.cook_degc}
            onChange={(cook_degc) => change({ cook_degc })}
            error={wrong("cook_degc")}
            step={1}
            slider={{ low: 112, high: 180 }}
          />
          <Pick
            label="Pot"
            value={asked.vessel_id}
            options={kitchen.vessels.map((v) => ({ key: v.id, name: v.name }))}
            onChange={(vessel_id) => change({ vessel_id })}
          />
          <Pick
            label="On or in"
            value={asked.ring_id}
            options={[...kitchen.rings, ...(sugar?.family?.nibs ? kitchen.microwaves : [])].map((r) => ({
              key: r.id,
              name: r.name,
            }))}
            onChange={(ring_id) => change({ ring_id })}
          />
          <NumberField
            label="Cooked before, times"
            quantity="count"
            value={asked.before}
            onChange={(before) => change({ before: Math.round(before) })}
            error={wrong("before")}
            step={1}
            digits={0}
          />
          {sugar?.family?.nibs && (
            <>
              <NumberField
                label="White nibs among it"
                quantity="share"
                value={asked.white_frac}
                onChange={(white_frac) => change({ white_frac })}
                error={wrong("white_frac")}
                step={1}
              />
              <NumberField
                label="seen at a thickness of"
                quantity="length"
                value={asked.thickness_m}
                onChange={(thickness_m) => change({ thickness_m })}
                error={wrong("thickness_m")}
                step={0.5}
              />
            </>
          )}
        </>
      )}
    >
      {cook && (
        <>
          <p className="text-5xl font-bold text-balance" role="status">
            {cook.water_kg > 0 ? `${amount(cook.water_kg, "mass", units)} water, ` : "Dry, "}
            {bursts ? `${bursts} bursts` : `${duration(cook.time_s.likely)} on the ring`}
          </p>
          <p className="mt-3 text-2xl">
            {range(cook.time_s, "s", units)}
            {bursts ? ", with a look and a stir after each" : ""}.{" "}
            {cook.water_kg > 0 && `${amount(cook.boiled_off_kg, "mass", units)} of it boils off. `}
            {amount(cook.water_left.likely, "share", units)} water stays in it (
            {amount(cook.water_left.low, "share", units)} to {amount(cook.water_left.high, "share", units)}).
          </p>
          {boils_over && (
            <div className="mt-4">
              <Notice tone="hot">
                The pot is too small: {amount(cook.depth_m, "length", units)} deep, it foams to about{" "}
                {amount(cook.foam_m, "length", units)}, and the pot is{" "}
                {amount(cook.height_m, "length", units)} high. A wider pot, or two cooks.
              </Notice>
            </div>
          )}
          {cook.stages.length > 0 && (
            <ol
              className="mt-6 grid max-w-2xl grid-cols-[auto_auto_auto_1fr] items-baseline gap-x-6 gap-y-1"
              aria-label="Stages"
            >
              {cook.stages.map((stage) => (
                <li key={stage.name} className="contents">
                  <strong className="text-xl">{stage.name}</strong>
                  <span>from {degc(stage.from_degc)}</span>
                  <span className="font-bold">
                    {stage.at_s === null ? "not reached" : duration(stage.at_s)}
                  </span>
                  <span className="text-quiet">
                    {stage.water_frac > 0.185
                      ? "a fifth water or more"
                      : `${amount(stage.water_frac, "share", units)} water`}
                  </span>
                </li>
              ))}
            </ol>
          )}
          <dl className="mt-6 flex flex-wrap gap-x-10 gap-y-3">
            <Fact name="stops boiling by itself at">{degc(cook.boils_degc)}</Fact>
            <Fact name="pours down to">{degc(cook.pours_to_degc)}</Fact>
            <Fact name="glass below">{degc(cook.glass_degc.likely)}</Fact>
            <Fact name="cooks left before it is too brown">{cook.cooks_left}</Fact>
            {asked.white_frac > 0 && passes_frac !== undefined && (
              <Fact name="of the light gets through">{amount(passes_frac, "share", units)}</Fact>
            )}
          </dl>
          <h2 className="mt-8 border-b border-line pb-1 text-xl">Hotter comes out clearer</h2>
          <ul className="mt-2 flex flex-wrap gap-x-8 gap-y-1" aria-label="Cooked hotter">
            {query.data?.clearer.map((row) => (
              <li key={row.degc} className={row.browned_frac >= BROWN_FRAC ? "text-quiet" : ""}>
                <strong>{degc(row.degc)}</strong>: {amount(row.water_frac, "share", units)} water
                {row.browned_frac >= 1 ? ", too brown" : row.browned_frac >= BROWN_FRAC ? ", browner" : ""}
              </li>
            ))}
          </ul>
          <p className="mt-1 max-w-2xl">
            Less water, so fewer bubbles. Stir now and then until the last grain is gone, then leave it:
            stirring on folds in air.
          </p>
          <Faults faults={faults} />
          <p className="mt-6 max-w-2xl border-l-4 border-heat pl-3">
            Hot sugar burns through skin at once: double gloves, sleeves, cold water at hand, no children.
            Colour drops spit: only after the bubbles.
          </p>
        </>
      )}
    </Sheet>
  );
}
