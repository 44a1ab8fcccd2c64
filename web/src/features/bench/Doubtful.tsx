import type { Schemas } from "../../api/client";
import type { SendEvent } from "../../shared/events";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";

/** The last reading where it is left out: it is kept, and a hand may take it in. */
export function Doubtful({ of, send }: { of: Schemas["Ribbon"]; send: SendEvent }) {
  const units = useUnits();
  const last = of.dots.at(-1);
  if (!last?.odd) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-4 gap-y-2 px-6 py-2 text-xl" role="status">
      <span>
        <strong className="text-heat">{of.name}:</strong> {amount(last.degc, "temperature", units)} is far
        from what it can be; it is kept and left out. Read again: a second one like it is believed.
      </span>
      <button
        type="button"
        className="rounded-sm border-2 border-line px-4 py-2 font-bold"
        onClick={() => send("judged", { reading: last.id, use: true })}
      >
        It is right, take it in
      </button>
    </p>
  );
}
