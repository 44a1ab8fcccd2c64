import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from "@headlessui/react";
import { useState } from "react";
import { number, type Quantity, shownIn, toShown, toSi } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";

const LOOK = "border-b-2 border-ink bg-transparent leading-tight font-bold hover:bg-panel";

interface NumberProps {
  label: string;
  quantity: Quantity;
  value: number | null;
  step: number;
  onChange: (si: number) => void;
}

/** A number within a sentence, with its unit. */
export function NumberInline({ label, quantity, value, step, onChange }: NumberProps) {
  const shown = shownIn(quantity, useUnits());
  const [typed, setTyped] = useState<string | null>(null);
  const inShown = value === null ? null : toShown(value, shown);
  const text =
    typed ?? (inShown === null ? "" : String(Number(number(inShown, Math.max(shown.digits(inShown), 2)))));
  const take = (next: string) => {
    setTyped(next);
    const parsed = Number(next.replace(",", "."));
    if (next.trim() !== "" && Number.isFinite(parsed)) onChange(toSi(parsed, shown));
  };
  const nudge = (by: number) =>
    take(String(Number(number((Number(text.replace(",", ".")) || 0) + by * step, 3))));
  return (
    <label className={`inline-flex items-baseline ${LOOK}`}>
      <input
        aria-label={label}
        inputMode="decimal"
        className="bg-transparent px-1 text-right font-bold"
        style={{ width: `${Math.max(text.length, 2) + 1.2}ch` }}
        value={text}
        aria-invalid={typed !== null && !Number.isFinite(Number(typed.replace(",", "."))) ? true : undefined}
        onChange={(event) => take(event.target.value)}
        onBlur={() => setTyped(null)}
        onKeyDown={(event) => {
          const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
          if (by === undefined) return;
          event.preventDefault();
          nudge(by);
        }}
      />
      {shown.label && <span className="pr-1 font-normal text-quiet">{shown.label}</span>}
    </label>
  );
}

interface PickProps {
  label: string;
  value: string | null;
  options: { key: string; name: string }[];
  onChange: (key: string) => void;
}

/** One of several, within a sentence. */
export function PickInline({ label, value, options, onChange }: PickProps) {
  const chosen = options.find(({ key }) => key === value)?.name ?? "choose";
  return (
    <Listbox value={value} onChange={(key) => key !== null && onChange(key)}>
      <ListboxButton aria-label={`${label}: ${chosen}`} className={`px-1 ${LOOK}`}>
        {chosen}{" "}
        <span aria-hidden className="text-sm text-quiet">
          ▾
        </span>
      </ListboxButton>
      <ListboxOptions
        anchor="bottom start"
        className="z-40 max-h-80 w-72 overflow-auto border border-line bg-raised text-lg text-ink shadow-lg focus:outline-none"
      >
        {options.map(({ key, name }) => (
          <ListboxOption
            key={key}
            value={key}
            className="flex min-h-11 cursor-pointer items-center px-4 data-focus:bg-glass-soft data-selected:font-bold"
          >
            {name}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
