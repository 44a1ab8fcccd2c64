import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { keepProbe, PROBE_WORDS, probesQuery } from "../../shared/probes";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice, TextField } from "../../shared/ui/plain";

type View = Schemas["ProbeView"];

/** The channels of a thermometer that is plugged in, what they are called here, and how each shows a sample in temper. */
export function Thermometer() {
  const units = useUnits();
  const queryClient = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const heard = useQuery(probesQuery).data;
  const probes = heard?.items ?? [];
  const keep = async (probe: View, patch: Partial<Schemas["Probe"]>) => {
    const { name, over_below_k_min, under_above_k_min } = { ...probe, ...patch };
    if (name.trim() === "") return;
    try {
      const kept = await keepProbe(probe.id, { name, over_below_k_min, under_above_k_min });
      queryClient.setQueryData(probesQuery.queryKey, kept);
      setProblem(null);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  return (
    <section aria-label="Thermometer" className="space-y-3">
      <h2 className="border-b border-line pb-1 text-xl">Thermometer</h2>
      {probes.length === 0 ? (
        <p className="max-w-prose text-quiet">
          None is heard. Start its bridge on this machine; the simulated one is started with umber-pebble
          probe.
        </p>
      ) : (
        <>
          {probes.map((probe) => (
            <div key={probe.id} className="grid max-w-xl grid-cols-2 gap-x-5 gap-y-3">
              <TextField
                label={probe.kind === "infrared" ? "Infrared" : "Immersed"}
                value={probe.name}
                onChange={(name) => void keep(probe, { name })}
              />
              <p className="self-end">
                <strong className="block text-xl">
                  {probe.degc === null ? "–" : amount(probe.degc, "temperature", units)}
                </strong>
                <span className="text-quiet">{PROBE_WORDS[probe.state] || heard?.bridge}</span>
              </p>
              {probe.kind === "immersed" && (
                <>
                  <NumberField
                    label="Over-tempered below"
                    quantity="slope"
                    value={probe.over_below_k_min}
                    onChange={(over_below_k_min) => void keep(probe, { over_below_k_min })}
                    onClear={() => void keep(probe, { over_below_k_min: null })}
                    step={0.05}
                    digits={2}
                    hint="empty: as usual"
                  />
                  <NumberField
                    label="Under-tempered above"
                    quantity="slope"
                    value={probe.under_above_k_min}
                    onChange={(under_above_k_min) => void keep(probe, { under_above_k_min })}
                    onClear={() => void keep(probe, { under_above_k_min: null })}
                    step={0.05}
                    digits={2}
                    hint="empty: as usual"
                  />
                </>
              )}
            </div>
          ))}
          {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
        </>
      )}
    </section>
  );
}
