import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Explained, Schemas } from "../../api/client";
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
import type { Plan } from "./queries";

const PX_PER_M = 900;
const TALLEST = 150;

/** What to melt: each melt with its weights, its vessel to scale with the share of every pass, and its melts one by one. */
export function Melts({ plan, kitchen }: { plan: Plan; kitchen: Schemas["Kitchen"] }) {
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const highest = Math.max(
    ...plan.cooks.map((c) => kitchen.vessels.find((v) => v.id === c.vessel_id)?.height_m ?? 0),
    0.01,
  );
  const scale = Math.min(PX_PER_M, TALLEST / highest);
  return (
    <section aria-label="What to melt" className="space-y-6">
      <h2 className="border-b border-line pb-1 text-xl">What to melt</h2>
      <Castings plan={plan} />
      <ByHand plan={plan} />
      <div className="grid gap-x-8 gap-y-9 sm:grid-cols-2 2xl:grid-cols-3">
        {plan.melts.map((melt) => (
          <Melt
            key={melt.melt}
            plan={plan}
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
const LIMITS: Record<Schemas["LinePlan"]["limited_by"], string> = {
  mould: "what the mould holds",
  vessel: "what the vessel holds",
  window: "what the pour window takes",
  hands: "what one person works while it is soft",
};

/** How many of each part are cast, spares with them, in how many rounds of its mould. */
function Castings({ plan }: { plan: Plan }) {
  return (
    <dl className="grid gap-x-8 gap-y-1.5 sm:grid-cols-2">
      {plan.lines
        .filter((line) => line.last)
        .map((line) => {
          const part = wholeName({ ...line.named, step: "" });
          return (
            <div
              key={wholeName(line.named)}
              className="flex flex-row-reverse items-baseline justify-end gap-3"
            >
              <dt className="min-w-0 text-sm text-quiet">
                cast for {line.quantity} {part.toLowerCase()}, {line.rounds}{" "}
                {line.rounds === 1 ? "round" : "rounds"}
                {line.rounds > 1 && ` of up to ${line.at_once}: ${LIMITS[line.limited_by]}`}
              </dt>
              <dd className="w-12 shrink-0 text-right">
                <Figure of={line.casts} name={`Castings of ${part}`} className="text-2xl" />
              </dd>
            </div>
          );
        })}
    </dl>
  );
}

/** What goes in or is pressed by hand over the whole order, and what it is mixed of. */
function ByHand({ plan }: { plan: Plan }) {
  const units = useUnits();
  if (plan.by_hand.length === 0) return null;
  return (
    <div>
      <h3 className="text-lg">By hand</h3>
      <ul aria-label="By hand" className="grid gap-x-10 border-t border-line sm:grid-cols-2">
        {plan.by_hand.map((row) => (
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

function Melt({
  plan,
  melt,
  kitchen,
  scale,
  name,
}: {
  plan: Plan;
  melt: Schemas["MeltPlan"];
  kitchen: Schemas["Kitchen"];
  scale: number;
  name: string;
}) {
  const units = useUnits();
  const cooks = plan.cooks.filter((cook) => cook.melt_key === melt.melt);
  const fullest = cooks.reduce((a, b) => (b.charge.value.likely > a.charge.value.likely ? b : a));
  const pot = kitchen.vessels.find((v) => v.id === fullest.vessel_id);
  const tones = tonesOf(melt);
  const dose = plan.doses.find((d) => d.melt === melt.melt);
  const { vessel, cook: cookWord } = MADE[fullest.wording];
  const shares = sharesOf(plan, fullest);
  return (
    <article aria-label={name} className="min-w-0">
      <h3 className="flex items-baseline justify-between gap-3 text-lg leading-tight">
        <span className="min-w-0">{name}</span>
        <Figure of={melt.fresh} name={`${name} to weigh out`} className="text-2xl whitespace-nowrap" />
      </h3>
      <p className="mb-2 text-sm text-quiet">
        {pot?.name}, {pot && amount(pot.diameter_m, "length", units)} wide
        {cooks.length > 1 ? `; the fullest of ${cooks.length} ${cookWord.toLowerCase()}s` : ""}
      </p>
      {pot && (
        <Vessel
          diameter={pot.diameter_m}
          height={pot.height_m}
          depth={fullest.depth_m}
          scale={scale}
          shares={shares.map(({ name: what, of, kept }): Share => ({ name: what, kg: of, kept }))}
          tone={tones.tone}
          line={tones.line}
          label={`${pot.name}, ${amount(fullest.charge.value.likely, "mass", units)} in it, ${amount(fullest.depth_m, "length", units)} deep`}
        />
      )}
      <ul className="border-b border-line pb-1">
        {[...shares].reverse().map((share) => (
          <li key={share.name} className="flex justify-between gap-3">
            <span className="min-w-0">
              <span
                aria-hidden
                className="mr-2 inline-block h-3 w-3 border border-ink"
                style={{
                  background: share.kept
                    ? `repeating-linear-gradient(45deg, ${tones.line}, ${tones.line} 2px, ${tones.tone} 2px, ${tones.tone} 5px)`
                    : tones.tone,
                }}
              />
              {share.name}
            </span>
            <span className="whitespace-nowrap">
              {share.figure ? (
                <Figure of={share.figure} name={share.name} className="font-normal" />
              ) : (
                amount(share.of, "mass", units)
              )}
            </span>
          </li>
        ))}
      </ul>
      {dose && <Doses dose={dose} />}
      <ol className="mt-1 space-y-1">
        {cooks.map((cook) => (
          <Cook key={cook.number} cook={cook} alone={cooks.length === 1} />
        ))}
      </ol>
      <Weights melt={melt} vessel={vessel} />
    </article>
  );
}

/** Less than a scale shows. */
const LEAST_WEIGHED_KG = 0.00005;

interface Part {
  name: string;
  of: number;
  figure?: Explained;
  kept: boolean;
}

/** What is in a vessel, from its floor: what stays, the reserve, and each pass that is poured from it. */
function sharesOf(plan: Plan, cook: Schemas["CookReply"]): Part[] {
  const { vessel } = MADE[cook.wording];
  const poured = cook.rounds.flatMap((number) => {
    const round = plan.rounds[number]?.round;
    const line = round && plan.lines[round.line];
    if (!round || !line) return [];
    const each = line.amount.poured.value.likely;
    const word = partAndPass(line.named) || line.named.piece.toLowerCase();
    return [{ name: `${round.casts} × ${word}`, of: each * round.casts, kept: false }];
  });
  const dips = cook.rounds.some((number) => {
    const round = plan.rounds[number]?.round;
    return round && plan.lines[round.line]?.kind === "dip";
  });
  const merged: Part[] = [];
  for (const part of poured) {
    const same = merged.find((m) => m.name === part.name);
    if (same) same.of += part.of;
    else merged.push(part);
  }
  return [
    { name: `stays in the ${vessel}`, of: cook.residue.value.likely, figure: cook.residue, kept: true },
    ...(cook.bags.value.likely > 0
      ? [{ name: "stays in bags", of: cook.bags.value.likely, figure: cook.bags, kept: true }]
      : []),
    {
      name: dips ? "reserve, and depth to dip into" : "reserve",
      of: cook.reserve.value.likely,
      figure: cook.reserve,
      kept: true,
    },
    ...merged,
  ];
}

function Cook({ cook, alone }: { cook: Schemas["CookReply"]; alone: boolean }) {
  const units = useUnits();
  const { cook: word, How } = MADE[cook.wording];
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

interface HowProps {
  cook: Schemas["CookReply"];
  alone: boolean;
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

function Weights({ melt, vessel }: { melt: Schemas["MeltPlan"]; vessel: string }) {
  return (
    <dl className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
      {(
        [
          ["poured", melt.poured],
          ["scraped off", melt.scraped],
          [`left in the ${vessel}`, melt.left],
          ["finished", melt.finished],
        ] as const
      ).map(([name, of]) => (
        <div key={name} className="flex flex-col-reverse">
          <dt className="text-sm text-quiet">{name}</dt>
          <dd>
            <Figure of={of} name={name} className="text-lg" />
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
