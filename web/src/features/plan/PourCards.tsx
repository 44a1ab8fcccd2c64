import type { Schemas } from "../../api/client";
import { PourCard } from "../../shared/PourCard";
import { Part } from "./Part";
import { type Asked, cardsQuery } from "./queries";

/** A card for every filling of a mould, in the order in which they are begun. */
export function PourCards({ asked, kitchen }: { asked: Asked; kitchen: Schemas["Kitchen"] }) {
  const places = Object.fromEntries(kitchen.places.map((p) => [p.id, p.name]));
  return (
    <section aria-label="Pour cards">
      <h2 className="mb-3 text-xl">Pour cards</h2>
      <Part query={cardsQuery(asked)} place="min-h-64">
        {(cards) => (
          <div className="grid gap-x-8 gap-y-6 xl:grid-cols-2">
            {cards.map((card, i) => (
              <PourCard
                // biome-ignore lint/suspicious/noArrayIndexKey: a card is its place in the plan
                key={i}
                card={card}
                number={i + 1}
                places={places}
              />
            ))}
          </div>
        )}
      </Part>
    </section>
  );
}
