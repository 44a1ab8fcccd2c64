import type { Schemas } from "../../api/client";
import type { SendEvent } from "../../shared/events";
import { subjectOf } from "../../shared/subject";

const SMEAR: ["well" | "under" | "over", string][] = [
  ["well", "set, with gloss"],
  ["under", "still soft, or dull"],
  ["over", "set, but thick and dull"],
];

/** What the smear says; and the way out of the guide, with its price. */
export function InTemper({
  act,
  elapsed,
  send,
}: {
  act: Schemas["ActView"];
  elapsed: number;
  send: SendEvent;
}) {
  const cook = subjectOf(act.subject).number;
  const looks = act.params.step === "look";
  return (
    <div className="mt-4 flex flex-wrap gap-2">
      {looks &&
        elapsed >= act.opens_s &&
        SMEAR.map(([test, words]) => (
          <button
            key={test}
            type="button"
            onClick={() => send("tempered", { cook, test })}
            className="min-h-16 rounded-sm bg-raised px-4 text-xl font-bold hover:bg-glass hover:text-on-glass"
          >
            {words}
          </button>
        ))}
      {!looks && act.params.step !== "test" && (
        <button
          type="button"
          onClick={() => send("tempered", { cook, smear: true })}
          className="min-h-16 px-2 text-xl font-bold text-glass"
        >
          lay a smear now
        </button>
      )}
    </div>
  );
}
