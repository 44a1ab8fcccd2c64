import type { Problem } from "../../api/client";
import { useUnits } from "../format/useUnits";
import { wordProblem } from "../format/words";
import type { SaveState } from "../useThing";
import { Button, Notice } from "./controls";

const WORDS: Record<SaveState, string> = {
  saved: "saved",
  waiting: "saving",
  saving: "saving",
  refused: "not saved",
  conflict: "not saved",
};

/** How the editor's changes stand, and what to do when they could not be stored. */
export function SaveMark({
  thing,
}: {
  thing: { state: SaveState; problem: Problem | null; keepMine: () => void; takeTheirs: () => void };
}) {
  const units = useUnits();
  return (
    <div className="min-h-6">
      <span role="status" className={`text-sm ${thing.problem ? "font-bold text-heat" : "text-quiet"}`}>
        {WORDS[thing.state]}
      </span>
      {thing.problem && (
        <Notice tone="hot">
          {wordProblem(thing.problem, units)}
          {thing.state === "conflict" && (
            <span className="mt-2 flex gap-4">
              <Button kind="quiet" onClick={thing.keepMine}>
                Keep mine
              </Button>
              <Button kind="quiet" onClick={thing.takeTheirs}>
                Take the other
              </Button>
            </span>
          )}
        </Notice>
      )}
    </div>
  );
}
