import type { Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { doseWords, FAR_OFF } from "../../shared/melts";

const INSTEAD: Record<Schemas["MeltDose"]["wording"], string> = {
  sugar: "This sugar is brown by itself and not coloured: take isomalt for it.",
  fat: "This material is not coloured: take a coating or white couverture for it.",
};

/** What colours a melt: grams and drops of each, how it will look beside what was wanted, and how near that is. */
export function Doses({ dose }: { dose: Schemas["MeltDose"] }) {
  const units = useUnits();
  if (dose.why)
    return (
      <p className="mt-1 border-l-4 border-heat pl-2">
        {dose.why === "no_base"
          ? INSTEAD[dose.wording]
          : "No colour of the right kind is at hand: add one under Colour."}
      </p>
    );
  return (
    <div className="mt-1 flex gap-3">
      <span aria-hidden className="mt-1 flex h-8 w-12 shrink-0 border border-ink">
        <span className="flex-1" style={{ background: dose.wanted }} title="wanted" />
        <span className="flex-1" style={{ background: dose.look }} title="reached" />
      </span>
      <p className="leading-snug">
        {dose.base && <span className="block text-sm text-quiet">from {dose.base.toLowerCase()}</span>}
        {dose.doses.length === 0 ? "no colour needed" : dose.doses.map((d) => doseWords(d, units)).join(", ")}
        <span className="block text-sm text-quiet">
          {dose.delta_e < FAR_OFF
            ? "as wanted"
            : `the nearest these reach: ${dose.delta_e.toFixed(0)} off${dose.held_by ? `, held by ${dose.held_by}` : ""}`}
        </span>
      </p>
    </div>
  );
}
