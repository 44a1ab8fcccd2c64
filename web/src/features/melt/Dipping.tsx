import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Fact, Sheet } from "../../shared/ui/Sheet";
import { dipQuery } from "./queries";

type Asked = Schemas["DipRequest"];

const FRIDGE_DEGC = 5;
const TEARS: Record<Schemas["ColdCentre"]["cracks"], string> = {
  low: "is unlikely to crack",
  some: "may crack",
  high: "is likely to crack",
};
const SWEATS: Record<Schemas["ColdCentre"]["sweats"], string> = {
  low: "In this room it hardly sweats.",
  some: "It sweats a little: leave it untouched until it is dry.",
  high: "It sweats: leave it untouched until it is dry, or warm it up in a closed box.",
};

const warmedAfter = (dips: number[]) =>
  `dip ${dips.slice(0, 6).join(", ")}${dips.length > 6 ? " and so on" : ""}`;

/** What dipping takes out of a bath, and how much melt covers a piece, upright and tilted. */
export function Dipping({ fats }: { fats: Schemas["MaterialShown"][] }) {
  const units = useUnits();
  const [asked, setAsked] = useState<Asked>({
    material: "coating",
    melt_kg: 0.25,
    melt_degc: 30,
    diameter_m: 0.09,
    count: 5,
    centre_kg: 0.025,
    centre_degc: null,
    depth_m: 0.035,
    width_m: 0.035,
    seconds: 2,
  });
  const change = (patch: Partial<Asked>) => setAsked((before) => ({ ...before, ...patch }));
  const query = useQuery(dipQuery(asked));
  const of = query.data?.dips;
  const { warm_s: warmS, cold } = query.data ?? { warm_s: null, cold: null };
  const mass = (kg: number) => amount(kg, "mass", units);
  const degc = (value: number) => amount(value, "temperature", units);
  const hot = of && asked.melt_degc > of.most_degc + 0.05;
  const stiff = of && asked.melt_degc < of.floor_degc.likely;
  const need =
    of && asked.melt_kg < of.tilted_kg ? "more" : of && asked.melt_kg < of.upright_kg ? "tilt" : "";
  return (
    <Sheet
      error={query.error}
      old={query.isPlaceholderData}
      fields={[
        "kg",
        "diameter_m",
        "dip.count",
        "dip.kg",
        "dip.degc",
        "dip.depth_m",
        "dip.width_m",
        "dip.seconds",
      ]}
      inputs={(wrong) => (
        <>
          <Pick
            label="Of"
            value={asked.material}
            options={fats.map((m) => ({ key: m.key, name: m.name }))}
            onChange={(material) => change({ material })}
          />
          <NumberField
            label="In the vessel"
            quantity="mass"
            value={asked.melt_kg}
            onChange={(melt_kg) => change({ melt_kg })}
            error={wrong("kg")}
            step={10}
          />
          <NumberField
            label="It is at"
            quantity="temperature"
            value={asked.melt_degc}
            onChange={(melt_degc) => change({ melt_degc })}
            step={1}
          />
          <NumberField
            label="The vessel is wide"
            quantity="length"
            value={asked.diameter_m}
            onChange={(diameter_m) => change({ diameter_m })}
            error={wrong("diameter_m")}
            step={5}
          />
          <NumberField
            label="Centres"
            quantity="count"
            value={asked.count}
            onChange={(count) => change({ count: Math.round(count) })}
            error={wrong("dip.count")}
            step={1}
            digits={0}
          />
          <NumberField
            label="Each weighs"
            quantity="mass"
            value={asked.centre_kg}
            onChange={(centre_kg) => change({ centre_kg })}
            error={wrong("dip.kg")}
            step={1}
          />
          <Pick
            label="They are"
            value={asked.centre_degc === null ? "room" : "cold"}
            options={[
              { key: "room", name: "as warm as the room" },
              { key: "cold", name: "from the cold" },
            ]}
            onChange={(from) => change({ centre_degc: from === "room" ? null : FRIDGE_DEGC })}
          />
          {asked.centre_degc !== null && (
            <NumberField
              label="They are at"
              quantity="temperature"
              value={asked.centre_degc}
              onChange={(centre_degc) => change({ centre_degc })}
              error={wrong("dip.degc")}
              step={1}
              slider={{ low: -20, high: 20 }}
            />
          )}
          <NumberField
            label="Dipped to a depth of"
            quantity="length"
            value={asked.depth_m}
            onChange={(depth_m) => change({ depth_m })}
            error={wrong("dip.depth_m")}
            step={1}
          />
          <NumberField
            label="Wide"
            quantity="length"
            value={asked.width_m}
            onChange={(width_m) => change({ width_m })}
            error={wrong("dip.width_m")}
            step={1}
          />
          <NumberField
            label="In the melt for"
            quantity="seconds"
            value={asked.seconds}
            onChange={(seconds) => change({ seconds })}
            error={wrong("dip.seconds")}
            step={1}
            digits={0}
          />
        </>
      )}
    >
      {of && (
        <>
          <p className="text-5xl font-bold text-balance" role="status">
            {hot
              ? `Too warm: let it come down to ${degc(of.most_degc)}, stirring`
              : stiff
                ? `Too stiff: warm it to ${degc(of.most_degc)}`
                : need === "more"
                  ? `Top up: ${mass(of.tilted_kg)} at least`
                  : need === "tilt"
                    ? `Tilt it by ${Math.round((of.tilt_rad * 180) / Math.PI)}°`
                    : "Deep enough"}
          </p>
          <p className="mt-3 text-2xl">
            Dip from {degc(of.floor_degc.likely)} to {degc(of.most_degc)}.{" "}
            {of.warm_after.length > 0 ? (
              <strong>
                Warm it after {warmedAfter(of.warm_after)}, back to {degc(of.most_degc)}
                {warmS === null ? "" : `: about ${Math.max(Math.round(warmS), 1)} s in the microwave`}, stir.
              </strong>
            ) : (
              `All ${asked.count} go in without warming it.`
            )}
          </p>
          <p className="mt-2 text-lg">
            Left alone it would be at {degc(of.after_degc.at(-1) ?? asked.melt_degc)} after the last, with{" "}
            {mass(of.left_kg)} left.
          </p>
          <dl className="mt-6 flex flex-wrap gap-x-10 gap-y-3">
            <Fact name="covers a piece, the vessel upright">{mass(of.upright_kg)}</Fact>
            <Fact name="and tilted">{mass(of.tilted_kg)}</Fact>
          </dl>
          {cold && (
            <p className="mt-6 max-w-2xl">
              From the cold the coat sets in {range(cold.touch, "s", units)} instead of{" "}
              {range(cold.touch_at_room, "s", units)}, comes out thicker, and {TEARS[cold.cracks]} as the
              centre warms and grows ({(cold.grows_frac * 100).toFixed(1)} % against{" "}
              {(cold.bears_frac.low * 100).toFixed(1)} to {(cold.bears_frac.high * 100).toFixed(1)} % that a
              coat bears, assumed). {SWEATS[cold.sweats]}
            </p>
          )}
          <p className="mt-6 max-w-2xl text-quiet">
            Wash and dry fruit well: water seizes the bath. Centres at room temperature is one way; frozen
            centres are dipped too, set at once and come out glossy. How large a foot it makes is not
            reckoned: shake well, scrape the underside.
          </p>
        </>
      )}
    </Sheet>
  );
}
