import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Explained, Schemas } from "../../api/client";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { propertiesQuery } from "../../shared/kitchen";
import { measureWords } from "../../shared/measures";
import { Choice, Pick } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { NumberField } from "../../shared/ui/NumberField";
import { Button } from "../../shared/ui/plain";
import { Sheet } from "../../shared/ui/Sheet";
import { meltsIn } from "../../shared/wording";
import { handQuery } from "./queries";

type Asked = Schemas["HandRequest"];
const FIRST: Asked = {
  material: "coating",
  nozzle: "no_3",
  lines_m: 2,
  dollops: 12,
  dollop_m: 0.025,
  seam_m: 0.3,
  gap_m: 0,
  deep_m: 0,
  ball_m: 0.1,
  wall_m: 0.003,
  dipped: 12,
  dip_m: 0.035,
  high_m: 0.03,
  mixture: "ganache",
  mixed_kg: 0.2,
  at_hand_kg: null,
  first_frac: null,
};

const ROWS: { key: keyof Asked; label: string; quantity: "length" | "count"; step: number }[] = [
  { key: "lines_m", label: "Lines, in all", quantity: "length", step: 100 },
  { key: "seam_m", label: "Seam to be joined, in all", quantity: "length", step: 10 },
  { key: "gap_m", label: "Gap under it", quantity: "length", step: 0.5 },
  { key: "deep_m", label: "so deep", quantity: "length", step: 0.5 },
  { key: "dollops", label: "Dollops", quantity: "count", step: 1 },
  { key: "dollop_m", label: "each so wide", quantity: "length", step: 1 },
  { key: "dipped", label: "Dipped", quantity: "count", step: 1 },
  { key: "dip_m", label: "each so wide ", quantity: "length", step: 1 },
  { key: "high_m", label: "dipped so high", quantity: "length", step: 1 },
  { key: "ball_m", label: "Hollow ball, diameter", quantity: "length", step: 1 },
  { key: "wall_m", label: "its wall", quantity: "length", step: 0.1 },
];

const MIXTURES = [
  { key: "ganache", name: "dark ganache" },
  { key: "ganache_milk", name: "milk ganache" },
  { key: "ganache_white", name: "white ganache" },
  { key: "cake", name: "cake filling" },
  { key: "modelling_chocolate", name: "modelling chocolate" },
  { key: "gum_paste", name: "gum paste" },
  { key: "marzipan", name: "marzipan" },
] as const;

/** What is made by hand: how much of a melt it takes, and what a filling is mixed of. */
export function ByHandView() {
  return (
    <div>
      <header className="space-y-2 px-7 pt-6">
        <h1 className="text-3xl">By hand</h1>
      </header>
      <Amounts />
    </div>
  );
}

const FEELS = [
  { key: "dry", name: "Too stiff" },
  { key: "soft", name: "Too soft" },
] as const;

/** With a spoon more of one of its parts. */
function withSpoon(asked: Asked, { mixed }: Schemas["HandAmounts"], more: Schemas["Spoonful"]): Asked {
  const [first] = mixed;
  const kg = mixed.reduce((sum, part) => sum + part.kg, more.kg);
  if (!first) return asked;
  const firstKg = first.kg + (more.name === first.name ? more.kg : 0);
  return { ...asked, mixed_kg: kg, at_hand_kg: null, first_frac: firstKg / kg };
}

function Amounts() {
  const units = useUnits();
  const [asked, setAsked] = useState(FIRST);
  const query = useQuery(handQuery(asked));
  const fats = meltsIn(useQuery(propertiesQuery).data?.groups).filter((m) => m.family?.skins);
  const of = query.data;
  const rows: [string, Explained][] = of
    ? [
        ["lines", of.lines],
        ["seams", of.bead],
        ["dollops", of.dollops],
        ["dipped", of.dip],
        ["hollow ball", of.ball],
      ]
    : [];
  return (
    <Sheet
      error={query.error}
      old={query.isPlaceholderData}
      fields={ROWS.map((row) => row.key)}
      inputs={(wrong) => (
        <>
          <Pick
            label="Of"
            value={asked.material}
            options={fats.map((m) => ({ key: m.key, name: m.name }))}
            onChange={(material) => setAsked({ ...asked, material })}
          />
          <Choice
            label="Round nozzle"
            value={asked.nozzle}
            options={[
              { key: "no_3", name: "no. 3" },
              { key: "no_5", name: "no. 5" },
            ]}
            onChange={(nozzle) => setAsked({ ...asked, nozzle })}
          />
          {ROWS.map(({ key, label, quantity, step }) => (
            <NumberField
              key={key}
              label={label}
              quantity={quantity}
              value={asked[key] as number}
              onChange={(v) => setAsked({ ...asked, [key]: quantity === "count" ? Math.round(v) : v })}
              error={wrong(key)}
              step={step}
            />
          ))}
          <Pick
            label="To be mixed"
            value={asked.mixture}
            options={MIXTURES.map(({ key, name }) => ({ key, name }))}
            onChange={(mixture) => setAsked({ ...asked, mixture, at_hand_kg: null, first_frac: null })}
          />
          <NumberField
            label="All of it"
            quantity="mass"
            value={asked.mixed_kg}
            onChange={(mixed_kg) => setAsked({ ...asked, mixed_kg, at_hand_kg: null })}
            error={wrong("mixed_kg")}
            step={10}
          />
          <NumberField
            label={`Or all the ${of?.mixed[0]?.name ?? "first"} at hand`}
            quantity="mass"
            value={asked.at_hand_kg}
            onChange={(at_hand_kg) => setAsked({ ...asked, at_hand_kg })}
            onClear={() => setAsked({ ...asked, at_hand_kg: null })}
            error={wrong("at_hand_kg")}
            step={10}
          />
          <NumberField
            label={`Share of ${of?.mixed[0]?.name ?? "the first"}`}
            quantity="share"
            value={asked.first_frac}
            hint={of ? `usual: ${amount(of.usual_frac, "share", units)}` : undefined}
            onChange={(first_frac) => setAsked({ ...asked, first_frac })}
            onClear={() => setAsked({ ...asked, first_frac: null })}
            error={wrong("first_frac")}
            step={1}
          />
        </>
      )}
    >
      {of && (
        <>
          <dl className="grid max-w-xl grid-cols-[auto_1fr] items-baseline gap-x-8 gap-y-3">
            {rows.map(([name, figure]) => (
              <div key={name} className="contents">
                <dt className="text-xl">{name}</dt>
                <dd>
                  <Figure of={figure} name={name} className="text-4xl" />
                  <span className="ml-4 text-quiet">{range(figure.value, "kg", units)}</span>
                </dd>
              </div>
            ))}
          </dl>
          <dl className="mt-6 grid max-w-xl grid-cols-[auto_1fr] items-baseline gap-x-8 gap-y-3 border-t border-line pt-4">
            {of.mixed.map(({ name, kg, measured }) => (
              <div key={name} className="contents">
                <dt className="text-xl">{name}</dt>
                <dd>
                  <span className="text-4xl font-bold">{amount(kg, "mass", units)}</span>
                  {measured && <span className="block text-quiet">{measureWords(measured)}</span>}
                </dd>
              </div>
            ))}
          </dl>
          <div className="mt-4 flex max-w-2xl flex-wrap gap-x-6 gap-y-2">
            {FEELS.map(({ key, name }) => {
              const more = of.feel[key];
              return (
                more && (
                  <Button key={key} kind="quiet" onClick={() => setAsked(withSpoon(asked, of, more))}>
                    {`${name}: ${measureWords({ count: 1, of: more.of })} of ${more.name} more`}
                  </Button>
                )
              );
            })}
          </div>
          <p className="mt-6 max-w-2xl">
            A dipped piece keeps a coat of {range(of.coat_m, "m", units)} after draining and shaking. Add what
            stays in bag and bowl, and enough depth to dip into.
          </p>
        </>
      )}
    </Sheet>
  );
}
