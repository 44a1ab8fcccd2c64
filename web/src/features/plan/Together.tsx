import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { dayAndTime } from "../../shared/format/zone";
import { orderListQuery } from "../../shared/kitchen";
import type { Order } from "./queries";

/** Orders that are due further apart are not offered for one day. */
const NEAR_MS = 3 * 24 * 3600_000;

interface Props {
  id: string;
  doc: Order;
  zone: string;
  onChange: (together: string[]) => void;
}

/** Which other orders are made in the same day: melts, moulds and hands then serve all of them. */
export function Together({ id, doc, zone, onChange }: Props) {
  const orders = useQuery(orderListQuery).data?.items ?? [];
  const due = new Date(doc.due_at).getTime();
  const others = orders.filter((of) => of.id !== id);
  const near = others
    .filter(
      (of) => doc.together.includes(of.id) || Math.abs(new Date(of.doc.due_at).getTime() - due) <= NEAR_MS,
    )
    .sort((a, b) => a.doc.due_at.localeCompare(b.doc.due_at));
  const elsewhere = others.filter((of) => of.doc.together.includes(id));
  if (near.length + elsewhere.length === 0) return null;
  return (
    <fieldset>
      <legend className="text-sm text-quiet">Made in one day with</legend>
      <div className="flex flex-wrap gap-x-6">
        {near.map((of) => (
          <label key={of.id} className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-5 shrink-0 accent-glass"
              checked={doc.together.includes(of.id)}
              onChange={(e) =>
                onChange(
                  near
                    .map((n) => n.id)
                    .filter((n) => (n === of.id ? e.target.checked : doc.together.includes(n))),
                )
              }
            />
            <span>
              {of.doc.name}{" "}
              <span className="text-quiet">due {dayAndTime(new Date(of.doc.due_at), zone)}</span>
            </span>
          </label>
        ))}
      </div>
      {elsewhere.map((of) => (
        <p key={of.id} className="text-quiet">
          It is made in the day of{" "}
          <Link className="font-bold text-glass underline-offset-4 hover:underline" to={`/orders/${of.id}`}>
            {of.doc.name}
          </Link>
          : start the bench from there.
        </p>
      ))}
    </fieldset>
  );
}
