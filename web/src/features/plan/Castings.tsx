import type { Schemas } from "../../api/client";
import { wholeName } from "../../shared/named";
import { Figure } from "../../shared/ui/Figure";
import type { Summary } from "./queries";

/** What keeps a round from more castings. */
const LIMITS: Record<Schemas["Castings"]["limited_by"], string> = {
  mould: "what the mould holds",
  vessel: "what the vessel holds",
  window: "what the pour window takes",
  hands: "what one person works while it is soft",
};

/** How many of each part are cast, spares with them, in how many rounds of its mould. */
export function Castings({ of }: { of: Summary["castings"] }) {
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
