import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import type { Units } from "../../shared/format/units";
import { unitsQuery } from "../../shared/format/useUnits";
import { choicesQuery, kitchenQuery } from "../../shared/kitchen";
import { applyTheme, type Theme, theme } from "../../shared/theme";
import { Choice, Pick, TextField } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useThing } from "../../shared/useThing";
import { Devices } from "./Devices";
import { Baths, Microwaves, Places, Pots, Rings } from "./Equipment";
import { type Kitchen, readUnits, saveKitchen, saveUnits } from "./queries";
import { Thermometer } from "./Thermometer";
import { WorkshopFile } from "./WorkshopFile";

export function KitchenView() {
  const stored = useQuery(kitchenQuery).data;
  return stored ? <Editor stored={stored} /> : null;
}

function Editor({ stored }: { stored: Schemas["StoredKitchen"] }) {
  const thing = useThing<Kitchen>(stored, "kitchen", saveKitchen);
  const zones = useQuery(choicesQuery).data?.zones ?? [];
  const { doc, change } = thing;
  const problem = thing.problem;
  const wrong = (path: string) => (problem?.path === `doc.${path}` ? "out of range, see above" : undefined);
  const pace = (patch: Partial<Kitchen["paces"]>) => change({ paces: { ...doc.paces, ...patch } });
  return (
    <div className="max-w-6xl px-8 py-6">
      <TextField large label="Name of the kitchen" value={doc.name} onChange={(name) => change({ name })} />
      <SaveMark thing={thing} />
      <div className="mt-4 grid gap-x-14 gap-y-10 lg:grid-cols-2">
        <section className="space-y-5">
          <h2 className="border-b border-line pb-1 text-xl">Air and place</h2>
          <div className="grid grid-cols-2 gap-6">
            <NumberField
              label="Room"
              quantity="temperature"
              value={doc.room_degc}
              onChange={(room_degc) => change({ room_degc })}
              error={wrong("room_degc")}
              step={0.5}
              digits={1}
              large
            />
            <NumberField
              label="Humidity"
              quantity="share"
              value={doc.humidity_frac}
              onChange={(humidity_frac) => change({ humidity_frac })}
              error={wrong("humidity_frac")}
              step={1}
              large
            />
            <NumberField
              label="Altitude"
              quantity="altitude"
              value={doc.altitude_m}
              onChange={(altitude_m) => change({ altitude_m })}
              error={wrong("altitude_m")}
              step={10}
            />
            <Pick
              label="Time zone"
              value={doc.zone}
              options={zones.map((zone) => ({ key: zone, name: zone.replaceAll("_", " ") }))}
              onChange={(zone) => change({ zone })}
            />
          </div>
          <UnitSwitch />
          <ThemeSwitch />
        </section>
        <section className="space-y-5">
          <h2 className="border-b border-line pb-1 text-xl">Your hands</h2>
          <div className="grid grid-cols-2 gap-6 sm:grid-cols-3">
            <NumberField
              label="Weigh out a pot"
              quantity="seconds"
              value={doc.paces.weigh_s}
              onChange={(weigh_s) => pace({ weigh_s })}
              error={wrong("paces.weigh_s")}
              step={10}
            />
            <NumberField
              label="Pour a cavity"
              quantity="seconds"
              value={doc.paces.pour_each_s}
              onChange={(pour_each_s) => pace({ pour_each_s })}
              error={wrong("paces.pour_each_s")}
              step={1}
            />
            <NumberField
              label="Bend a piece"
              quantity="seconds"
              value={doc.paces.bend_each_s}
              onChange={(bend_each_s) => pace({ bend_each_s })}
              error={wrong("paces.bend_each_s")}
              step={1}
            />
            <NumberField
              label="Put in a stick"
              quantity="seconds"
              value={doc.paces.stick_each_s}
              onChange={(stick_each_s) => pace({ stick_each_s })}
              error={wrong("paces.stick_each_s")}
              step={1}
            />
            <NumberField
              label="Stir a bowl"
              quantity="seconds"
              value={doc.paces.stir_s}
              onChange={(stir_s) => pace({ stir_s })}
              error={wrong("paces.stir_s")}
              step={1}
            />
            <NumberField
              label="Unmould a piece"
              quantity="seconds"
              value={doc.paces.unmould_each_s}
              onChange={(unmould_each_s) => pace({ unmould_each_s })}
              error={wrong("paces.unmould_each_s")}
              step={1}
            />
            <NumberField
              label="Clean a mould"
              quantity="seconds"
              value={doc.paces.clean_s}
              onChange={(clean_s) => pace({ clean_s })}
              error={wrong("paces.clean_s")}
              step={30}
            />
            <NumberField
              label="Call me before"
              quantity="seconds"
              value={doc.paces.call_before_s}
              onChange={(call_before_s) => pace({ call_before_s })}
              error={wrong("paces.call_before_s")}
              step={5}
            />
          </div>
          <People people={doc.people} onChange={(people) => change({ people })} />
        </section>
        <div className="space-y-10">
          <Rings rows={doc.rings} onChange={(rings) => change({ rings })} />
          <Microwaves rows={doc.microwaves} onChange={(microwaves) => change({ microwaves })} />
          <Baths rows={doc.baths} onChange={(baths) => change({ baths })} />
          <Pots rows={doc.vessels} onChange={(vessels) => change({ vessels })} />
        </div>
        <div className="space-y-10">
          <Places rows={doc.places} onChange={(places) => change({ places })} />
          <Thermometer />
          <Devices zone={doc.zone} />
          <WorkshopFile />
        </div>
      </div>
    </div>
  );
}

function People({ people, onChange }: { people: string[]; onChange: (people: string[]) => void }) {
  const [text, setText] = useState(people.join(", "));
  return (
    <TextField
      label="People at the bench, with commas between"
      value={text}
      onChange={(next) => {
        setText(next);
        onChange(
          next
            .split(",")
            .map((name) => name.trim())
            .filter((name) => name !== ""),
        );
      }}
    />
  );
}

/** One save after the other, each from the newest version: three quick taps are three changes. */
let saving: Promise<unknown> = Promise.resolve();

function UnitSwitch() {
  const stored = useQuery(unitsQuery).data;
  const queryClient = useQueryClient();
  if (!stored) return null;
  const set = (patch: Partial<Units>) => {
    queryClient.setQueryData(unitsQuery.queryKey, (now) => now && { ...now, doc: { ...now.doc, ...patch } });
    saving = saving
      .then(async () => {
        const newest = await readUnits();
        await saveUnits(newest.version, { ...newest.doc, ...patch });
      })
      .catch(() => queryClient.invalidateQueries({ queryKey: ["units"] }));
  };
  const { doc } = stored;
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-4">
      <Choice
        label="Temperature"
        value={doc.temperature}
        options={[
          { key: "C", name: "°C" },
          { key: "F", name: "°F" },
        ]}
        onChange={(temperature) => set({ temperature })}
      />
      <Choice
        label="Weight"
        value={doc.mass}
        options={[
          { key: "g", name: "g" },
          { key: "oz", name: "oz" },
        ]}
        onChange={(mass) => set({ mass })}
      />
      <Choice
        label="Length"
        value={doc.length}
        options={[
          { key: "mm", name: "mm" },
          { key: "in", name: "in" },
        ]}
        onChange={(length) => set({ length })}
      />
      <Choice
        label="Volume (15 ml spoon, 250 ml cup)"
        value={doc.volume}
        options={[
          { key: "ml", name: "ml" },
          { key: "tbsp", name: "tbsp" },
          { key: "cup", name: "cup" },
        ]}
        onChange={(volume) => set({ volume })}
      />
    </div>
  );
}

function ThemeSwitch() {
  const [chosen, setChosen] = useState<Theme>(theme());
  return (
    <Choice
      label="Light or dark, this screen"
      value={chosen}
      options={[
        { key: "auto", name: "as the machine" },
        { key: "light", name: "light" },
        { key: "dark", name: "dark" },
      ]}
      onChange={(next) => {
        applyTheme(next);
        setChosen(next);
      }}
    />
  );
}
