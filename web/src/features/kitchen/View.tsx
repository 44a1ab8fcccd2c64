import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
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
import { type Kitchen, readUnits, saveUnits } from "./queries";
import { Thermometer } from "./Thermometer";
import { WorkshopFile } from "./WorkshopFile";

/** What this kitchen's hands take, and how long a mould dries before it is filled again. */
const PACES: { key: keyof Schemas["Paces"]; label: string; step: number }[] = [
  { key: "weigh_s", label: "Weigh out a pot", step: 10 },
  { key: "pour_each_s", label: "Pour a cavity", step: 1 },
  { key: "bend_each_s", label: "Bend a piece", step: 1 },
  { key: "stick_each_s", label: "Put in a stick", step: 1 },
  { key: "fill_each_s", label: "Fill by hand", step: 1 },
  { key: "join_each_s", label: "Put a join together", step: 1 },
  { key: "stir_s", label: "Stir a bowl", step: 1 },
  { key: "unmould_each_s", label: "Unmould a piece", step: 1 },
  { key: "clean_s", label: "Clean a mould", step: 30 },
  { key: "dry_s", label: "A mould dries", step: 60 },
  { key: "call_before_s", label: "Call me before", step: 5 },
];

export function KitchenView() {
  const stored = useQuery(kitchenQuery).data;
  return stored ? <Editor stored={stored} /> : null;
}

function Editor({ stored }: { stored: Schemas["StoredKitchen"] }) {
  const thing = useThing("kitchen", stored);
  const zones = useQuery(choicesQuery).data?.zones ?? [];
  const { doc, change } = thing;
  const problem = thing.problem;
  const wrong = (path: string) => (problem?.path === `doc.${path}` ? "out of range, see above" : undefined);
  const pace = (patch: Partial<Kitchen["paces"]>) => change({ paces: { ...doc.paces, ...patch } });
  return (
    <div className="max-w-6xl px-8 py-6">
      <TextField large label="Name of the kitchen" value={doc.name} onChange={(name) => change({ name })} />
      <div className="flex flex-wrap items-baseline justify-between gap-x-8">
        <SaveMark thing={thing} />
        <Link to="/words" className="inline-flex min-h-11 items-center font-bold text-glass">
          Words of the trade
        </Link>
      </div>
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
            {PACES.map(({ key, label, step }) => (
              <NumberField
                key={key}
                label={label}
                quantity="seconds"
                value={doc.paces[key]}
                onChange={(v) => pace({ [key]: v })}
                error={wrong(`paces.${key}`)}
                step={step}
              />
            ))}
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
