import { type ReactNode, useId } from "react";

/** A longer name than this is set smaller, so that all of it is seen. */
const FITS_LARGE = 14;

export function TextField({
  label,
  value,
  onChange,
  type = "text",
  error,
  large,
  onBlur,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  onBlur?: () => void;
  type?: string;
  error?: string | undefined;
  large?: boolean;
}) {
  const id = useId();
  return (
    <div className="min-w-0">
      {large && <h1 className="sr-only">{value || label}</h1>}
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
        onBlur={onBlur}
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
  pressed,
  expanded,
}: {
  children: ReactNode;
  onClick: () => void;
  kind?: "plain" | "main" | "quiet";
  disabled?: boolean;
  label?: string;
  /** Of one that stays down: whether it is. */
  pressed?: boolean;
  /** Of one that opens something: whether it has. */
  expanded?: boolean;
}) {
  const look = {
    main: "rounded-sm bg-glass px-5 py-2.5 font-bold text-on-glass",
    plain: "whitespace-nowrap rounded-sm border-2 border-ink px-4 py-2 font-bold",
    quiet: "min-h-6 whitespace-nowrap font-bold text-glass underline-offset-4 hover:underline",
  }[kind];
  return (
    <button
      type="button"
      className={`${look} aria-pressed:text-ink aria-pressed:underline aria-pressed:decoration-glass aria-pressed:decoration-4 disabled:opacity-50`}
      onClick={onClick}
      disabled={disabled}
      aria-label={label}
      aria-pressed={pressed}
      aria-expanded={expanded}
    >
      {children}
    </button>
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
