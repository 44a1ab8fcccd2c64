import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Button } from "../../shared/ui/plain";
import { Fact, Sheet } from "../../shared/ui/Sheet";
import { Faults } from "./Faults";
import { fluidQuery, keepWafer } from "./queries";

type Asked = Schemas["FluidRequest"];

const FEELS: Record<Schemas["Fluidity"]["feels"], string> = {
  fluid: "Fluid: thin coats, it runs off a wall",
  usual: "As usual",
  stiff: "Stiff: thick coats, it hardly runs",
};

/** How fluid a wafer is, by a spoonful on a plate or by what a spoon keeps; kept as a wafer of one's own it moves pours and coats. */
export function Fluid({ fats }: { fats: Schemas["MaterialShown"][] }) {
  const units = useUnits();
  const [asked, setAsked] = useState<Asked>({
    material: "coating",
    by: "plate",
    kg: 0.015,
    wide_m: 0.07,
    area_m2: 0.003,
  });
  const change = (patch: Partial<Asked>) => setAsked((before) => ({ ...before, ...patch }));
  const query = useQuery(fluidQuery(asked));
  const of = query.data;
  const name = fats.find((m) => m.key === asked.material)?.name ?? "";
  const keep = useMutation({
    mutationFn: (found: Schemas["Fluid"]) => {
      const { low, likely, high } = found.fluidity.yield_pa;
      return keepWafer(crypto.randomUUID(), {
        name: `${name}, ${found.fluidity.feels}`,
        like: asked.material,
        sheet: [{ name: "casson_yield", low, likely, high }],
      });
    },
  });
  const tables = fats.filter((m) => !m.key.includes("-"));
  return (
    <Sheet
      error={query.error ?? keep.error}
      old={query.isPlaceholderData}
      fields={["kg", "wide_m", "kept_kg", "area_m2"]}
      inputs={(wrong) => (
        <>
          <Pick
            label="Of"
            value={asked.material}
            options={tables.map((m) => ({ key: m.key, name: m.name }))}
            onChange={(material) => change({ material })}
          />
          <Choice
            label="Tested by"
            value={asked.by}
            options={[
              { key: "plate", name: "a spoonful on a plate" },
              { key: "spoon", name: "what a spoon keeps" },
            ]}
            onChange={(by) => change(by === "plate" ? { by, kg: 0.015 } : { by, kg: 0.003 })}
          />
          <NumberField
            label={asked.by === "plate" ? "The spoonful weighs" : "The spoon weighs more by"}
            quantity="mass"
            value={asked.kg}
            onChange={(kg) => change({ kg })}
            error={wrong("kg") ?? wrong("kept_kg")}
            step={1}
          />
          {asked.by === "plate" ? (
            <NumberField
              label="It comes to lie, wide"
              quantity="length"
              value={asked.wide_m}
              onChange={(wide_m) => change({ wide_m })}
              error={wrong("wide_m")}
              step={1}
              slider={{ low: 0.03, high: 0.15 }}
            />
          ) : (
            <NumberField
              label="Dipped, both faces, as a square of"
              quantity="length"
              value={Math.sqrt(asked.area_m2)}
              onChange={(side) => change({ area_m2: side * side })}
              error={wrong("area_m2")}
              step={1}
            />
          )}
        </>
      )}
    >
      {of && (
        <>
          <p className="text-5xl font-bold text-balance" role="status">
            {FEELS[of.fluidity.feels]}
          </p>
          <p className="mt-3 text-2xl">
            A dip of 30 mm keeps {amount(of.coat.likely, "length", units)} of it, of the usual one{" "}
            {amount(of.usual_coat.likely, "length", units)}.
          </p>
          <dl className="mt-6 flex flex-wrap gap-x-10 gap-y-3">
            <Fact name="yield value, by this test">{of.fluidity.yield_pa.likely.toFixed(1)} Pa</Fact>
            <Fact name="usual">
              {of.fluidity.usual.low.toFixed(0)} to {of.fluidity.usual.high.toFixed(0)} Pa
            </Fact>
          </dl>
          <div className="mt-6 flex flex-wrap items-center gap-4">
            <Button onClick={() => keep.mutate(of)}>Keep it as a wafer of my own</Button>
            {keep.data && (
              <Link className="font-bold text-glass" to={`/kitchen/materials/${keep.data.id}`}>
                Kept: cast your pieces of it, and their shells, coats and dips follow.
              </Link>
            )}
          </div>
          <p className="mt-6 max-w-2xl">
            Melted, at its working warmth, let fall on a level plate and left until it no longer spreads; not
            tapped. The spoon is dipped whole and held upright until it no longer drips.
          </p>
          <Faults faults={of.faults} />
        </>
      )}
    </Sheet>
  );
}
