import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { burstList } from "../../shared/bowlWords";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { stepWords } from "../../shared/temperSteps";
import { Figure } from "../../shared/ui/Figure";
import type { Wording } from "../../shared/wording";

/** Less than a scale shows. */
const LEAST_WEIGHED_KG = 0.00005;

interface HowProps {
  cook: Schemas["CookRow"];
  alone: boolean;
}

/** One melt made: what is weighed out, and how it is heated. */
export function Cook({ cook, alone, wording }: HowProps & { wording: Wording }) {
  const units = useUnits();
  const { cook: word, How } = MADE[wording];
  if (cook.portion_degc !== null)
    return (
      <li aria-label={`${word} ${cook.number + 1}`} className="leading-snug">
        {!alone && <strong>{`${word} ${cook.number + 1}, `}</strong>}
        <Figure of={cook.charge} name="Divided off" /> off the pot of all colours, about{" "}
        {amount(cook.portion_degc, "temperature", units)} in its own vessel; coloured there, warmed again
        before a pour
      </li>
    );
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

/** What a melt is made in, what making it is called, and how it is said. */
export const MADE: Record<
  Wording,
  { vessel: "pot" | "bowl"; cook: string; How: (of: HowProps) => ReactNode }
> = {
  sugar: { vessel: "pot", cook: "Cook", How: Boiled },
  fat: { vessel: "bowl", cook: "Melt", How: Melted },
};

/** What making a melt is called within a sentence. */
export const cookWord = (wording: Wording) => MADE[wording].cook.toLowerCase();
