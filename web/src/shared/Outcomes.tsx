import { useState } from "react";
import type { Payload, SendEvent } from "./events";

type Flaw = NonNullable<Payload<"outcome">["kinds"]>[number];

const FLAWS: Flaw[] = [
  "broken",
  "stuck",
  "bloomed",
  "dull",
  "bubbled",
  "thin",
  "not filled",
  "crinkled",
  "sticky",
  "cloudy",
  "off-colour",
];

interface Props {
  round: number;
  casts: number;
  outcomes: Record<string, boolean>;
  flaws?: Record<string, string[]> | undefined;
  send: SendEvent;
}

/** What came of each cavity, in taps: choose a flaw once, tap the cavities that have it; a second tap makes it good. */
export function Outcomes({ round, casts, outcomes, flaws, send }: Props) {
  const [flaw, setFlaw] = useState<Flaw>("broken");
  return (
    <div>
      <fieldset className="mb-3 flex flex-wrap gap-2">
        <legend className="sr-only">Flaw to record</legend>
        {FLAWS.map((kind) => (
          <button
            key={kind}
            type="button"
            aria-pressed={flaw === kind}
            onClick={() => setFlaw(kind)}
            className={`min-h-11 rounded-sm border px-3 ${flaw === kind ? "border-glass bg-glass font-bold text-on-glass" : "border-line"}`}
          >
            {kind}
          </button>
        ))}
      </fieldset>
      <div className="flex flex-wrap gap-2">
        {Array.from({ length: casts }, (_, cavity) => {
          const usable = outcomes[cavity];
          const kinds = flaws?.[cavity] ?? [];
          const word = usable === undefined ? "to see" : usable ? "good" : (kinds[0] ?? "failed");
          return (
            <button
              // biome-ignore lint/suspicious/noArrayIndexKey: a cavity is its place in the mould
              key={cavity}
              type="button"
              onClick={() =>
                send("outcome", {
                  round,
                  cavities: [cavity],
                  usable: usable === false,
                  kinds: usable === false ? [] : [flaw],
                })
              }
              className={`flex h-16 w-[4.6rem] flex-col items-center justify-center rounded-full border-2 text-lg font-bold ${
                usable === undefined
                  ? "border-dashed border-quiet"
                  : usable
                    ? "border-glass bg-glass-soft"
                    : "border-heat line-through decoration-2"
              }`}
            >
              <span>
                <span className="sr-only">Cavity </span>
                {cavity + 1}
              </span>{" "}
              <span className="text-xs font-normal no-underline">{word}</span>
            </button>
          );
        })}
      </div>
    </div>
  );
}

/** Mark every cavity without an outcome as good. */
export function restAreGood(
  round: number,
  casts: number,
  outcomes: Record<string, boolean>,
  send: SendEvent,
): void {
  const cavities = Array.from({ length: casts }, (_, i) => i).filter((i) => outcomes[i] === undefined);
  if (cavities.length > 0) send("outcome", { round, cavities, usable: true, kinds: [] });
}
