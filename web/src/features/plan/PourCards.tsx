import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { mouldListQuery } from "../../shared/kitchen";
import { PourCard } from "../../shared/PourCard";
import type { Plan } from "./queries";

/** A card for every filling of a mould, in the order in which they are begun. */
export function PourCards({ plan, kitchen }: { plan: Plan; kitchen: Schemas["Kitchen"] }) {
  const moulds = useQuery(mouldListQuery).data?.items ?? [];
  const places = Object.fromEntries(kitchen.places.map((p) => [p.id, p.name]));
  return (
    <section aria-label="Pour cards">
      <h2 className="mb-3 text-xl">Pour cards</h2>
      <div className="grid gap-x-8 gap-y-6 xl:grid-cols-2">
        {plan.cards.map((card, i) => (
          <PourCard
            key={card.rows[0]?.cook.toString().concat(card.mould_id)}
            card={card}
            number={i + 1}
            mould={moulds.find((m) => m.id === card.mould_id)?.doc.name ?? ""}
            places={places}
          />
        ))}
      </div>
    </section>
  );
}
