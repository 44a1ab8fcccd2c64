import { useQuery } from "@tanstack/react-query";
import { Navigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { dayAndTime } from "../../shared/format/zone";
import { kitchenQuery, orderListQuery, pieceListQuery } from "../../shared/kitchen";
import { Notice } from "../../shared/ui/controls";
import { ListPage } from "../../shared/ui/ListPage";
import { useAttempt } from "../../shared/useAttempt";
import { PlanEditor } from "./PlanEditor";
import { createOrder, type Order, removeOrder } from "./queries";

const DAY_MS = 24 * 3600 * 1000;

export function PlanView() {
  const { id } = useParams();
  const units = useUnits();
  const orders = useQuery(orderListQuery).data?.items;
  const pieces = useQuery(pieceListQuery).data?.items;
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const { problem, attempt } = useAttempt("order");
  if (!orders || !pieces || !kitchen) return null;
  const current = orders.find((order) => order.id === id);
  const soonest = [...orders].sort((a, b) => a.doc.due_at.localeCompare(b.doc.due_at));
  const next = soonest.find((order) => new Date(order.doc.due_at).getTime() > Date.now()) ?? soonest.at(-1);
  if (!current && next) return <Navigate to={`/plan/${next.id}`} replace />;

  const [firstPiece] = pieces;
  const add = firstPiece
    ? () =>
        attempt(
          async () =>
            `/plan/${(await createOrder(crypto.randomUUID(), freshOrder(kitchen, firstPiece.id))).id}`,
        )
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

function freshOrder(kitchen: Schemas["Kitchen"], piece: string): Order {
  const due = new Date(Math.ceil((Date.now() + 2 * DAY_MS) / 3_600_000) * 3_600_000);
  const isMetal = (v: Schemas["Vessel"]) => v.made_of === "steel" || v.made_of === "copper";
  const metal = kitchen.vessels.find(isMetal) ?? kitchen.vessels[0];
  const bowl = kitchen.vessels.find((v) => !isMetal(v)) ?? metal;
  const [bench] = kitchen.places;
  const fridge = kitchen.places.find((p) => p.kind === "fridge");
  return {
    name: "New order",
    due_at: due.toISOString(),
    lines: [{ piece_id: piece, quantity: 12 }],
    isomalt: {
      vessel_id: metal?.id ?? "",
      stand_id: bench?.id ?? "",
      ring_id: kitchen.rings[0]?.id ?? "",
      place_id: bench?.id ?? "",
      crystalline: true,
      water: "auto",
      cook_degc: 160,
    },
    coating: {
      vessel_id: bowl?.id ?? "",
      stand_id: bench?.id ?? "",
      by_id: [...kitchen.microwaves, ...kitchen.baths][0]?.id ?? "",
      place_id: (fridge ?? bench)?.id ?? "",
      melt_to_degc: 43,
      power: "full",
      stop: "lumps",
    },
    couverture: {
      vessel_id: bowl?.id ?? "",
      stand_id: bench?.id ?? "",
      by_id: [...kitchen.microwaves, ...kitchen.baths][0]?.id ?? "",
      place_id: (fridge ?? bench)?.id ?? "",
      power: "full",
      school: "seed",
      seed_degc: Math.min(20, kitchen.room_degc),
    },
    confidence_frac: 0.9,
    vessels: [],
    reserve_frac: 0.05,
  };
}
