import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { type Share, Vessel } from "../../drawings/Vessel";
import { burstList } from "../../shared/bowlWords";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { paletteListQuery } from "../../shared/kitchen";
import { meltName, tonesOf } from "../../shared/melts";
import { partAndPass, wholeName } from "../../shared/named";
import { stepWords } from "../../shared/temperSteps";
import { Figure } from "../../shared/ui/Figure";
import type { Wording } from "../../shared/wording";
import { Doses } from "./Doses";
import { Part } from "./Part";
import { type Asked, meltQuery, type Plan, type Summary } from "./queries";

const PX_PER_M = 900;
const TALLEST = 150;

/** What to melt: each melt with its weights, its vessel to scale with the share of every pass, and its melts one by one. */
export function Melts({ plan, kitchen }: { plan: Plan; kitchen: Schemas["Kitchen"] }) {
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const { asked, summary } = plan;
  const highest = Math.max(
    ...summary.melts.map((melt) => kitchen.vessels.find((v) => v.id === melt.vessel_id)?.height_m ?? 0),
    0.01,
  );
  const scale = Math.min(PX_PER_M, TALLEST / highest);
  return (
    <section aria-label="What to melt" className="space-y-6">
      <h2 className="border-b border-line pb-1 text-xl">What to melt</h2>
      <Castings of={summary.castings} />
      <ByHand rows={summary.by_hand} />
      <div className="grid gap-x-8 gap-y-9 sm:grid-cols-2 2xl:grid-cols-3">
        {summary.melts.map((melt) => (
          <Melt
            key={melt.melt}
            asked={asked}
            melt={melt}
            kitchen={kitchen}
            scale={scale}
            name={meltName(melt, palettes)}
          />
        ))}
      </div>
    </section>
  );
}

/** What keeps a round from more castings. */
const LIMITS: Record<Schemas["Castings"]["limited_by"], string> = {
  mould: "what the mould holds",
  vessel: "what the vessel holds",
  window: "what the pour window takes",
  hands: "what one person works while it is soft",
};

/** How many of each part are cast, spares with them, in how many rounds of its mould. */
function Castings({ of }: { of: Summary["castings"] }) {
  return (
    <dl className="grid gap-x-8 gap-y-1.5 sm:grid-cols-2">
      {of.map(({ named, quantity, casts, rounds, at_once, limited_by }) => {
        const part = wholeName(named);
        return (
          <div key={part} className="flex flex-row-reverse items-baseline justify-end gap-3">
            <dt className="min-w-0 text-sm text-quiet">
              cast for {quantity} {part.toLowerCase()}, {rounds} {rounds === 1 ? "round" : "rounds"}
              {rounds > 1 && ` of up to ${at_once}: ${LIMITS[limited_by]}`}
            </dt>
            <dd className="w-12 shrink-0 text-right">
              <Figure of={casts} name={`Castings of ${part}`} className="text-2xl" />
            </dd>
          </div>
        );
      })}
    </dl>
  );
}

/** What goes in or is pressed by hand over the whole order, and what it is mixed of. */
function ByHand({ rows }: { rows: Summary["by_hand"] }) {
  const units = useUnits();
  if (rows.length === 0) return null;
  return (
    <div>
      <h3 className="text-lg">By hand</h3>
      <ul aria-label="By hand" className="grid gap-x-10 border-t border-line sm:grid-cols-2">
        {rows.map((row) => (
          <li
            key={row.name}
            className="flex items-baseline justify-between gap-3 border-b border-line py-1.5"
          >
            <span className="min-w-0">
              {row.count} × {row.name.toLowerCase()}
              {row.of.length > 0 && (
                <span className="ml-2 text-quiet">
                  {row.of.map((part) => `${amount(part.kg, "mass", units)} ${part.name}`).join(", ")}
                </span>
              )}
            </span>
            <strong className="whitespace-nowrap">{amount(row.kg, "mass", units)}</strong>
          </li>
        ))}
      </ul>
    </div>
  );
}

interface MeltProps {
  asked: Asked;
  melt: Schemas["MeltRow"];
  kitchen: Schemas["Kitchen"];
  scale: number;
  name: string;
}

function Melt({ asked, melt, kitchen, scale, name }: MeltProps) {
  const units = useUnits();
  const pot = kitchen.vessels.find((v) => v.id === melt.vessel_id);
  const tones = tonesOf(melt);
  return (
    <article aria-label={name} className="min-w-0">
      <h3 className="flex items-baseline justify-between gap-3 text-lg leading-tight">
        <span className="min-w-0">{name}</span>
        <Figure of={melt.fresh} name={`${name} to weigh out`} className="text-2xl whitespace-nowrap" />
      </h3>
      <p className="mb-2 text-sm text-quiet">
        {pot?.name}, {pot && amount(pot.diameter_m, "length", units)} wide
        {melt.cooks > 1 ? `; the fullest of ${melt.cooks} ${cookWord(melt.wording)}s` : ""}
      </p>
      <Part query={meltQuery(asked, melt.melt)} place="min-h-64">
        {({ melted, dose }) => (
          <>
            {pot && <InVessel of={melted} wording={melt.wording} pot={pot} scale={scale} tones={tones} />}
            {dose && <Doses dose={dose} />}
            <ol className="mt-1 space-y-1">
              {melted.cooks.map((cook) => (
                <Cook
                  key={cook.number}
                  cook={cook}
                  wording={melt.wording}
                  alone={melted.cooks.length === 1}
                />
              ))}
            </ol>
            <Weights of={melted} vessel={MADE[melt.wording].vessel} />
          </>
        )}
      </Part>
    </article>
  );
}

interface InVesselProps {
  of: Schemas["Melted"];
  wording: Wording;
  pot: Schemas["Vessel"];
  scale: number;
  tones: { tone: string; line: string };
}

/** The fullest vessel, from its floor: what stays, the reserve, and each pass that is poured from it. */
function InVessel({ of, wording, pot, scale, tones }: InVesselProps) {
  const units = useUnits();
  const grams = (kg: number) => amount(kg, "mass", units);
  const kept = of.kept.map(({ what, of: figure }) => ({ figure, name: keptWord(what, wording) }));
  const poured = of.passes.map(({ named, casts, kg }) => ({
    kg,
    name: `${casts} × ${partAndPass(named) || named.piece.toLowerCase()}`,
  }));
  const shares: Share[] = [
    ...kept.map(({ figure, name }) => ({ name, kg: figure.value.likely, kept: true })),
    ...poured.map(({ kg, name }) => ({ name, kg, kept: false })),
  ];
  const hatched = `repeating-linear-gradient(45deg, ${tones.line}, ${tones.line} 2px, ${tones.tone} 2px, ${tones.tone} 5px)`;
  return (
    <>
      <Vessel
        diameter={pot.diameter_m}
        height={pot.height_m}
        depth={of.depth_m}
        scale={scale}
        shares={shares}
        tone={tones.tone}
        line={tones.line}
        label={`${pot.name}, ${grams(of.charge_kg)} in it, ${amount(of.depth_m, "length", units)} deep`}
      />
      <ul className="border-b border-line pb-1">
        {[...poured].reverse().map(({ name, kg }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two parts may be called the same
          <ShareRow key={i} name={name} fill={tones.tone}>
            {grams(kg)}
          </ShareRow>
        ))}
        {[...kept].reverse().map(({ name, figure }) => (
          <ShareRow key={name} name={name} fill={hatched}>
            <Figure of={figure} name={name} className="font-normal" />
          </ShareRow>
        ))}
      </ul>
    </>
  );
}

function ShareRow({ name, fill, children }: { name: string; fill: string; children: ReactNode }) {
  return (
    <li className="flex justify-between gap-3">
      <span className="min-w-0">
        <span
          aria-hidden
          className="mr-2 inline-block h-3 w-3 border border-ink"
          style={{ background: fill }}
        />
        {name}
      </span>
      <span className="whitespace-nowrap">{children}</span>
    </li>
  );
}

function keptWord(what: Schemas["NotPoured"]["what"], wording: Wording): string {
  return {
    residue: `stays in the ${MADE[wording].vessel}`,
    bags: "stays in bags",
    reserve: "reserve",
    dip_reserve: "reserve, and depth to dip into",
  }[what];
}

/** Less than a scale shows. */
const LEAST_WEIGHED_KG = 0.00005;

interface HowProps {
  cook: Schemas["CookRow"];
  alone: boolean;
}

function Cook({ cook, alone, wording }: HowProps & { wording: Wording }) {
  const units = useUnits();
  const { cook: word, How } = MADE[wording];
  return (
    <li aria-label={`${word} ${cook.number + 1}`} className="leading-snug">
      {!alone && (
        <strong>
          {word} {cook.number + 1},{" "}
          <Figure of={cook.charge} name={`In the vessel, ${word.toLowerCase()} ${cook.number + 1}`} />:{" "}
        </strong>
      )}
      {cook.fresh.value.likely < LEAST_WEIGHED_KG ? (
        <>
          what is left <Figure of={cook.fresh} name="To weigh out" text="is enough" />
        </>
      ) : (
        <>
          weigh out <Figure of={cook.fresh} name="To weigh out" />
        </>
      )}
      <How cook={cook} alone={alone} />
      {cook.temper.slice(1).map((step, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: steps are known by their order
        <span key={i}>; {stepWords(step, units)}</span>
      ))}
    </li>
  );
}

function Boiled({ cook }: HowProps) {
  return (
    <>
      {cook.wet ? (
        <>
          , + <Figure of={cook.water} name="Water to add" /> water
        </>
      ) : (
        <>
          , <Figure of={cook.water} name="Water to add" text="no water" />
        </>
      )}
      , {cook.nib_bursts ? `${cook.nib_bursts} bursts with looks,` : "on the ring"}{" "}
      <Figure of={cook.hob} name="Time on the heat" />
      {cook.water_left && (
        <>
          , leaves <Figure of={cook.water_left} name="Water left in the melt" /> water
        </>
      )}
    </>
  );
}

function Melted({ cook, alone }: HowProps) {
  const units = useUnits();
  return (
    <>
      {cook.seed_kg > 0 && (
        <>
          , keep back <strong>{amount(cook.seed_kg, "mass", units)}</strong> as seed
        </>
      )}
      , {cook.bursts === null ? "over the bath, stirring" : <Bursts steps={cook.bursts} brings={alone} />},
      melts in <Figure of={cook.hob} name="Time to melt, stirring with it" />
    </>
  );
}

/** The bursts it is likely to need; where each is to bring it. */
function Bursts({ steps, brings: told }: { steps: Schemas["Next"][]; brings: boolean }) {
  const units = useUnits();
  const bursts = steps.filter((step) => step.act === "burst");
  const brings = bursts.map(
    ({ after }) =>
      `${Math.round(after.melted_frac.likely * 100)} % at ${amount(after.degc.likely, "temperature", units)}`,
  );
  return (
    <span>
      {burstList(bursts.map((step) => step.seconds))}
      {told && <span className="text-quiet"> ({brings.join(", ")})</span>}
    </span>
  );
}

function Weights({ of, vessel }: { of: Schemas["Melted"]; vessel: string }) {
  return (
    <dl className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
      {(
        [
          ["poured", of.poured],
          ["scraped off", of.scraped],
          [`left in the ${vessel}`, of.left],
          ["finished", of.finished],
        ] as const
      ).map(([name, figure]) => (
        <div key={name} className="flex flex-col-reverse">
          <dt className="text-sm text-quiet">{name}</dt>
          <dd>
            <Figure of={figure} name={name} className="text-lg" />
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** What a melt is made in, what making it is called, and how it is said. */
const MADE: Record<Wording, { vessel: "pot" | "bowl"; cook: string; How: (of: HowProps) => ReactNode }> = {
  sugar: { vessel: "pot", cook: "Cook", How: Boiled },
  fat: { vessel: "bowl", cook: "Melt", How: Melted },
};

/** What making a melt is called within a sentence. */
export const cookWord = (wording: Wording) => MADE[wording].cook.toLowerCase();
