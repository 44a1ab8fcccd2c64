import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { type Kitchen, usualKitchensQuery } from "./queries";

type Usual = Schemas["UsualKitchen"];

const WORDS: Record<Usual["key"], string> = {
  home: "A small kitchen at home",
  shared: "A shared, rented kitchen",
  humid: "Warm and humid",
  high: "High up",
};

/** A few kitchens as many have them: one press takes one over, each of its fields is changed afterwards. */
export function UsualKitchens({ now, onTake }: { now: Kitchen; onTake: (kitchen: Kitchen) => void }) {
  const units = useUnits();
  const items = useQuery(usualKitchensQuery).data?.items ?? [];
  return (
    <section aria-label="Usual kitchens" className="mt-4 border-y border-line py-3">
      <h2 className="text-xl">Begin with the kitchen most like yours; change what is not</h2>
      <ul className="mt-2 grid gap-x-8 sm:grid-cols-2 xl:grid-cols-4">
        {items.map(({ key, kitchen }) => (
          <li key={key}>
            <button
              type="button"
              className="-mx-2 w-full px-2 py-2 text-left hover:bg-raised"
              onClick={() => onTake({ ...kitchen, zone: now.zone, people: now.people })}
            >
              <strong className="block text-lg leading-tight text-glass">{WORDS[key]}</strong>
              <span className="text-quiet">
                {amount(kitchen.room_degc, "temperature", units)},{" "}
                {amount(kitchen.humidity_frac, "share", units)} humidity,{" "}
                {amount(kitchen.altitude_m, "altitude", units)} up
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
