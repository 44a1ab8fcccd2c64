import { useQuery, useQueryClient } from "@tanstack/react-query";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { nameProbe, PROBE_WORDS, probesQuery } from "../../shared/probes";
import { TextField } from "../../shared/ui/controls";

/** The channels of a thermometer that is plugged in, and what they are called here. */
export function Thermometer() {
  const units = useUnits();
  const queryClient = useQueryClient();
  const heard = useQuery(probesQuery).data;
  const probes = heard?.items ?? [];
  const rename = async (id: string, name: string) => {
    if (name.trim() !== "") queryClient.setQueryData(probesQuery.queryKey, await nameProbe(id, name));
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
        probes.map((probe) => (
          <div key={probe.id} className="grid max-w-xl grid-cols-[1fr_8rem_1fr] items-end gap-5">
            <TextField
              label={probe.kind === "infrared" ? "Infrared" : "Immersed"}
              value={probe.name}
              onChange={(name) => void rename(probe.id, name)}
            />
            <strong className="text-xl">
              {probe.degc === null ? "–" : amount(probe.degc, "temperature", units)}
            </strong>
            <span className="text-quiet">{PROBE_WORDS[probe.state] || heard?.bridge}</span>
          </div>
        ))
      )}
    </section>
  );
}
