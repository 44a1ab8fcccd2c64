import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import type { Schemas } from "../../api/client";
import { type Share, Vessel } from "../../drawings/Vessel";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { paletteListQuery } from "../../shared/kitchen";
import { meltName, tonesOf } from "../../shared/melts";
import { partAndPass, passFirst } from "../../shared/named";
import { Figure } from "../../shared/ui/Figure";
import { Button } from "../../shared/ui/plain";
import type { Wording } from "../../shared/wording";
import { Doses } from "./Doses";
import { LeftOver } from "./LeftOver";
import { Cook, cookWord, MADE } from "./melting";
import { Part } from "./Part";
import { type Asked, meltQuery, type Plan } from "./queries";

const PX_PER_M = 900;
const TALLEST = 110;
/** With no more melts than these, how each is made is told at once. */
const FEW = 2;

/** What to melt: each melt in its vessel and colour with what it serves, and on demand how it is made. */
export function Melts({ plan, kitchen }: { plan: Plan; kitchen: Schemas["Kitchen"] }) {
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const { asked, summary } = plan;
  const highest = Math.max(
    0.01,
    ...kitchen.vessels
      .filter((vessel) => summary.melts.some((melt) => melt.vessel_id === vessel.id))
      .map((vessel) => vessel.height_m),
  );
  const scale = Math.min(PX_PER_M, TALLEST / highest);
  return (
    <div className="grid gap-x-12 gap-y-1 lg:grid-cols-2">
      {summary.melts.map((melt) => (
        <Melt
          key={melt.melt}
          asked={asked}
          melt={melt}
          kitchen={kitchen}
          scale={scale}
          nameOf={(key) => {
            const row = summary.melts.find((other) => other.melt === key);
            return row ? meltName(row, palettes) : "another melt";
          }}
          told={summary.melts.length <= FEW}
        />
      ))}
    </div>
  );
}

interface MeltProps {
  asked: Asked;
  melt: Schemas["MeltRow"];
  kitchen: Schemas["Kitchen"];
  scale: number;
  nameOf: (melt: string) => string;
  told: boolean;
}

function Melt({ asked, melt, kitchen, scale, nameOf, told }: MeltProps) {
  const units = useUnits();
  const [open, setOpen] = useState(told);
  const pot = kitchen.vessels.find((v) => v.id === melt.vessel_id);
  const tones = tonesOf(melt);
  const name = nameOf(melt.melt);
  const word = cookWord(melt.wording);
  return (
    <article aria-label={name} className="min-w-0 border-t border-line py-3">
      <h2 className="flex items-baseline justify-between gap-3 text-xl leading-tight">
        <span className="min-w-0">{name}</span>
        <Figure
          of={melt.divided_off ?? melt.fresh}
          name={melt.divided_off ? `${name}, divided off` : `${name} to weigh out`}
          className="text-2xl whitespace-nowrap"
        />
      </h2>
      <p className="mb-1 text-quiet">
        {pot?.name}, {pot && amount(pot.diameter_m, "length", units)} wide
        {melt.cooks > 1 ? `; the fullest of ${melt.cooks} ${word}s` : ""}
        {melt.divided_off ? "; off one pot" : ""}
      </p>
      <Part query={meltQuery(asked, melt.melt)} place="min-h-32">
        {({ melted, dose, takers }) => (
          <>
            {pot && <InVessel of={melted} wording={melt.wording} pot={pot} scale={scale} tones={tones} />}
            {!told && (
              <Button kind="quiet" expanded={open} onClick={() => setOpen(!open)}>
                {open ? "Less" : `How ${melted.cooks.length === 1 ? "it is" : "they are"} made`}
              </Button>
            )}
            {open && (
              <>
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
                <LeftOver takers={takers} asked={asked} zone={kitchen.zone} nameOf={nameOf} />
              </>
            )}
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
  const several = new Set(of.passes.map(({ named }) => named.piece)).size > 1;
  const kept = of.kept.map(({ what, of: figure }) => ({ figure, name: keptWord(what, wording) }));
  const poured = of.passes.map(({ named, casts, kg }) => ({
    kg,
    // where several pieces are of it, whose pass it is
    name: `${casts} × ${several ? passFirst(named).toLowerCase() : partAndPass(named) || named.piece.toLowerCase()}`,
  }));
  const shares: Share[] = [
    ...kept.map(({ figure, name }) => ({ name, kg: figure.value.likely, kept: true })),
    ...poured.map(({ kg, name }) => ({ name, kg, kept: false })),
  ];
  const hatched = `repeating-linear-gradient(45deg, ${tones.line}, ${tones.line} 2px, ${tones.tone} 2px, ${tones.tone} 5px)`;
  return (
    <div className="flex items-end gap-6">
      <div className="w-40 shrink-0">
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
      </div>
      <ul className="min-w-0 flex-1">
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
    </div>
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

function Weights({ of, vessel }: { of: Schemas["Melted"]; vessel: string }) {
  return (
    <dl className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
      {(
        [
          ["poured", of.poured],
          ["scraped off", of.scraped],
          ...(of.mixed.value.likely > 0 ? ([["comes off mixed", of.mixed]] as const) : []),
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
