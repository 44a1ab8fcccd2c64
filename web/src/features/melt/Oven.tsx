import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { Sheet } from "../../shared/ui/Sheet";
import { powerQuery } from "./queries";

type Asked = Schemas["PowerRequest"];

/** An oven's power by a weighed bowl of water. */
export function Oven() {
  const [asked, setAsked] = useState<Asked>({
    water_kg: 1,
    from_degc: 10,
    to_degc: 21,
    seconds: 60,
    vessel_kg: 0.4,
  });
  const change = (patch: Partial<Asked>) => setAsked((before) => ({ ...before, ...patch }));
  const query = useQuery(powerQuery(asked));
  return (
    <Sheet
      error={query.error}
      old={query.isPlaceholderData}
      fields={["water_kg", "from_degc", "to_degc", "seconds", "vessel_kg"]}
      inputs={(wrong) => (
        <>
          <NumberField
            label="Water"
            quantity="mass"
            value={asked.water_kg}
            onChange={(water_kg) => change({ water_kg })}
            error={wrong("water_kg")}
            step={50}
          />
          <NumberField
            label="It was at, stirred"
            quantity="temperature"
            value={asked.from_degc}
            onChange={(from_degc) => change({ from_degc })}
            error={wrong("from_degc")}
            step={1}
          />
          <NumberField
            label="Full power for"
            quantity="seconds"
            value={asked.seconds}
            onChange={(seconds) => change({ seconds })}
            error={wrong("seconds")}
            step={5}
            digits={0}
          />
          <NumberField
            label="Then, stirred"
            quantity="temperature"
            value={asked.to_degc}
            onChange={(to_degc) => change({ to_degc })}
            error={wrong("to_degc")}
            step={1}
          />
          <NumberField
            label="The glass bowl weighs"
            quantity="mass"
            value={asked.vessel_kg}
            onChange={(vessel_kg) => change({ vessel_kg })}
            error={wrong("vessel_kg")}
            step={50}
          />
        </>
      )}
    >
      {query.data !== undefined && (
        <>
          <p className="text-5xl font-bold" role="status">
            {Math.round(query.data / 10) * 10} W
          </p>
          <p className="mt-3 max-w-2xl text-2xl">
            What reaches a large load.{" "}
            <Link to="/kitchen" className="font-bold text-glass hover:underline">
              Give it to the oven in the kitchen
            </Link>
            : bursts go by it.
          </p>
          <p className="mt-6 max-w-2xl text-quiet">
            A litre of cold water in a glass bowl at the room's temperature, full power until it is about ten
            degrees warmer, stirred and read at once.
          </p>
        </>
      )}
    </Sheet>
  );
}
