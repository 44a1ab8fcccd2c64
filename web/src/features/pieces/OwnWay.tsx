import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { duration } from "../../shared/format/units";
import { kitchenQuery } from "../../shared/kitchen";
import { Button } from "../../shared/ui/plain";

/** A part may have its own way through places, taken from the heat explorer. */
export function OwnWay({ stays, onClear }: { stays: Schemas["StayDoc"][]; onClear: () => void }) {
  const places = useQuery(kitchenQuery).data?.doc.places ?? [];
  const words = stays.map((stay, i) => {
    const name =
      stay.care === "hand"
        ? "in the hand"
        : (places.find((p) => p.id === stay.place_id)?.name ?? "a place that is gone");
    const kept = stay.care === "wrapped" ? `${name}, wrapped` : name;
    return i === 0 ? kept : `${kept} at ${duration(stay.from_s)}`;
  });
  return (
    <div>
      <span className="block text-sm text-quiet">Goes its own way</span>
      <p className="text-lg font-bold">{words.join(", then ")}</p>
      <Button kind="quiet" onClick={onClear}>
        as the order has it
      </Button>
    </div>
  );
}
