import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import type { Summary } from "./queries";

/** What goes in or is pressed by hand over the whole order, and what it is mixed of. */
export function ByHand({ rows, pastes }: { rows: Summary["by_hand"]; pastes: Summary["pastes"] }) {
  const units = useUnits();
  const kg = (of: number) => (of < LEAST_KG ? "a dab" : amount(of, "mass", units));
  if (rows.length === 0) return <p className="text-xl text-quiet">Nothing goes in or is pressed by hand.</p>;
  return (
    <>
      {pastes.length > 0 && (
        <ul aria-label="Pastes to have ready" className="mb-5 flex flex-wrap gap-x-12 gap-y-3">
          {pastes.map((paste) => (
            <li key={paste.name}>
              <strong className="block text-3xl">{kg(paste.kg)}</strong>
              <span className="text-quiet">
                {[paste.name.toLowerCase(), ...paste.of.map((part) => `${kg(part.kg)} ${part.name}`)].join(
                  ", ",
                )}
              </span>
            </li>
          ))}
        </ul>
      )}
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
                  {row.of.map((part) => `${kg(part.kg)} ${part.name}`).join(", ")}
                </span>
              )}
            </span>
            <strong className="whitespace-nowrap">{kg(row.kg)}</strong>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Of less there is only a dab. */
const LEAST_KG = 0.0001;
