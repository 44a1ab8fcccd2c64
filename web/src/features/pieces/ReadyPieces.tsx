import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { readyQuery } from "./queries";

/** Plain pieces with their moulds, as they are sold: one press takes one over, its sizes are changed afterwards. */
export function ReadyPieces({ onTake }: { onTake: (shape: Schemas["Ready"]["key"]) => void }) {
  const units = useUnits();
  const items = useQuery(readyQuery).data ?? [];
  return (
    <section aria-label="Ready pieces" className="mt-8">
      <h2 className="text-xl">Or take one over with its mould, and change its sizes</h2>
      <ul className="mt-2 flex flex-wrap gap-x-8">
        {items.map((of) => (
          <li key={of.key}>
            <button
              type="button"
              className="-mx-2 min-h-14 px-2 py-1 text-left hover:bg-raised"
              onClick={() => onTake(of.key)}
            >
              <strong className="block text-lg leading-tight text-glass">{of.name}</strong>
              <span className="text-quiet">
                {amount(of.across_m, "length", units)}, {of.cavities} at once
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
