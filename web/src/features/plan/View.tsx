import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Navigate, useParams } from "react-router";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { dayAndTime } from "../../shared/format/zone";
import { kitchenQuery, orderListQuery, pieceListQuery } from "../../shared/kitchen";
import { Notice } from "../../shared/ui/controls";
import { ListPage } from "../../shared/ui/ListPage";
import { useAttempt } from "../../shared/useAttempt";
import { PlanEditor } from "./PlanEditor";
import { createOrder, type Order, removeOrder, waysQuery } from "./queries";

const DAY_MS = 24 * 3600 * 1000;

export function PlanView() {
  const { id } = useParams();
  const units = useUnits();
  const orders = useQuery(orderListQuery).data?.items;
  const pieces = useQuery(pieceListQuery).data?.items;
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const queryClient = useQueryClient();
  const { problem, attempt } = useAttempt("order");
  if (!orders || !pieces || !kitchen) return null;
  const current = orders.find((order) => order.id === id);
  const soonest = [...orders].sort((a, b) => a.doc.due_at.localeCompare(b.doc.due_at));
  const next = soonest.find((order) => new Date(order.doc.due_at).getTime() > Date.now()) ?? soonest.at(-1);
  if (!current && next) return <Navigate to={`/plan/${next.id}`} replace />;

  const [firstPiece] = pieces;
  const add = firstPiece
    ? () =>
        attempt(async () => {
          const { ways } = await queryClient.fetchQuery(waysQuery);
          const { id: made } = await createOrder(crypto.randomUUID(), freshOrder(ways, firstPiece.id));
          return `/plan/${made}`;
        })
    : undefined;
  const remove = (order: string, version: number) =>
    attempt(async () => {
      await removeOrder(order, version);
      return "/plan";
    });
  return (
    <ListPage
      title="Plan"
      base="/plan"
      items={soonest.map((order) => ({
        id: order.id,
        name: order.doc.name,
        note: `${order.doc.lines.reduce((sum, line) => sum + line.quantity, 0)} pieces, ${dayAndTime(new Date(order.doc.due_at), kitchen.zone)}`,
      }))}
      onAdd={add}
      addWord="Add an order"
      empty={
        firstPiece
          ? "An order says what must be ready when."
          : "An order needs a piece; a piece needs a mould."
      }
    >
      {problem && (
        <div className="px-8 pt-6">
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        </div>
      )}
      {current && (
        <PlanEditor key={current.id} stored={current} pieces={pieces} kitchen={kitchen} onRemove={remove} />
      )}
    </ListPage>
  );
}

function freshOrder(ways: Order["ways"], piece: string): Order {
  const due = new Date(Math.ceil((Date.now() + 2 * DAY_MS) / 3_600_000) * 3_600_000);
  return {
    name: "New order",
    due_at: due.toISOString(),
    lines: [{ piece_id: piece, quantity: 12 }],
    ways,
    confidence_frac: 0.9,
    vessels: [],
    reserve_frac: 0.05,
  };
}
