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
import { type ReactNode, useId } from "react";

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

/** A longer name than this is set smaller, so that all of it is seen. */
const FITS_LARGE = 14;

export function TextField({
  label,
  value,
  onChange,
  type = "text",
  error,
  large,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  type?: string;
  error?: string | undefined;
  large?: boolean;
}) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={large ? "sr-only" : "block text-sm text-quiet"}>
        {label}
      </label>
      <input
        id={id}
        type={type}
        value={value}
        maxLength={60}
        autoComplete="off"
        aria-invalid={error ? true : undefined}
        className={
          large
            ? `w-full border-b-2 border-transparent bg-transparent font-head ${value.length > FITS_LARGE ? "text-xl" : "text-3xl"} font-bold hover:border-line focus:border-glass`
            : "w-full max-w-64 border-b-2 border-ink bg-transparent py-1 text-lg font-bold"
        }
        onChange={(event) => onChange(event.target.value)}
      />
      {error && (
        <p role="alert" className="mt-1 text-sm font-semibold text-heat">
          {error}
        </p>
      )}
    </div>
  );
}

export function Button({
  children,
  onClick,
  kind = "plain",
  disabled,
  label,
}: {
  children: ReactNode;
  onClick: () => void;
  kind?: "plain" | "main" | "quiet";
  disabled?: boolean;
  label?: string;
}) {
  const look = {
    main: "rounded-sm bg-glass px-5 py-2.5 font-bold text-on-glass",
    plain: "whitespace-nowrap rounded-sm border-2 border-ink px-4 py-2 font-bold",
    quiet: "whitespace-nowrap font-bold text-glass underline-offset-4 hover:underline",
  }[kind];
  return (
    <button
      type="button"
      className={`${look} disabled:opacity-50`}
      onClick={onClick}
      disabled={disabled}
      aria-label={label}
    >
      {children}
    </button>
  );
}

export function Dialog({
  open,
  onClose,
  title,
  children,
  bench,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  bench?: boolean;
}) {
  return (
    <HDialog open={open} onClose={onClose} className={`fixed inset-0 z-50 ${bench ? "bench" : ""}`}>
      <div className="fixed inset-0 bg-black/60" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center overflow-auto p-4">
        <DialogPanel className="max-h-full w-full max-w-3xl overflow-auto bg-panel p-6 text-ink">
          <DialogTitle className="mb-4 text-3xl">{title}</DialogTitle>
          {children}
        </DialogPanel>
      </div>
    </HDialog>
  );
}

/** A remark that stands beside the work: a limit, a refusal, a caution. */
export function Notice({ tone = "plain", children }: { tone?: "plain" | "hot"; children: ReactNode }) {
  return (
    <div
      role={tone === "hot" ? "alert" : undefined}
      className={`border-l-4 py-1 pl-3 ${tone === "hot" ? "border-heat font-semibold" : "border-glass"}`}
    >
      {children}
    </div>
  );
}
