import type { Schemas } from "../../api/client";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";

/** What a bare wall keeps of a shell that is tipped out, and what helps where that is too little. */
export function Keeps({
  keeps,
  wanted,
  onSecond,
}: {
  keeps: Schemas["TooThin"];
  wanted: number;
  onSecond: () => void;
}) {
  const units = useUnits();
  const thin = keeps.coats > 1;
  return (
    <div className={`border-l-4 pl-3 ${thin ? "border-heat" : "border-glass"}`}>
      <p>
        A bare wall keeps <strong>{range(keeps.keeps, "m", units)}</strong> of this melt when it is tipped
        out.
        {thin
          ? ` For ${amount(wanted, "length", units)} it takes ${keeps.coats} coats; or let it cool and thicken first, or leave it longer before it is tipped, so that a skin sets.`
          : " One coat is enough."}
      </p>
      {thin && (
        <button
          type="button"
          className="mt-1 font-bold text-glass underline-offset-4 hover:underline"
          onClick={onSecond}
        >
          Spread it by spoon or brush instead
        </button>
      )}
    </div>
  );
}
