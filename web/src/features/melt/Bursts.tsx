import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { burstList } from "../../shared/bowlWords";
import { amount, duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Fact, Sheet } from "../../shared/ui/Sheet";
import { Faults } from "./Faults";
import { burstsQuery } from "./queries";

const WAFER_M = 0.004;
const MELT_KG = 0.2;

/** The bursts a bowl is likely to need, and how it stands after each. */
export function Bursts({ kitchen, fats }: { kitchen: Schemas["Kitchen"]; fats: Schemas["MaterialShown"][] }) {
  const units = useUnits();
  const value = (key: string, name: string) =>
    fats.find((m) => m.key === key)?.properties.find((p) => p.name === name)?.likely;
  const [asked, setAsked] = useState<Schemas["BurstsRequest"]>(() => ({
    material: "coating",
    vessel_id: (kitchen.vessels.find((v) => v.made_of === "plastic") ?? kitchen.vessels[0])?.id ?? "",
    oven_id: kitchen.microwaves[0]?.id ?? "",
    melt_kg: MELT_KG,
    wafer_m: WAFER_M,
    melt_to_degc: value("coating", "melt_to") ?? 43,
    power: "full",
    stop: "lumps",
  }));
  const change = (patch: Partial<Schemas["BurstsRequest"]>) =>
    setAsked((before) => ({ ...before, ...patch }));
  const query = useQuery({ ...burstsQuery(asked), enabled: asked.oven_id !== "" });
  const degc = (v: number) => amount(v, "temperature", units);
  const plan = query.data?.plan;
  const bursts = plan?.steps.filter((step) => step.act === "burst") ?? [];
  const limit = value(asked.material, "spoils_at") ?? 50;
  return (
    <Sheet
      error={query.error}
      old={query.isPlaceholderData}
      fields={["melt_kg", "wafer_m", "melt_to_degc"]}
      inputs={(wrong) => (
        <>
          <Pick
            label="Of"
            value={asked.material}
            options={fats.map((m) => ({ key: m.key, name: m.name }))}
            onChange={(material) =>
              change({ material, melt_to_degc: value(material, "melt_to") ?? asked.melt_to_degc })
            }
          />
          <NumberField
            label="How much"
            quantity="mass"
            value={asked.melt_kg}
            onChange={(melt_kg) => change({ melt_kg })}
            error={wrong("melt_kg")}
            step={10}
            slider={{ low: 0.05, high: 1 }}
          />
          <NumberField
            label="Wafers or pieces, thick"
            quantity="length"
            value={asked.wafer_m}
            onChange={(wafer_m) => change({ wafer_m })}
            error={wrong("wafer_m")}
            step={1}
            slider={{ low: 0.002, high: 0.015 }}
          />
          <Pick
            label="Bowl"
            value={asked.vessel_id}
            options={kitchen.vessels.map((v) => ({ key: v.id, name: v.name }))}
            onChange={(vessel_id) => change({ vessel_id })}
          />
          <Pick
            label="Oven"
            value={asked.oven_id}
            options={kitchen.microwaves.map((m) => ({ key: m.id, name: `${m.name}, ${m.power_w} W` }))}
            onChange={(oven_id) => change({ oven_id })}
          />
          <Choice
            label="Power"
            value={asked.power}
            options={[
              { key: "full", name: "full" },
              { key: "half", name: "half" },
            ]}
            onChange={(power) => change({ power })}
          />
          <Pick
            label="Take it out"
            value={asked.stop}
            options={[
              { key: "lumps", name: "with a few lumps" },
              { key: "through", name: "melted through" },
            ]}
            onChange={(stop) => change({ stop: stop as typeof asked.stop })}
          />
        </>
      )}
    >
      {asked.oven_id === "" && <p className="text-xl">Add a microwave in the kitchen first.</p>}
      {plan && (
        <>
          <p className="text-5xl font-bold text-balance" role="status">
            {burstList(bursts.map((step) => step.seconds))}
          </p>
          <p className="mt-3 text-2xl">
            Stir and look after each. {duration(plan.time_s.likely)} in all, {range(plan.time_s, "s", units)}.
          </p>
          <ol className="mt-6 max-w-3xl space-y-3">
            {plan.steps.map((step, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: steps are known by their order
              <li key={i} className="grid grid-cols-[5rem_1fr_auto] items-center gap-4">
                <strong className="text-xl">{step.act === "stir" ? "stir on" : `${step.seconds} s`}</strong>
                <Melted after={step.after} />
                <span className="text-right max-sm:col-span-3 sm:w-60">
                  {degc(step.after.degc.likely)}, hottest{" "}
                  <strong className={step.after.hottest_degc.likely > limit ? "text-heat" : ""}>
                    {degc(step.after.hottest_degc.high)}
                  </strong>{" "}
                  at most
                </span>
              </li>
            ))}
          </ol>
          <dl className="mt-6 flex flex-wrap gap-x-10 gap-y-3">
            <Fact name="stirred out">{degc(plan.end.degc.likely)}</Fact>
            <Fact name="melted">{amount(plan.end.melted_frac.likely, "share", units)}</Fact>
            <Fact name="it bears">{degc(limit)}</Fact>
          </dl>
          <p className="mt-6 max-w-2xl text-quiet">
            No metal in the microwave. At the bench each burst is a tap, and what you see in the bowl changes
            the next one.
          </p>
          <Faults faults={query.data?.faults} />
        </>
      )}
    </Sheet>
  );
}

/** How far it has melted, with how sure that is as a soft end. */
function Melted({ after }: { after: Schemas["After"] }) {
  const { low, likely, high } = after.melted_frac;
  return (
    <svg
      viewBox="0 0 100 10"
      preserveAspectRatio="none"
      className="h-7 w-full"
      role="img"
      aria-label={`${Math.round(likely * 100)} % melted`}
    >
      <rect width="100" height="10" fill="var(--raised)" />
      <rect width={high * 100} height="10" fill="var(--glass)" opacity="0.25" />
      <rect width={likely * 100} height="10" fill="var(--glass)" opacity="0.45" />
      <rect width={low * 100} height="10" fill="var(--glass)" />
    </svg>
  );
}
