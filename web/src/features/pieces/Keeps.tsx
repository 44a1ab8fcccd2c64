import type { Schemas } from "../../api/client";
import { amount, duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { NumberField } from "../../shared/ui/NumberField";
import type { Of, Pass } from "./passes";

/** What a wall keeps of a shell that is tipped out, and what helps where that is too little. */
export function Keeps({
  keeps,
  pass,
  onChange,
}: {
  keeps: Schemas["TooThin"];
  pass: Of<"shell">;
  onChange: (patch: Partial<Pass>) => void;
}) {
  const units = useUnits();
  const thin = keeps.coats > 1;
  const stands = keeps.stands_s;
  const cold = keeps.stands_cold_s;
  return (
    <>
      <NumberField
        label="Stands full before it is tipped"
        quantity="seconds"
        value={pass.dwell_s}
        onChange={(dwell_s) => onChange({ dwell_s })}
        step={5}
      />
      <div className={`border-l-4 pl-3 ${thin ? "border-heat" : "border-glass"}`}>
        <p>
          The wall keeps <strong>{range(keeps.keeps, "m", units)}</strong>: a film that drains to{" "}
          {amount(keeps.film.likely, "length", units)}, and{" "}
          {keeps.skin.likely < 1e-5
            ? "no skin yet"
            : `a skin of ${amount(keeps.skin.likely, "length", units)}`}{" "}
          under it.
          {thin
            ? ` For ${amount(pass.thick_m, "length", units)} it takes ${keeps.coats} coats.`
            : " One coat is enough."}
        </p>
        {thin && (
          <ul className="mt-2 space-y-1">
            {[
              { words: "Standing full", s: stands },
              { words: "In a cold mould", s: cold },
            ].map(
              ({ words, s }) =>
                s !== null &&
                s !== undefined && (
                  <li key={words}>
                    <button
                      type="button"
                      className="font-bold text-glass underline-offset-4 hover:underline"
                      onClick={() => onChange({ dwell_s: Math.round(s) })}
                    >
                      {words} for {duration(s)}
                    </button>{" "}
                    one is enough.
                  </li>
                ),
            )}
            <li>
              <button
                type="button"
                className="font-bold text-glass underline-offset-4 hover:underline"
                onClick={() => onChange({ emptied: false })}
              >
                Spread it by spoon or brush
              </button>{" "}
              instead, or add a second coat. A cooler, thicker melt keeps more too.
            </li>
          </ul>
        )}
      </div>
    </>
  );
}
