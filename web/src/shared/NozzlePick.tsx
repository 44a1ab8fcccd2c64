import { useQuery } from "@tanstack/react-query";
import { amount } from "./format/units";
import { useUnits } from "./format/useUnits";
import { nozzlesQuery } from "./pieces";
import { Pick } from "./ui/controls";

/** An opening by the number of a round nozzle, or the cut of a bag. */
export function NozzlePick({ bore_m, onChange }: { bore_m: number; onChange: (bore_m: number) => void }) {
  const units = useUnits();
  const nozzles = useQuery(nozzlesQuery).data ?? [];
  const same = nozzles.find((of) => of.bore_m.likely === bore_m);
  return (
    <Pick
      label="Or by a round nozzle"
      value={same?.name ?? BAG}
      options={[
        { key: BAG, name: "a bag, cut" },
        ...nozzles.map((of) => ({
          key: of.name,
          name: `${of.name}, about ${amount(of.bore_m.likely, "length", units)}`,
        })),
      ]}
      onChange={(key) => {
        const of = nozzles.find((one) => one.name === key);
        if (of) onChange(of.bore_m.likely);
      }}
    />
  );
}

const BAG = "bag";
