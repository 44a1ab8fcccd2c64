import type { Schemas } from "../api/client";
import { dayAndTime } from "./format/zone";

/** What of the day is whose, where it is of several orders. */
export function Whose({ orders, zone }: { orders: readonly Schemas["OfOrder"][]; zone: string }) {
  if (orders.length === 0) return null;
  return (
    <ul aria-label="By order" className="mt-3 grid gap-x-8 gap-y-1 lg:grid-cols-2">
      {orders.map(({ name, due_at, lines }) => (
        <li key={`${due_at} ${name}`}>
          <strong>{name}</strong>, due {dayAndTime(new Date(due_at), zone)}:{" "}
          {lines.map(({ quantity, piece }) => `${quantity} ${piece.toLowerCase()}`).join(", ")}
        </li>
      ))}
    </ul>
  );
}
