import type { Schemas } from "../../api/client";
import type { SendEvent } from "../../shared/events";
import { SPOTS, spotWords } from "../../shared/spots";
import type { Wording } from "../../shared/wording";

const RESCUE_S = 2;
const DISSOLVES: Record<Wording, "water" | "oil"> = { sugar: "water", fat: "oil" };

/** What hands do with the selected bag, bowl or jug, one tap each. */
export function HeldActions({
  of,
  send,
  onDecant,
}: {
  of: Schemas["Ribbon"];
  send: SendEvent;
  onDecant: () => void;
}) {
  const batch = of.subject.number;
  const acts: [string, () => void][] = [
    ...SPOTS.filter(([spot]) => spot !== of.place).map(([spot]): [string, () => void] => [
      spotWords(spot),
      () => send("moved", { batch, spot }),
    ]),
    [`microwave ${RESCUE_S} s`, () => send("heated", { batch, seconds: RESCUE_S })],
    ["divide it", onDecant],
    ["used up", () => send("poured", { batch })],
    ["back into its bowl", () => send("merged", { batch })],
    ["throw it away", () => send("discarded", { batch })],
  ];
  const kind = DISSOLVES[of.wording];
  return (
    <>
      <label className="flex min-h-16 items-center gap-3 rounded-sm border border-line px-4 text-lg">
        {kind}-based colour
        <input
          type="color"
          aria-label={`${of.name}: coloured`}
          value={of.colour ?? "#f1e7d0"}
          onChange={(event) => send("coloured", { batch, kind, colour: event.target.value })}
          className="h-10 w-12"
        />
      </label>
      {acts.map(([words, act]) => (
        <button
          key={words}
          type="button"
          onClick={act}
          aria-label={`${of.name}: ${words}`}
          className="min-h-16 rounded-sm border border-line px-4 text-lg hover:bg-raised"
        >
          {words}
        </button>
      ))}
    </>
  );
}
