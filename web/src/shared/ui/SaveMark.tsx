import { useEffect } from "react";
import { useUnits } from "../format/useUnits";
import { fieldName, fieldValue, wordProblem } from "../format/words";
import type { Difference, SaveState } from "../saving";
import type { Thing } from "../useThing";
import { Button, Notice } from "./plain";

const WORDS: Record<SaveState, string> = {
  saved: "saved",
  waiting: "saving",
  saving: "saving",
  unsent: "not saved yet",
  refused: "not saved",
  conflict: "not saved",
};

const SHOWN = 5;

/** How the editor's changes stand, and what to do when they could not be stored. */
export function SaveMark({ thing: { state, problem, steps, saving } }: { thing: Thing }) {
  const units = useUnits();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      // a field that is typed into takes its own letters back
      const typing = event.target instanceof Element && event.target.closest("input, textarea");
      if (typing || event.key.toLowerCase() !== "z" || !(event.ctrlKey || event.metaKey) || event.shiftKey)
        return;
      event.preventDefault();
      saving.undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [saving]);
  return (
    <div className="min-h-6">
      <span role="status" className={`text-sm ${problem ? "font-bold text-heat" : "text-quiet"}`}>
        {WORDS[state]}
      </span>
      {steps > 0 && (
        <button
          type="button"
          title="Take the last change back (Ctrl+Z)"
          className="ml-4 font-bold text-glass underline-offset-4 hover:underline"
          onClick={() => saving.undo()}
        >
          undo
        </button>
      )}
      {problem && (
        <Notice tone="hot">
          {state === "unsent"
            ? "What you typed is kept in this browser, and goes out by itself when the app answers again."
            : wordProblem(problem, units)}
          {state === "conflict" && <Undone fields={saving.undone()} />}
          {state !== "unsent" && state !== "saving" && (
            <span className="mt-2 flex gap-4">
              {state === "conflict" && (
                <Button kind="quiet" onClick={() => saving.keepMine()}>
                  Keep mine
                </Button>
              )}
              <Button kind="quiet" onClick={() => saving.takeTheirs()}>
                {state === "conflict" ? "Take the other" : "Back to what is saved"}
              </Button>
            </span>
          )}
        </Notice>
      )}
    </div>
  );
}

/** What keeping mine would undo of the other's. */
function Undone({ fields }: { fields: Difference[] }) {
  const units = useUnits();
  if (fields.length === 0) return " Keeping yours undoes nothing of the other's.";
  return (
    <span className="mt-1 block">
      Keeping yours undoes{" "}
      {fields.slice(0, SHOWN).map(({ path, theirs, mine }, i) => (
        <span key={path}>
          {i > 0 && "; "}
          <strong>{fieldName(path)}</strong>: {fieldValue(theirs, path, units)} (yours:{" "}
          {fieldValue(mine, path, units)})
        </span>
      ))}
      {fields.length > SHOWN && ` and ${fields.length - SHOWN} more`}.
    </span>
  );
}
