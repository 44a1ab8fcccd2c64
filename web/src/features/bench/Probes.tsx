import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { assignProbe, PROBE_WORDS, probesQuery } from "../../shared/probes";
import { isSame, type Subject } from "../../shared/subject";

/** What a probe may be put into. */
const probed = ({ of, number }: Subject): Schemas["ProbedIn"] | null =>
  of === "pot" || of === "round" ? { of, number } : null;

const isIn = (probe: Schemas["ProbeView"], subject: Subject) =>
  probe.subject !== null && isSame(probe.subject, subject);

/** The thermometer's channels: what each shows, what that is worth, what it is in. A press puts it into the selected ribbon. */
export function Probes({
  ribbons,
  selected,
}: {
  ribbons: Schemas["Ribbon"][];
  selected: Schemas["Ribbon"] | undefined;
}) {
  const units = useUnits();
  const queryClient = useQueryClient();
  const probes = useQuery(probesQuery).data?.items ?? [];
  if (probes.length === 0) return null;
  const assign = async (probe: Schemas["ProbeView"]) => {
    const next = selected && !isIn(probe, selected.subject) ? probed(selected.subject) : null;
    queryClient.setQueryData(probesQuery.queryKey, await assignProbe(probe.id, next));
  };
  return (
    <section aria-label="Thermometer" className="flex flex-wrap gap-2 px-6 py-1">
      {probes.map((probe) => {
        const inside = ribbons.find((r) => isIn(probe, r.subject));
        const wrong = PROBE_WORDS[probe.state];
        return (
          <button
            key={probe.id}
            type="button"
            onClick={() => void assign(probe)}
            title={
              selected && probed(selected.subject) && !isIn(probe, selected.subject)
                ? `Put into ${selected.name}`
                : "Take it out"
            }
            className={`min-h-16 rounded-sm border px-4 text-left text-lg ${inside ? "border-glass" : "border-line"}`}
          >
            <strong>{probe.name}</strong>{" "}
            <strong className="text-2xl">
              {probe.degc === null ? "–" : amount(probe.degc, "temperature", units)}
            </strong>{" "}
            {wrong ? (
              <span className="font-bold text-heat">{wrong}</span>
            ) : (
              <span className="text-quiet">{inside ? `in ${inside.name}` : "in nothing"}</span>
            )}
          </button>
        );
      })}
    </section>
  );
}
