import { useState } from "react";
import type { Payload, SendEvent } from "./events";

type Mending = Payload<"mended">["how"];
type Flaw = NonNullable<Payload<"outcome">["kinds"]>[number];

const FLAWS: [Flaw, ...Flaw[]] = [
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

const MENDINGS: Mending[] = ["same melt", "torch", "warmed face"];
const isMending = (of: Flaw | Mending): of is Mending => MENDINGS.some((how) => how === of);

interface Props {
  round: number;
  casts: number;
  outcomes: Record<string, boolean>;
  flaws?: Record<string, string[]> | undefined;
  send: SendEvent;
}

/** What came of each cavity, in taps: choose a flaw once, tap the cavities that have it; a second tap takes it back. What failed can be
 * mended: choose with what, tap it. */
export function Outcomes({ round, casts, outcomes, flaws, send }: Props) {
  const [chosen, setChosen] = useState<Flaw | Mending>("broken");
  const failed = Object.values(outcomes).includes(false);
  // with nothing left to mend, a tap records a flaw again
  const flaw = !failed && isMending(chosen) ? FLAWS[0] : chosen;
  const tap = (cavity: number) => {
    if (outcomes[cavity] === false && isMending(flaw))
      return send("mended", { round, cavities: [cavity], how: flaw });
    if (isMending(flaw)) return;
    const usable = outcomes[cavity] === false;
    send("outcome", { round, cavities: [cavity], usable, kinds: usable ? [] : [flaw] });
  };
  const chip = (of: Flaw | Mending) => (
    <button
      key={of}
      type="button"
      aria-pressed={flaw === of}
      onClick={() => setChosen(of)}
      className={`min-h-11 rounded-sm border px-3 ${flaw === of ? "border-glass bg-glass font-bold text-on-glass" : "border-line"}`}
    >
      {of}
    </button>
  );
  return (
    <div>
      <fieldset className="mb-3 flex flex-wrap gap-2">
        <legend className="sr-only">Flaw to record</legend>
        {FLAWS.map(chip)}
      </fieldset>
      {failed && (
        <fieldset className="mb-3 flex flex-wrap items-center gap-2">
          <legend className="float-left mr-2 text-quiet">Mended with</legend>
          {MENDINGS.map(chip)}
        </fieldset>
      )}
      <div className="flex flex-wrap gap-2">
        {Array.from({ length: casts }, (_, cavity) => {
          const usable = outcomes[cavity];
          const kinds = flaws?.[cavity] ?? [];
          const word =
            usable === undefined
              ? "to see"
              : usable
                ? kinds.includes("mended")
                  ? "mended"
                  : "good"
                : (kinds[0] ?? "failed");
          return (
            <button
              // biome-ignore lint/suspicious/noArrayIndexKey: a cavity is its place in the mould
              key={cavity}
              type="button"
              onClick={() => tap(cavity)}
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
