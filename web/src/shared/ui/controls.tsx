import {
  DialogPanel,
  DialogTitle,
  Dialog as HDialog,
  Listbox,
  ListboxButton,
  ListboxOption,
  ListboxOptions,
  Radio,
  RadioGroup,
} from "@headlessui/react";
import type { ReactNode } from "react";

export interface Option<K extends string> {
  key: K;
  name: string;
  note?: string;
}

/** One of a few, side by side. */
export function Choice<K extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: K;
  options: Option<K>[];
  onChange: (key: K) => void;
}) {
  return (
    <RadioGroup value={value} onChange={onChange} aria-label={label}>
      <div className="mb-1 text-sm text-quiet">{label}</div>
      <div className="flex flex-wrap gap-1">
        {options.map((option) => (
          <Radio
            key={option.key}
            value={option.key}
            className="cursor-pointer rounded-sm border border-line bg-panel px-3 py-1.5 text-ink data-checked:border-glass data-checked:bg-glass data-checked:font-bold data-checked:text-on-glass"
          >
            {option.name}
          </Radio>
        ))}
      </div>
    </RadioGroup>
  );
}

/** One of many, from a list. */
export function Pick<K extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: K;
  options: Option<K>[];
  onChange: (key: K) => void;
}) {
  const chosen = options.find((option) => option.key === value);
  return (
    <Listbox value={value} onChange={onChange}>
      <div className="min-w-0">
        <span className="block text-sm text-quiet">{label}</span>
        <ListboxButton
          aria-label={`${label}: ${chosen?.name ?? "choose"}`}
          className="flex w-full max-w-64 items-baseline justify-between gap-2 border-b-2 border-ink py-1 text-left text-lg font-bold"
        >
          <span className="truncate">{chosen?.name ?? "choose"}</span>
          <span aria-hidden className="text-sm text-quiet">
            ▾
          </span>
        </ListboxButton>
        <ListboxOptions
          anchor="bottom start"
          className="z-40 max-h-80 w-72 overflow-auto rounded-sm border border-line bg-raised text-ink shadow-lg focus:outline-none"
        >
          {options.map((option) => (
            <ListboxOption
              key={option.key}
              value={option.key}
              className="cursor-pointer px-4 py-2 data-focus:bg-glass-soft data-selected:font-bold"
            >
              {option.name}
              {option.note && <span className="block text-sm text-quiet">{option.note}</span>}
            </ListboxOption>
          ))}
        </ListboxOptions>
      </div>
    </Listbox>
  );
}

export function Dialog({
  open,
  onClose,
  title,
  children,
  bench,
  wide,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  bench?: boolean;
  wide?: boolean;
}) {
  return (
    <HDialog open={open} onClose={onClose} className={`fixed inset-0 z-50 ${bench ? "bench" : ""}`}>
      <div className="fixed inset-0 bg-black/60" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center overflow-auto p-4">
        <DialogPanel
          className={`max-h-full w-full overflow-auto bg-panel p-6 text-ink ${wide ? "max-w-[76rem]" : "max-w-3xl"}`}
        >
          <DialogTitle className="mb-4 text-3xl">{title}</DialogTitle>
          {children}
        </DialogPanel>
      </div>
    </HDialog>
  );
}
