import type { Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { Fold } from "../../shared/ui/Fold";
import { Notice } from "../../shared/ui/plain";
import { remarkWords } from "./remarks";

type Remark = Schemas["Summary"]["warnings"][number];

/** What is worth knowing, but stops nothing. */
const MILD: ReadonlySet<Remark["code"]> = new Set<Remark["code"]>([
  "window_narrow",
  "sticky_room",
  "not_kept",
]);
/** So many are read at once; more open on demand. */
const AT_ONCE = 2;

/** What the plan has to say, the worst first. */
export function Remarks({ of, kitchen }: { of: readonly Remark[]; kitchen: Schemas["Kitchen"] }) {
  const units = useUnits();
  const places = Object.fromEntries([...kitchen.places, ...kitchen.warmers].map((p) => [p.id, p.name]));
  const sorted = [...of.filter((r) => !MILD.has(r.code)), ...of.filter((r) => MILD.has(r.code))];
  const said = (remark: Remark) => (
    <Notice key={JSON.stringify(remark)} tone={MILD.has(remark.code) ? "plain" : "hot"}>
      {remarkWords(remark, units, places)}
    </Notice>
  );
  const more = sorted.slice(AT_ONCE);
  if (sorted.length === 0) return <div className="h-3" />;
  return (
    <div className="my-3 space-y-2">
      {sorted.slice(0, AT_ONCE).map(said)}
      {more.length > 0 && (
        <Fold title={`${more.length} more to know`}>
          <div className="space-y-2">{more.map(said)}</div>
        </Fold>
      )}
    </div>
  );
}
