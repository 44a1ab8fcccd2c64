import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import type { Units } from "../../shared/format/units";
import { unitsQuery } from "../../shared/format/useUnits";
import { choicesQuery, kitchenQuery } from "../../shared/kitchen";
import { applyTheme, type Theme, theme } from "../../shared/theme";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { TextField } from "../../shared/ui/plain";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useThing } from "../../shared/useThing";
import { Baths, Microwaves, Places, Pots, Rings, Warmers } from "./Equipment";
import { readUnits, saveUnits } from "./queries";
import { UsualKitchens } from "./UsualKitchens";
import { WorkshopFile } from "./WorkshopFile";

export function KitchenView() {
  const stored = useQuery(kitchenQuery).data;
  return stored ? <Editor stored={stored} /> : null;
}

function Editor({ stored }: { stored: Schemas["StoredKitchen"] }) {
  const thing = useThing("kitchen", stored);
  const zones = useQuery(choicesQuery).data?.zones ?? [];
  const { doc, change } = thing;
  const problem = thing.problem;
  const [open, onOpen] = useState<string | null>(null);
  const things = { open, onOpen };
  const wrong = (path: string) => (problem?.path === `doc.${path}` ? "out of range, see above" : undefined);
  return (
    <div className="max-w-6xl px-8 py-6">
      <TextField large label="Name of the kitchen" value={doc.name} onChange={(name) => change({ name })} />
      <SaveMark thing={thing} />
      {stored.version === 1 && <UsualKitchens now={doc} onTake={change} />}
      <section aria-label="Air and place" className="mt-4">
        <div className="grid grid-cols-2 gap-6 lg:grid-cols-4">
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
      </section>
      <div className="mt-8 space-y-7">
        <Pots rows={doc.vessels} onChange={(vessels) => change({ vessels })} {...things} />
        <div className="grid grid-cols-[minmax(0,1fr)] items-end gap-x-10 gap-y-7 xl:grid-cols-3">
          <Rings rows={doc.rings} onChange={(rings) => change({ rings })} {...things} />
          <Microwaves rows={doc.microwaves} onChange={(microwaves) => change({ microwaves })} {...things} />
          <Baths rows={doc.baths} onChange={(baths) => change({ baths })} {...things} />
        </div>
        <Warmers rows={doc.warmers} onChange={(warmers) => change({ warmers })} {...things} />
        <Places rows={doc.places} onChange={(places) => change({ places })} {...things} />
      </div>
      <div className="mt-8 grid gap-x-14 gap-y-8 lg:grid-cols-2">
        <section className="space-y-5">
          <h2 className="border-b border-line pb-1 text-xl">Units, light and dark</h2>
          <UnitSwitch />
          <ThemeSwitch />
        </section>
        <WorkshopFile />
      </div>
    </div>
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
