import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import type { Summary } from "./queries";

/** What goes in or is pressed by hand over the whole order, and what it is mixed of. */
export function ByHand({ rows }: { rows: Summary["by_hand"] }) {
  const units = useUnits();
  if (rows.length === 0) return <p className="text-xl text-quiet">Nothing goes in or is pressed by hand.</p>;
  return (
    <ul aria-label="By hand" className="grid gap-x-10 border-t border-line sm:grid-cols-2">
      {rows.map((row) => (
        <li key={row.name} className="flex items-baseline justify-between gap-3 border-b border-line py-1.5">
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
  );
}
