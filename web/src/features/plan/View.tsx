import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { makeThing } from "../../api/things";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { dayAndTime } from "../../shared/format/zone";
import { freshOrder } from "../../shared/freshOrder";
import {
  kitchenQuery,
  orderListQuery,
  paletteListQuery,
  pieceListQuery,
  waysQuery,
} from "../../shared/kitchen";
import { removed } from "../../shared/removed";
import { ListPage } from "../../shared/ui/ListPage";
import { Notice } from "../../shared/ui/plain";
import { useAttempt } from "../../shared/useAttempt";
import { PlanEditor } from "./PlanEditor";
import { removeOrder } from "./queries";

export function PlanView() {
  const { id } = useParams();
  const units = useUnits();
  const orders = useQuery(orderListQuery).data?.items;
  const pieces = useQuery(pieceListQuery).data?.items;
  const kitchen = useQuery(kitchenQuery).data?.doc;
  // the plan's melts are called as a palette has them: asked for with the order, not after it
  useQuery(paletteListQuery);
  const queryClient = useQueryClient();
  const { problem, attempt } = useAttempt("order");
  if (!orders || !pieces || !kitchen) return null;
  const current = orders.find((order) => order.id === id);
  const now = new Date().toISOString();
  const soonest = [...orders].sort((a, b) => a.doc.due_at.localeCompare(b.doc.due_at));
  // what is still to come first, the next at the top; then what has been
  const listed = [
    ...soonest.filter((order) => order.doc.due_at > now),
    ...soonest.filter((order) => order.doc.due_at <= now).reverse(),
  ];

  const [firstPiece] = pieces;
  const add = firstPiece
    ? () =>
        attempt(async () => {
          const usual = await queryClient.fetchQuery(waysQuery);
          const made = await makeThing("order", freshOrder(usual, firstPiece.id));
          return `/orders/${made}?new`;
        })
    : undefined;
  const remove = (order: string, version: number) =>
    attempt(async () => {
      await removeOrder(order, version);
      if (current) removed("order", current.doc);
      return "/orders";
    });
  return (
    <ListPage
      title="Orders"
      base="/orders"
      open={id}
      kind="order"
      items={listed.map((order) => ({
        id: order.id,
        name: order.doc.name,
        note: `${order.doc.lines.reduce((sum, line) => sum + line.quantity, 0)} pieces, ${order.doc.due_at > now ? "" : "was due "}${dayAndTime(new Date(order.doc.due_at), kitchen.zone)}`,
      }))}
      add={add && { word: "Add an order", onAdd: () => void add() }}
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
