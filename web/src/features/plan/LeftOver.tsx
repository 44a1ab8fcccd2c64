import type { Schemas } from "../../api/client";
import { weighed } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { timeOfDay } from "../../shared/format/zone";
import type { Asked } from "./queries";

type Taker = Schemas["MeltPart"]["takers"][number];

interface Props {
  takers: Taker[];
  asked: Asked;
  zone: string;
  /** What a melt is called, by its key. */
  nameOf: (melt: string) => string;
}

/** Where what is left of a melt may go. */
export function LeftOver({ takers, asked, zone, nameOf }: Props) {
  const units = useUnits();
  const zero = new Date(asked.planned_at).getTime();
  const at = ({ at_s }: Taker) => timeOfDay(new Date(zero + at_s * 1000), zone);
  const words = (taker: Taker): string => {
    switch (taker.into) {
      case "melt":
        return `into ${nameOf(taker.melt)}, which is darker, at ${at(taker)}: weigh so much less of its ${weighed(taker.kg, units)}`;
      case "backs":
        return `into ${taker.casts === 1 ? "the back" : `${taker.casts} backs`} of ${taker.named.piece} at ${at(taker)}, ${weighed(taker.kg, units)}, then of this colour`;
    }
  };
  return (
    <p className="mt-1 text-quiet">
      {takers.length > 0
        ? `What is left may go ${takers.map(words).join("; or ")}. Else keep it, covered and dry.`
        : "What is left goes into nothing else here: keep it, covered and dry."}
    </p>
  );
}
