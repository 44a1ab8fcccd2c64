import type { Quantity } from "../../shared/format/units";
import { NumberField } from "../../shared/ui/NumberField";
import type { Pass } from "./passes";

/** A number of a pass: shown, typed, and marked where it cannot be. */
export function PassNumber({
  pass,
  at,
  change,
  name,
  ...shown
}: {
  pass: Pass;
  at: (name: string) => string | undefined;
  change: (patch: Partial<Pass>) => void;
  name: string;
  label: string;
  quantity: Quantity;
  step?: number;
  digits?: number;
  large?: boolean;
  slider?: { low: number; high: number };
}) {
  const value = (pass as unknown as Record<string, number | null>)[name] ?? null;
  return (
    <NumberField
      {...shown}
      value={value}
      onChange={(v) => change({ [name]: shown.quantity === "count" ? Math.round(v) : v } as Partial<Pass>)}
      error={at(name)}
    />
  );
}
