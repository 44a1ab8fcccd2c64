import { useId, useState } from "react";
import { number, type Quantity, shownIn, toShown, toSi } from "../format/units";
import { useUnits } from "../format/useUnits";

interface Props {
  label: string;
  value: number | null;
  quantity: Quantity;
  onChange: (si: number) => void;
  /** Called when the field is emptied; without it an empty field is refused. */
  onClear?: () => void;
  hint?: string | undefined;
  error?: string | undefined;
  /** Step of the arrow keys, in the shown unit. */
  step?: number;
  digits?: number;
  slider?: { low: number; high: number };
  large?: boolean;
}

/** A number with its unit: typed, stepped by arrow keys or slid; every change is passed on at once, in SI. */
export function NumberField({
  label,
  value,
  quantity,
  onChange,
  onClear,
  hint,
  error,
  step,
  digits,
  slider,
  large,
}: Props) {
  const id = useId();
  const shown = shownIn(quantity, useUnits());
  const [typed, setTyped] = useState<string | null>(null);
  const inShown = value === null ? null : toShown(value, shown);
  const places = digits ?? (inShown === null ? 1 : Math.max(shown.digits(inShown), 0));
  const text = typed ?? (inShown === null ? "" : String(Number(number(inShown, Math.max(places, 2)))));
  const parsed = Number(text.replace(",", "."));
  const wrong = typed !== null && (text.trim() === "" ? !onClear : !Number.isFinite(parsed));
  const message = wrong ? (text.trim() === "" ? "Type a number." : `"${text}" is not a number.`) : error;

  const accept = (next: string) => {
    setTyped(next);
    const result = Number(next.replace(",", "."));
    if (next.trim() === "") onClear?.();
    else if (Number.isFinite(result)) onChange(toSi(result, shown));
  };
  const nudge = (by: number) => {
    const jump = step ?? 10 ** -Math.min(places, 1);
    const next = Number(number((inShown === null ? 0 : inShown) + by * jump, 4));
    setTyped(null);
    onChange(toSi(next, shown));
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-sm text-quiet">
        {label}
      </label>
      <div className="flex items-center gap-3">
        <div
          className={`flex items-baseline gap-1.5 border-b-2 ${message ? "border-heat" : "border-ink"} ${slider ? "w-32 shrink-0" : "w-full max-w-40"}`}
        >
          <input
            id={id}
            inputMode="decimal"
            autoComplete="off"
            className={`w-full min-w-0 bg-transparent py-1 font-bold text-ink outline-offset-0 ${large ? "text-2xl" : "text-lg"}`}
            value={text}
            aria-invalid={message ? true : undefined}
            aria-describedby={message || hint ? `${id}-more` : undefined}
            onChange={(event) => accept(event.target.value)}
            onBlur={() => setTyped(null)}
            onKeyDown={(event) => {
              if (event.key === "ArrowUp") nudge(1);
              else if (event.key === "ArrowDown") nudge(-1);
              else return;
              event.preventDefault();
            }}
          />
          <span className="shrink-0 text-quiet">{shown.label}</span>
        </div>
        {slider && (
          <input
            type="range"
            aria-label={`${label}, slider`}
            className="h-6 w-full min-w-16"
            min={slider.low}
            max={slider.high}
            step={(slider.high - slider.low) / 200}
            value={value ?? slider.low}
            onChange={(event) => {
              setTyped(null);
              onChange(Number(event.target.value));
            }}
          />
        )}
      </div>
      {(message || hint) && (
        <p
          id={`${id}-more`}
          className={`mt-1 text-sm ${message ? "font-semibold text-heat" : "text-quiet"}`}
          role={message ? "alert" : undefined}
        >
          {message ?? hint}
        </p>
      )}
    </div>
  );
}
