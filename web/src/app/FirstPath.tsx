import { useQuery } from "@tanstack/react-query";
import { Link, useLocation } from "react-router";
import { kitchenQuery, mouldListQuery, orderListQuery, pieceListQuery } from "../shared/kitchen";
import { doorOf, roomOf } from "./doors";

/** An empty workshop's way to its first plan: four steps, those done ticked, the next one to press. */
export function FirstPath() {
  const { pathname } = useLocation();
  const orders = useQuery(orderListQuery).data?.items;
  // a workshop that has orders is not asked for the rest
  const enabled = orders?.length === 0;
  const kitchen = useQuery({ ...kitchenQuery, enabled }).data;
  const moulds = useQuery({ ...mouldListQuery, enabled }).data?.items;
  const pieces = useQuery({ ...pieceListQuery, enabled }).data?.items;
  if (!kitchen || !moulds || !pieces || !enabled) return null;
  const steps = [
    { to: "/kitchen", name: "Kitchen", what: "your room, ring and pot", done: kitchen.version > 1 },
    {
      to: "/pieces/moulds",
      name: "Mould",
      what: "its sizes, or the water it holds",
      done: moulds.length > 0,
    },
    { to: "/pieces", name: "Piece", what: "what goes in, and how high", done: pieces.length > 0 },
    { to: "/orders", name: "Order", what: "how many, and when", done: false },
  ];
  const door = doorOf(pathname);
  const here = door && (roomOf(door, pathname) ?? door).to;
  const next = steps.find((step) => !step.done);
  return (
    <nav aria-label="To the first plan" className="border-b border-line bg-glass-soft px-7 py-3">
      <h2 className="text-lg">Four steps to the first plan, a few minutes in all</h2>
      <ol className="flex flex-wrap gap-x-8 gap-y-1">
        {steps.map((step, i) => (
          <li key={step.to} className={step.done ? "text-quiet" : ""}>
            {step.done ? "✓" : `${i + 1}.`}{" "}
            <Link
              to={step.to}
              aria-current={step === next ? "step" : undefined}
              className={`underline-offset-4 ${step === next ? "font-bold text-glass underline" : ""}`}
            >
              {step.name}
            </Link>
            : {step.what}
            {step === next && step.to === here && <span className="font-bold"> (here)</span>}
          </li>
        ))}
      </ol>
    </nav>
  );
}
