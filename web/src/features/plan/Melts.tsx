import type { Explained, Schemas } from "../../api/client";
import { type Share, Vessel } from "../../drawings/Vessel";
import { burstList } from "../../shared/actWords";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { stepWords } from "../../shared/temperSteps";
import { Figure } from "../../shared/ui/Figure";
import type { Plan } from "./queries";

const PX_PER_M = 620;

/** What to melt: each cook in its vessel, to scale, with its shares. */
export function Melts({ plan, kitchen }: { plan: Plan; kitchen: Schemas["Kitchen"] }) {
  return (
    <section aria-label="What to melt" className="space-y-7">
      <h2 className="border-b border-line pb-1 text-xl">What to melt</h2>
      {plan.melts.map((melt) => (
        <div key={melt.melt}>
          {plan.melts.length > 1 && <h3 className="mb-1 text-lg">{melt.name}</h3>}
          <Weights plan={plan} melt={melt} />
          <div className="flex flex-wrap gap-x-6 gap-y-6">
            {plan.cooks
              .filter((cook) => cook.melt === melt.melt)
              .map((cook) => (
                <Cook
                  key={cook.number}
                  cook={cook}
                  pot={kitchen.vessels.find((v) => v.id === cook.vessel_id)}
                />
              ))}
          </div>
        </div>
      ))}
    </section>
  );
}

function Weights({ plan, melt }: { plan: Plan; melt: Schemas["MeltPlan"] }) {
  const lines = new Set(plan.rounds.filter((r) => r.melt === melt.melt).map((r) => r.round.line));
  const vessel = melt.melt === "isomalt" ? "pot" : "bowl";
  return (
    <dl className="flex flex-wrap gap-x-10 gap-y-2 pb-3">
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
            <Figure of={of} name={name} className="text-2xl" />
          </dd>
        </div>
      ))}
      {plan.lines
        .filter((_, i) => lines.has(i))
        .map((line) => (
          <div key={line.name} className="flex flex-col-reverse">
            <dt className="text-sm text-quiet">
              cast for {line.quantity} {line.name.toLowerCase()}, {line.rounds}{" "}
              {line.rounds === 1 ? "round" : "rounds"}
            </dt>
            <dd>
              <Figure of={line.casts} name={`Castings of ${line.name}`} className="text-2xl" />
            </dd>
          </div>
        ))}
    </dl>
  );
}

function Cook({ cook, pot }: { cook: Schemas["CookReply"]; pot: Schemas["Vessel"] | undefined }) {
  const units = useUnits();
  const word = cook.melt === "isomalt" ? "Cook" : "Melt";
  return (
    <article className="flex gap-4" aria-label={`${word} ${cook.number + 1}`}>
      {pot && (
        <Vessel
          diameter={pot.diameter_m}
          height={pot.height_m}
          depth={cook.depth_m}
          scale={PX_PER_M}
          shares={parts(cook).map(({ name, of, kept }): Share => ({ name, kg: of.value.likely, kept }))}
          label={`${pot.name}, ${amount(cook.charge.value.likely, "mass", units)} in it, ${amount(cook.depth_m, "length", units)} deep`}
        />
      )}
      <div className="w-44">
        <h3 className="flex items-baseline justify-between text-lg">
          {word} {cook.number + 1}
          <Figure
            of={cook.charge}
            name={`In the vessel, ${word.toLowerCase()} ${cook.number + 1}`}
            className="text-xl"
          />
        </h3>
        <ul className="border-b border-line pb-1">
          {[...parts(cook)].reverse().map((share) => (
            <li key={share.name} className="flex justify-between">
              <span>
                <span
                  aria-hidden
                  className={`mr-2 inline-block h-3 w-3 border border-ink ${share.kept ? "bg-[repeating-linear-gradient(45deg,var(--glass),var(--glass)_2px,var(--melt)_2px,var(--melt)_4px)]" : "bg-[var(--melt)]"}`}
                />
                {share.name}
              </span>
              <Figure of={share.of} name={share.name} className="font-normal" />
            </li>
          ))}
        </ul>
        <ul className="mt-1 leading-relaxed">
          <li>
            weigh out <Figure of={cook.fresh} name="To weigh out" />
          </li>
          {cook.melt === "isomalt" ? <Boiled cook={cook} /> : <Melted cook={cook} />}
        </ul>
      </div>
    </article>
  );
}

function Boiled({ cook }: { cook: Schemas["CookReply"] }) {
  return (
    <>
      <li>
        {cook.wet ? (
          <>
            + <Figure of={cook.water} name="Water to add" /> water
          </>
        ) : (
          <>
            <Figure of={cook.water} name="Water to add" text="no water" />, a small cook
          </>
        )}
      </li>
      <li>
        {cook.nib_bursts ? `${cook.nib_bursts} bursts with looks,` : "on the ring"}{" "}
        <Figure of={cook.hob} name="Time on the heat" />
      </li>
      {cook.water_left && (
        <li>
          leaves <Figure of={cook.water_left} name="Water left in the melt" /> water
        </li>
      )}
    </>
  );
}

function Melted({ cook }: { cook: Schemas["CookReply"] }) {
  const units = useUnits();
  return (
    <>
      <li>
        melts in <Figure of={cook.hob} name="Time to melt, stirring with it" />
      </li>
      {cook.seed_kg > 0 && (
        <li>
          keep back <strong>{amount(cook.seed_kg, "mass", units)}</strong> as seed
        </li>
      )}
      {cook.bursts === null ? <li>over the bath, stirring</li> : <Bursts steps={cook.bursts} />}
      {cook.temper.slice(1).map((step, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: steps are known by their order
        <li key={i}>{stepWords(step, units)}</li>
      ))}
      <li>
        <Figure of={cook.water} name="Water" text="no drop of water" />
      </li>
    </>
  );
}

/** The bursts it is likely to need; where each is to bring it. */
function Bursts({ steps }: { steps: Schemas["Next"][] }) {
  const units = useUnits();
  const bursts = steps.filter((step) => step.act === "burst");
  return (
    <li>
      <span>{burstList(bursts.map((step) => step.seconds))}</span>
      <span className="block text-quiet">
        {bursts
          .map(
            ({ after }) =>
              `${Math.round(after.melted_frac.likely * 100)} % at ${amount(after.degc.likely, "temperature", units)}`,
          )
          .join(", ")}
      </span>
    </li>
  );
}

function parts(cook: Schemas["CookReply"]): { name: string; of: Explained; kept: boolean }[] {
  return [
    {
      name: cook.melt === "isomalt" ? "stays in the pot" : "stays in the bowl",
      of: cook.residue,
      kept: true,
    },
    { name: "reserve", of: cook.reserve, kept: true },
    { name: `${cook.casts} castings`, of: cook.poured, kept: false },
  ];
}
