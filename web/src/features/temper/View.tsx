import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf, type Schemas } from "../../api/client";
import { ThermoStick, type Zone } from "../../drawings/ThermoStick";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { mendWords, wordProblem } from "../../shared/format/words";
import { kitchenQuery, propertiesQuery } from "../../shared/kitchen";
import { Choice, Pick } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice } from "../../shared/ui/plain";
import { useDebounced } from "../../shared/useDebounced";
import { meltsIn } from "../../shared/wording";
import { type SeedAsked, seedQuery } from "./queries";
import { Test } from "./Test";
import { nowWords } from "./words";

const PAUSE_MS = 20;
const FIELDS = ["melt_kg", "melt_degc", "seed_degc", "added_kg", "read_degc"];

/** Tempering by seed, one act at a time, and whether it worked. */
export function TemperView() {
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const groups = useQuery(propertiesQuery).data?.groups;
  if (!kitchen || !groups) return null;
  const melts = meltsIn(groups).filter((row) => row.family?.tempers);
  return <Bowl kitchen={kitchen} melts={melts} />;
}

function Bowl({ kitchen, melts }: { kitchen: Schemas["Kitchen"]; melts: Schemas["MaterialShown"][] }) {
  const units = useUnits();
  const [asked, setAsked] = useState<SeedAsked>(() => firstBowl(kitchen, melts));
  const query = useQuery(seedQuery(useDebounced(asked, PAUSE_MS)));
  const seeded = query.error ? undefined : query.data;
  const problem = query.error ? problemOf(query.error) : null;
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  const change = (patch: Partial<SeedAsked>) => setAsked((before) => ({ ...before, ...patch }));
  const words = seeded && nowWords(seeded, units);
  return (
    <div className="grid min-h-full lg:grid-cols-[260px_1fr]">
      <section aria-label="The bowl" className="space-y-4 bg-panel px-6 py-6">
        <h2 className="text-xl">The bowl</h2>
        <Pick
          label="Of"
          value={asked.material}
          options={melts.map((m) => ({ key: m.key, name: m.name }))}
          onChange={(material) =>
            change({ material, melt_degc: meltTo(melts, material), added_kg: null, read_degc: null })
          }
        />
        <Pick
          label="In"
          value={asked.vessel_id}
          options={kitchen.vessels.map((v) => ({ key: v.id, name: v.name }))}
          onChange={(vessel_id) => change({ vessel_id })}
        />
        <NumberField
          label="Melt"
          quantity="mass"
          value={asked.melt_kg}
          onChange={(melt_kg) => change({ melt_kg })}
          error={wrong("melt_kg")}
          step={50}
        />
        <NumberField
          label="The melt is at"
          quantity="temperature"
          value={asked.melt_degc}
          onChange={(melt_degc) => change({ melt_degc })}
          error={wrong("melt_degc")}
          step={1}
          slider={{ low: 33, high: 55 }}
        />
        <Choice
          label="It has been melted right through"
          value={asked.through ? "yes" : "no"}
          options={[
            { key: "yes", name: "yes" },
            { key: "no", name: "not yet" },
          ]}
          onChange={(said) => change({ through: said === "yes" })}
        />
        <NumberField
          label="The seed goes in at"
          quantity="temperature"
          value={asked.seeded_degc ?? seeded?.seeded_degc ?? null}
          onChange={(seeded_degc) => change({ seeded_degc })}
          onClear={() => change({ seeded_degc: null })}
          error={wrong("seeded_degc")}
          step={0.5}
        />
        <NumberField
          label="The seed is at"
          quantity="temperature"
          value={asked.seed_degc}
          onChange={(seed_degc) => change({ seed_degc })}
          error={wrong("seed_degc")}
          step={1}
        />
        <h2 className="border-t border-line pt-4 text-xl">Since then</h2>
        <NumberField
          label="Seed stirred in"
          quantity="mass"
          value={asked.added_kg}
          onChange={(added_kg) => change({ added_kg })}
          onClear={() => change({ added_kg: null })}
          error={wrong("added_kg")}
          step={10}
        />
        <NumberField
          label="It now reads"
          quantity="temperature"
          value={asked.read_degc}
          onChange={(read_degc) => change({ read_degc })}
          onClear={() => change({ read_degc: null })}
          error={wrong("read_degc")}
          step={0.5}
        />
        {problem && !FIELDS.includes(problem.path) && (
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        )}
      </section>
      <section className="min-w-0 px-7 py-6" aria-label="What to do">
        <h1 className="text-3xl">Temper</h1>
        {/* the place is kept until it is reckoned */}
        <div className="min-h-[24rem]">
          {seeded && words ? (
            <div className={`mt-4 flex flex-wrap gap-8 ${query.isPlaceholderData ? "opacity-60" : ""}`}>
              <div className="max-w-2xl min-w-[min(100%,20rem)] flex-1">
                <p className="text-5xl font-bold text-balance" data-testid="now">
                  {words.title}
                </p>
                <p className="mt-3 text-2xl leading-snug">{words.why}</p>
                <dl className="mt-6 flex flex-wrap gap-x-10 gap-y-3">
                  <Fact name="seed in all">
                    <Figure of={seeded.seed} name="Seed" className="text-2xl" />
                  </Fact>
                  <Fact name="of the whole">
                    <strong className="text-2xl">{amount(seeded.share_frac, "share", units)}</strong>
                  </Fact>
                  <Fact
                    name={`practised at ${amount(seeded.seed_at.low, "temperature", units)} to ${amount(seeded.seed_at.high, "temperature", units)}`}
                  >
                    <strong className="text-2xl">{amount(seeded.practised.likely, "share", units)}</strong>
                  </Fact>
                  <Fact name="weighs then">
                    <strong className="text-2xl">{amount(seeded.whole_kg, "mass", units)}</strong>
                  </Fact>
                  <Fact name="the bowl comes to">
                    <strong className="text-2xl">
                      {amount(seeded.expected.low, "temperature", units)} to{" "}
                      {amount(seeded.expected.high, "temperature", units)}
                    </strong>
                  </Fact>
                </dl>
              </div>
              <ThermoStick
                low={20}
                high={seeded.spoils_degc + 4}
                height={330}
                width={230}
                zones={zonesOf(seeded)}
                reading={asked.read_degc ?? asked.melt_degc}
                word={(degc) => amount(degc, "temperature", units)}
              />
            </div>
          ) : (
            <p className="mt-4 text-xl">{problem ? mendWords(problem) : ""}</p>
          )}
        </div>
        <Test smear={seeded?.smear_s} />
      </section>
    </div>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-quiet">{name}</dt>
      <dd>{children}</dd>
    </div>
  );
}

const SEED_DEGC = 20;
const MELT_KG = 0.5;

function firstBowl(kitchen: Schemas["Kitchen"], melts: Schemas["MaterialShown"][]): SeedAsked {
  const bowl =
    kitchen.vessels.find((v) => v.made_of === "plastic" || v.made_of === "glass") ?? kitchen.vessels[0];
  const material = melts[0]?.key ?? "";
  return {
    material,
    vessel_id: bowl?.id ?? "",
    melt_kg: MELT_KG,
    melt_degc: meltTo(melts, material),
    through: true,
    seeded_degc: null,
    seed_degc: Math.min(SEED_DEGC, kitchen.room_degc),
    added_kg: null,
    read_degc: null,
  };
}

const meltTo = (melts: Schemas["MaterialShown"][], key: string): number =>
  melts.find((m) => m.key === key)?.properties.find((p) => p.name === "melt_to")?.likely ?? 45;

function zonesOf(seeded: Schemas["Seeded"]): Zone[] {
  const { work_at, melt_to, spoils_degc, loses_temper_degc } = seeded;
  return [
    { from: 20, to: work_at.low, fill: "close-dots", word: "thickens, sets" },
    { from: work_at.low, to: work_at.high, fill: "open", word: "works" },
    { from: work_at.high, to: loses_temper_degc, fill: "dots", word: "temper melts away" },
    { from: loses_temper_degc, to: melt_to.low, fill: "crosses", word: "no temper left" },
    { from: melt_to.low, to: spoils_degc, fill: "plain", word: "melt to here" },
    { from: spoils_degc, to: spoils_degc + 4, fill: "hatch", word: "too hot" },
  ];
}
