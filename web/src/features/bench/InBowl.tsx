import type { Schemas } from "../../api/client";
import type { SendEvent } from "../../shared/events";
import { BOWL_SIGHTS } from "../../shared/sights";
import { subjectOf } from "../../shared/subject";

/** Between bursts: what is seen in the stirred bowl changes the next one. */
export function InBowl({
  act,
  sights,
  elapsed,
  send,
}: {
  act: Schemas["ActView"];
  sights: Schemas["Sight"][];
  elapsed: number;
  send: SendEvent;
}) {
  const cook = subjectOf(act.subject).number;
  const until = Number(act.params.on_until_s ?? 0);
  if (elapsed < until) return <p className="mt-2 text-xl text-quiet">The oven is on.</p>;
  const seen = sights.filter((sight) => sight.at_s >= until).at(-1)?.what;
  return (
    <div className="mt-4">
      <fieldset className="flex flex-wrap gap-2" aria-label="What is seen in the bowl">
        {BOWL_SIGHTS.map(([what, words]) => (
          <button
            key={what}
            type="button"
            aria-pressed={seen === what}
            onClick={() => send("seen", { cook, what })}
            className={`min-h-16 rounded-sm px-4 text-xl font-bold ${seen === what ? "bg-glass text-on-glass" : "bg-raised hover:bg-line"}`}
          >
            {words}
          </button>
        ))}
      </fieldset>
      {act.kind !== "off" && (
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
