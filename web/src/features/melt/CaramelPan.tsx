import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { amount, duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Fact, Sheet } from "../../shared/ui/Sheet";
import { caramelQuery } from "./queries";

/** Dry caramel by its stages, and when a lifted spoonful holds a thread. */
export function CaramelPan({ kitchen }: { kitchen: Schemas["Kitchen"] }) {
  const units = useUnits();
  const [asked, setAsked] = useState<Schemas["CaramelRequest"]>(() => ({
    vessel_id: (kitchen.vessels.find((v) => v.made_of === "steel") ?? kitchen.vessels[0])?.id ?? "",
    ring_id: kitchen.rings[0]?.id ?? "",
    sugar_kg: 0.2,
    off_degc: 175,
  }));
  const change = (patch: Partial<Schemas["CaramelRequest"]>) =>
    setAsked((before) => ({ ...before, ...patch }));
  const query = useQuery(caramelQuery(asked));
  const of = query.data;
  return (
    <Sheet
      error={query.error}
      old={query.isPlaceholderData}
      fields={["sugar_kg", "off_degc"]}
      inputs={(wrong) => (
        <>
          <NumberField
            label="Sugar"
            quantity="mass"
            value={asked.sugar_kg}
            onChange={(sugar_kg) => change({ sugar_kg })}
            error={wrong("sugar_kg")}
            step={20}
          />
          <NumberField
            label="Taken off at"
            quantity="temperature"
            value={asked.off_degc}
            onChange={(off_degc) => change({ off_degc })}
            error={wrong("off_degc")}
            step={1}
            slider={{ low: 165, high: 192 }}
          />
          <Pick
            label="Pan"
            value={asked.vessel_id}
            options={kitchen.vessels.map((v) => ({ key: v.id, name: v.name }))}
            onChange={(vessel_id) => change({ vessel_id })}
          />
          <Pick
            label="Ring"
            value={asked.ring_id}
            options={kitchen.rings.map((r) => ({ key: r.id, name: r.name }))}
            onChange={(ring_id) => change({ ring_id })}
          />
        </>
      )}
    >
      {of && (
        <>
          <p className="text-5xl font-bold" role="status">
            Amber after {duration(of.amber_s.likely)}
          </p>
          <p className="mt-3 text-2xl">
            {range(of.amber_s, "s", units)} on medium-low. Shake the pan, never stir: it crystallises.
          </p>
          <ol className="mt-6 grid max-w-xl grid-cols-[auto_auto_auto] gap-x-8 gap-y-1">
            {of.stages.map((stage) => (
              <li key={stage.name} className="contents">
                <strong className="text-xl">{stage.name}</strong>
                <span>from {amount(stage.from_degc, "temperature", units)}</span>
                <span className="font-bold">
                  {stage.at_s === null ? "not reached" : duration(stage.at_s)}
                </span>
              </li>
            ))}
          </ol>
          <dl className="mt-6 flex flex-wrap gap-x-10 gap-y-3">
            <Fact name="lift and let fall, until it holds a thread">{duration(of.lift_from_s)}</Fact>
            <Fact name="then it is too stiff: warm the pan again">{duration(of.lift_until_s)}</Fact>
          </dl>
          <p className="mt-6 max-w-2xl border-l-4 border-heat pl-3">
            It is hotter than oil and sticks: gloves, sleeves, cold water at hand, nobody carries it past
            anyone.
          </p>
        </>
      )}
    </Sheet>
  );
}
