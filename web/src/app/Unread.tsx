import { useQuery } from "@tanstack/react-query";
import { unreadQuery } from "../shared/kitchen";

/** What lies in the store and this version cannot read: said, since it is missing from its list. */
export function Unread() {
  const things = useQuery(unreadQuery).data?.items ?? [];
  if (things.length === 0) return null;
  return (
    <p className="border-b border-line bg-panel px-5 py-2" role="status">
      <strong>
        {things.map((thing) => `${thing.name} (${thing.kind})`).join(", ")}{" "}
        {things.length === 1 ? "is" : "are"} not shown:
      </strong>{" "}
      this version cannot read {things.length === 1 ? "it" : "them"}. Nothing is lost: it is kept as it is and
      goes out with the export (Kitchen).
    </p>
  );
}
