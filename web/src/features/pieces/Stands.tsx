import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Button, Choice } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Fact, Sheet } from "../../shared/ui/Sheet";
import { standsQuery } from "./queries";

type Asked = Schemas["StandAsked"];
const FIRST: Asked = {
  of: "sugar",
  parts: [
    { kg: 0.12, x_m: 0, z_m: 0.01 },
    { kg: 0.08, x_m: 0.02, z_m: 0.12 },
  ],
  base_m: 0.08,
  base_deep_m: 0.06,
  foot_wide_m: 0.03,
  foot_thick_m: 0.01,
  wire_m: 0.0005,
  wire_in_m: 0.02,
};
const DEGREES = 180 / Math.PI;
/** A lean that a table, a knock or a draught may bring. */
const SAFE_LEAN = 10;

/** Does an assembled piece stand, does its foot bear it, can it hang from its wire. */
export function Stands() {
  const units = useUnits();
  const [asked, setAsked] = useState(FIRST);
  const query = useQuery(standsQuery(asked));
  const change = (patch: Partial<Asked>) => setAsked({ ...asked, ...patch });
  const part = (i: number, patch: Partial<Schemas["StandPart"]>) =>
    change({ parts: asked.parts.map((p, k) => (k === i ? { ...p, ...patch } : p)) });
  const field = (key: keyof Asked, label: string, step = 1) => (
    <NumberField
      label={label}
      quantity="length"
      value={asked[key] as number}
      onChange={(v) => change({ [key]: v })}
      step={step}
    />
  );
  const of = query.data;
  const lean = of ? of.standing.tips_rad * DEGREES : 0;
  const firm = lean >= SAFE_LEAN;
  return (
    <Sheet
      error={query.error}
      old={query.isPlaceholderData}
      fields={[]}
      inputs={() => (
        <>
          <Choice
            label="Of"
            value={asked.of}
            options={[
              { key: "sugar", name: "sugar glass" },
              { key: "fat", name: "chocolate, coating" },
            ]}
            onChange={(kind) => change({ of: kind })}
          />
          <ol className="space-y-3">
            {asked.parts.map((p, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the list
              <li key={i} className="grid grid-cols-3 gap-3">
                <NumberField
                  label={`Part ${i + 1}`}
                  quantity="mass"
                  value={p.kg}
                  onChange={(kg) => part(i, { kg })}
                  step={10}
                />
                <NumberField
                  label="off centre"
                  quantity="length"
                  value={p.x_m}
                  onChange={(x_m) => part(i, { x_m })}
                  step={5}
                />
                <NumberField
                  label="up"
                  quantity="length"
                  value={p.z_m}
                  onChange={(z_m) => part(i, { z_m })}
                  step={5}
                />
              </li>
            ))}
          </ol>
          <div className="flex gap-5">
            <Button
              kind="quiet"
              onClick={() => change({ parts: [...asked.parts, { kg: 0.05, x_m: 0, z_m: 0.1 }] })}
            >
              Add a part
            </Button>
            {asked.parts.length > 1 && (
              <Button kind="quiet" onClick={() => change({ parts: asked.parts.slice(0, -1) })}>
                Take the last out
              </Button>
            )}
          </div>
          {field("base_m", "Stands on, wide", 5)}
          {field("base_deep_m", "and deep", 5)}
          {field("foot_wide_m", "Foot or stem, wide")}
          {field("foot_thick_m", "and thick", 0.5)}
          {field("wire_m", "Wire to hang it from", 0.1)}
          {field("wire_in_m", "set in")}
        </>
      )}
    >
      {of && (
        <>
          <p className={`text-5xl font-bold text-balance ${firm ? "" : "text-heat"}`} role="status">
            {of.standing.inside_m <= 0
              ? "It tips over"
              : firm
                ? `It stands: tips at ${lean.toFixed(0)}°`
                : `It stands badly: tips at ${lean.toFixed(0)}°`}
          </p>
          <p className="mt-3 max-w-2xl text-xl">
            The middle of its {amount(of.standing.kg, "mass", units)} is{" "}
            {amount(Math.abs(of.standing.inside_m), "length", units)}{" "}
            {of.standing.inside_m > 0 ? "inside" : "outside"} the edge it stands on,{" "}
            {amount(of.standing.middle_m[2] ?? 0, "length", units)} up.
          </p>
          <dl className="mt-6 flex flex-wrap gap-x-12 gap-y-4">
            <Fact name="of what is safe to plan with, in the foot">
              <span className={of.foot_frac > 1 ? "text-heat" : ""}>
                {amount(of.foot_frac, "share", units)}
              </span>
            </Fact>
            <Fact name="the foot that would be safe">{amount(of.foot_needs_m, "length", units)} thick</Fact>
            <Fact name="times over the wire carries it">
              <span className={of.hangs < 1 ? "text-heat" : ""}>{of.hangs.toFixed(1)}</span>
            </Fact>
          </dl>
          <p className="mt-6 max-w-2xl border-l-4 border-heat pl-3">
            Strengths are assumed and planned with a wide safety: sugar breaks without warning, from a scratch
            or a draught. Wires, sticks and skewers are declared; nothing hangs over people.
          </p>
        </>
      )}
    </Sheet>
  );
}
