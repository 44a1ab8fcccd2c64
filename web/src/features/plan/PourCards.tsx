import type { Schemas } from "../../api/client";
import { grouped } from "../../shared/grouped";
import { PourCard } from "../../shared/PourCard";
import { Fold } from "../../shared/ui/Fold";
import { Castings } from "./Castings";
import { Part } from "./Part";
import { cardsQuery, type Plan } from "./queries";

/** With no more cards than these, all of them are open from the start. */
const FEW_CARDS = 4;

/** A card for every filling of a mould, by piece, in the order in which they are begun; and how many are cast of each part. */
export function PourCards({ plan, kitchen }: { plan: Plan; kitchen: Schemas["Kitchen"] }) {
  const { castings } = plan.summary;
  return (
    <Part query={cardsQuery(plan.asked)} place="min-h-64">
      {(cards) => <Groups cards={cards} castings={castings} kitchen={kitchen} />}
    </Part>
  );
}

interface Props {
  cards: Schemas["Card"][];
  castings: readonly Schemas["Castings"][];
  kitchen: Schemas["Kitchen"];
}

function Groups({ cards, castings, kitchen }: Props) {
  const places = Object.fromEntries(kitchen.places.map((p) => [p.id, p.name]));
  const numbered = cards.map((card, i) => ({ card, number: i + 1 }));
  const pieceOf = ({ card }: { card: Schemas["Card"] }) => card.rows[0]?.named.piece ?? card.mould;
  return grouped(numbered, pieceOf).map(([first, ...more], i) => {
    const piece = pieceOf(first);
    const own = castings.filter(({ named }) => named.piece === piece);
    const count = 1 + more.length;
    return (
      <Fold
        key={piece}
        title={piece}
        note={`${count} ${count === 1 ? "card" : "cards"}${own.length === 1 ? `, ${own.map((c) => `${c.casts.value.likely} cast for ${c.quantity}`).join("")}` : ""}`}
        open={cards.length <= FEW_CARDS || i === 0}
      >
        <Castings of={own} />
        <div className="mt-4 grid gap-x-8 gap-y-6 xl:grid-cols-2">
          {[first, ...more].map(({ card, number }) => (
            <PourCard key={number} card={card} number={number} places={places} />
          ))}
        </div>
      </Fold>
    );
  });
}
