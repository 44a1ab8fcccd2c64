import type { Schemas } from "../../api/client";
import type { What } from "../../shared/acts";
import type { SendEvent } from "../../shared/events";
import { BOWL_SIGHTS } from "../../shared/sights";

/** Between bursts: what is seen in the stirred bowl changes the next one. */
export function InBowl({
  cook,
  what,
  sights,
  elapsed,
  send,
}: {
  cook: number;
  what: What<"burst" | "stir" | "out">;
  sights: Schemas["Sight"][];
  elapsed: number;
  send: SendEvent;
}) {
  const until = what.bowl.on_until_s;
  if (until !== null && elapsed < until) return <p className="mt-2 text-xl text-quiet">The oven is on.</p>;
  const seen = sights.filter((sight) => until === null || sight.at_s >= until).at(-1)?.what;
  return (
    <div className="mt-4">
      <fieldset className="flex flex-wrap gap-2" aria-label="What is seen in the bowl">
        {BOWL_SIGHTS.map(([sight, words]) => (
          <button
            key={sight}
            type="button"
            aria-pressed={seen === sight}
            onClick={() => send("seen", { cook, what: sight })}
            className={`min-h-16 rounded-sm px-4 text-xl font-bold ${seen === sight ? "bg-glass text-on-glass" : "bg-raised hover:bg-line"}`}
          >
            {words}
          </button>
        ))}
      </fieldset>
      {what.kind !== "out" && (
        <button
          type="button"
          onClick={() => send("rested", { cook })}
          className="mt-2 min-h-16 px-2 text-xl font-bold text-glass"
        >
          it is done: take it out now
        </button>
      )}
    </div>
  );
}
