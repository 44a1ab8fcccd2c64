import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";

/** What a wire bears, how far it sags, and how fast it sits. */
export function WireBears({ of }: { of: NonNullable<Schemas["PassRow"]["wire"]> }) {
  const units = useUnits();
  const mass = (kg: number) => amount(kg, "mass", units);
  return (
    <p className="text-quiet">
      {amount(of.thick_m, "length", units)} thick. Held out level it bears {mass(of.bears_kg)} at its end;
      under what it carries it sags {amount(of.sags_m, "length", units)}.
      {of.holds_kg !== null && ` Set so, it is pulled out by ${mass(of.holds_kg)}.`}
    </p>
  );
}
