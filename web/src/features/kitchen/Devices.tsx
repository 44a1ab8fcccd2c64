import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { devicesQuery, dropDevice, nameDevice, showCode } from "../../shared/devices";
import { dayAndTime } from "../../shared/format/zone";
import { useZone } from "../../shared/kitchen";
import { Button, TextField } from "../../shared/ui/plain";
import { Thermometer } from "./Thermometer";

/** What is plugged in, and what is paired. */
export function DevicesView() {
  const zone = useZone();
  return (
    <div className="max-w-5xl space-y-10 px-7 py-6">
      <h1 className="text-3xl">Devices</h1>
      <Devices zone={zone} />
      <Thermometer />
    </div>
  );
}

/** Tablets and phones of the kitchen's network: paired by a code shown here, named, dropped. */
function Devices({ zone }: { zone: string }) {
  const queryClient = useQueryClient();
  const devices = useQuery(devicesQuery).data;
  const [code, setCode] = useState("");
  if (!devices) return null;
  const keep = (list: typeof devices) => queryClient.setQueryData(devicesQuery.queryKey, list);
  return (
    <section aria-label="Tablets and phones" className="space-y-3">
      <h2 className="border-b border-line pb-1 text-xl">Tablets and phones</h2>
      {devices.addresses.length === 0 ? (
        <p className="max-w-prose text-quiet">
          Only this machine is answered. For a tablet at the stove, start with --lan: the address is then
          shown here.
        </p>
      ) : (
        <p>
          On the tablet, open one of:{" "}
          {devices.addresses.map((address) => (
            <strong key={address} className="mr-4 inline-block">
              {address}
            </strong>
          ))}
        </p>
      )}
      {devices.here && devices.addresses.length > 0 && (
        <p className="flex flex-wrap items-baseline gap-6">
          <Button onClick={() => void showCode().then((shown) => setCode(shown.code))}>Show a code</Button>
          {code && (
            <span>
              <strong className="text-4xl tracking-widest" data-testid="code">
                {code}
              </strong>{" "}
              counts once, for five minutes
            </span>
          )}
        </p>
      )}
      {devices.items.map((device) => (
        <div key={device.id} className="grid max-w-xl grid-cols-[1fr_1fr_auto] items-end gap-5">
          <TextField
            label="Name"
            value={device.name}
            onChange={(name) => {
              if (name.trim() !== "") void nameDevice(device.id, name).then(keep);
            }}
          />
          <span className="text-quiet">last seen {dayAndTime(new Date(device.seen_at), zone)}</span>
          {devices.here && (
            <Button
              kind="quiet"
              label={`Drop ${device.name}`}
              onClick={() => void dropDevice(device.id).then(keep)}
            >
              Drop
            </Button>
          )}
        </div>
      ))}
    </section>
  );
}
