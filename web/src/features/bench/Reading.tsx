import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Dialog } from "../../shared/ui/controls";
import { Button } from "../../shared/ui/plain";

export const METHODS = ["immersed_swirled", "immersed_unswirled", "infrared"] as const;
export type Method = (typeof METHODS)[number];

export const METHOD_WORDS: Record<Method, string> = {
  immersed_swirled: "probe, swirled",
  immersed_unswirled: "probe, not swirled",
  infrared: "infrared, surface",
};

/** How a reading was taken; the app reads an unswirled one with its offset and says so. */
export function MethodChoice({
  value,
  onChange,
  pot,
}: {
  value: Method;
  onChange: (m: Method) => void;
  pot: boolean;
}) {
  const options = pot ? METHODS : METHODS.filter((m) => m !== "immersed_unswirled");
  return (
    <div role="radiogroup" aria-label="How it was taken" className="flex flex-wrap gap-2">
      {options.map((method) => (
        // biome-ignore lint/a11y/useSemanticElements: large touch targets
        <button
          key={method}
          type="button"
          role="radio"
          aria-checked={value === method}
          onClick={() => onChange(method)}
          className={`min-h-16 rounded-sm border-2 px-4 text-lg ${value === method ? "border-glass bg-glass font-bold text-on-glass" : "border-line"}`}
        >
          {METHOD_WORDS[method]}
        </button>
      ))}
    </div>
  );
}

const PAD = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0", "⌫"];

/** A keypad for gloves. */
export function ReadingDialog({
  open,
  onClose,
  subject,
  method,
  onMethod,
  onSend,
  unit,
}: {
  open: boolean;
  onClose: () => void;
  subject: Schemas["Ribbon"] | undefined;
  method: Method;
  onMethod: (m: Method) => void;
  onSend: (typed: string) => void;
  unit: string;
}) {
  const [typed, setTyped] = useState("");
  const press = (key: string) =>
    setTyped(key === "⌫" ? typed.slice(0, -1) : typed.length < 5 ? typed + key : typed);
  const send = () => {
    if (typed) onSend(typed);
    setTyped("");
    onClose();
  };
  return (
    <Dialog open={open} onClose={onClose} title={subject ? `Reading: ${subject.name}` : "Reading"} bench>
      <div className="flex flex-wrap gap-8">
        <div>
          <output className="mb-3 block h-16 border-b-4 border-glass text-right text-5xl font-bold">
            {typed || "–"} {unit}
          </output>
          <div className="grid grid-cols-3 gap-2">
            {PAD.map((key) => (
              <button
                key={key}
                type="button"
                aria-label={key === "⌫" ? "rub out" : key}
                onClick={() => press(key)}
                className="h-16 w-20 rounded-sm bg-raised text-3xl font-bold"
              >
                {key}
              </button>
            ))}
          </div>
        </div>
        <div className="flex max-w-72 flex-col gap-4">
          <MethodChoice
            value={method}
            onChange={onMethod}
            pot={subject === undefined || subject.subject.of === "pot"}
          />
          {method !== "immersed_swirled" && (
            <p className="text-lg">
              {method === "infrared"
                ? "An unswirled surface runs cold: the app adds what it reckons, widely. Swirl and use the probe to be sure."
                : "Not swirled, the middle runs warm. Swirl first to be sure."}
            </p>
          )}
          <div className="mt-auto flex items-center gap-6">
            <button
              type="button"
              onClick={send}
              className="min-h-16 rounded-sm bg-glass px-8 text-2xl font-bold text-on-glass"
            >
              Enter
            </button>
            <Button kind="quiet" onClick={onClose}>
              Leave it
            </Button>
          </div>
        </div>
      </div>
    </Dialog>
  );
}
