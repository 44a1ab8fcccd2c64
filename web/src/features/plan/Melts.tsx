import type { Explained, Schemas } from "../../api/client";
import { type Share, Vessel } from "../../drawings/Vessel";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Figure } from "../../shared/ui/Figure";
import type { Order, Plan } from "./queries";

const PX_PER_M = 500;

/** What to melt: each cook as its pot, to scale, with its shares. */
export function Melts({ plan, order, kitchen }: { plan: Plan; order: Order; kitchen: Schemas["Kitchen"] }) {
  const units = useUnits();
  const pot = kitchen.vessels.find((v) => v.id === order.vessel_id);
  return (
    <section aria-label="What to melt">
      <h2 className="border-b border-line pb-1 text-xl">What to melt</h2>
      <dl className="flex flex-wrap gap-x-10 gap-y-2 py-3">
        {(
          [
            ["poured", plan.poured],
            ["scraped off", plan.scraped],
            ["left in the pot", plan.left],
            ["finished", plan.finished],
          ] as const
        ).map(([name, of]) => (
          <div key={name} className="flex flex-col-reverse">
            <dt className="text-sm text-quiet">{name}</dt>
            <dd>
              <Figure of={of} name={name} className="text-2xl" />
            </dd>
          </div>
        ))}
        {plan.lines.map((line) => (
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
      <div className="flex flex-wrap gap-x-6 gap-y-6">
        {plan.cooks.map((cook) => (
          <article key={cook.number} className="flex gap-4" aria-label={`Cook ${cook.number + 1}`}>
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
                Cook {cook.number + 1}
                <Figure of={cook.charge} name={`In the pot, cook ${cook.number + 1}`} className="text-xl" />
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
                  weigh out <Figure of={cook.fresh} name="Isomalt to weigh out" />
                </li>
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
                  on the ring <Figure of={cook.hob} name="Time on the ring" />
                </li>
                <li>
                  leaves <Figure of={cook.water_left} name="Water left in the melt" /> water
                </li>
              </ul>
            </div>
          </article>
        ))}
      </div>
    </section>
  );
}

function parts(cook: Schemas["CookReply"]): { name: string; of: Explained; kept: boolean }[] {
  return [
    { name: "stays in the pot", of: cook.residue, kept: true },
    { name: "reserve", of: cook.reserve, kept: true },
    { name: `${cook.casts} castings`, of: cook.poured, kept: false },
  ];
}
