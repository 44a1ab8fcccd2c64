import type { What } from "../../shared/acts";
import type { SendEvent } from "../../shared/events";

const SMEAR: ["well" | "under" | "over", string][] = [
  ["well", "set, with gloss"],
  ["under", "still soft, or dull"],
  ["over", "set, but thick and dull"],
];

/** What the smear says; and the way out of the guide, with its price. */
export function InTemper({
  what,
  cook,
  isOpen,
  send,
}: {
  what: What<"temper">;
  cook: number;
  isOpen: boolean;
  send: SendEvent;
}) {
  const looks = what.step === "look";
  return (
    <div className="mt-4 flex flex-wrap gap-2">
      {looks &&
        isOpen &&
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
      {!looks && what.step !== "test" && (
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
