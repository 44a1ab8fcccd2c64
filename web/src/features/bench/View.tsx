import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { kitchenQuery } from "../../shared/kitchen";
import { usePerson } from "../../shared/person";
import { useBench } from "../../shared/useBench";
import { LiveBench } from "./LiveBench";

export function BenchView() {
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const actor = usePerson(kitchen?.people ?? []);
  const { pending, view } = useBench(actor, kitchen !== undefined);
  if (!kitchen || pending) return null;
  if (!view) {
    return (
      <div className="p-8 text-xl">
        <h1 className="mb-4 text-4xl">Nothing is live</h1>
        <p className="mb-6 max-w-xl">Open an order and start its run: the pot and every round appear here.</p>
        <Link
          to="/orders"
          className="inline-block rounded-sm bg-glass px-6 py-4 text-2xl font-bold text-on-glass"
        >
          To the orders
        </Link>
      </div>
    );
  }
  return <LiveBench view={view} actor={actor} kitchen={kitchen} />;
}
