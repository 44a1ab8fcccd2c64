import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { amount, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { choicesQuery } from "../../shared/kitchen";
import { Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, TextField } from "../../shared/ui/plain";
import { BathPicture, OvenPicture, PlacePicture, RingPicture, VesselPicture } from "./pictures";

type Warmer = Schemas["Warmer"];

interface Rows<T> {
  rows: T[];
  onChange: (rows: T[]) => void;
  /** The thing of the kitchen that is open, of whichever kind. */
  open: string | null;
  onOpen: (id: string | null) => void;
}

interface TableProps<T> extends Rows<T> {
  title: string;
  addWord: string;
  fresh: (id: string) => T;
  picture: (row: T) => ReactNode;
  /** What matters of it, in a word. */
  word: (row: T) => string;
  fields: (row: T, patch: (part: Partial<T>) => void) => ReactNode;
  fewest?: number;
}

/** Things of one kind, standing side by side on their board; the one that is pressed opens under it. */
function Board<T extends { id: string; name: string }>(p: TableProps<T>) {
  const opened = p.rows.find((row) => row.id === p.open);
  const patch = (row: T) => (part: Partial<T>) =>
    p.onChange(p.rows.map((r) => (r.id === row.id ? { ...r, ...part } : r)));
  const add = () => {
    const row = p.fresh(crypto.randomUUID().slice(0, 12));
    p.onChange([...p.rows, row]);
    p.onOpen(row.id);
  };
  return (
    <section aria-label={p.title}>
      <h2 className="text-lg text-quiet">{p.title}</h2>
      <ul className="flex flex-wrap items-end gap-x-3 border-b-4 border-ink">
        {p.rows.map((row) => (
          <li key={row.id}>
            <button
              type="button"
              aria-expanded={row.id === p.open}
              onClick={() => p.onOpen(row.id === p.open ? null : row.id)}
              className={`flex min-w-24 flex-col items-center px-2 pt-2 text-center hover:bg-raised ${row.id === p.open ? "bg-raised" : ""}`}
            >
              <strong className="leading-tight">{row.name}</strong>
              <span className="mb-1 text-sm text-quiet">{p.word(row)}</span>
              {p.picture(row)}
            </button>
          </li>
        ))}
        <li className="ml-2 self-center">
          <Button kind="quiet" onClick={add}>
            {p.addWord}
          </Button>
        </li>
      </ul>
      {opened && (
        <fieldset className="grid grid-cols-2 gap-x-6 gap-y-3 bg-raised px-5 py-4 sm:grid-cols-3 lg:grid-cols-5">
          <legend className="sr-only">{opened.name}</legend>
          <TextField
            label="Name"
            value={opened.name}
            onChange={(name) => patch(opened)({ name } as Partial<T>)}
          />
          {p.fields(opened, patch(opened))}
          {p.rows.length > (p.fewest ?? 1) && (
            <div className="self-end">
              <Button
                kind="quiet"
                label={`Remove ${opened.name}`}
                onClick={() => p.onChange(p.rows.filter((r) => r.id !== opened.id))}
              >
                Remove
              </Button>
            </div>
          )}
        </fieldset>
      )}
    </section>
  );
}

export function Rings(props: Rows<Schemas["Ring"]>) {
  const units = useUnits();
  const kinds = useQuery(choicesQuery).data?.rings ?? [];
  return (
    <Board<Schemas["Ring"]>
      {...props}
      title="Hob rings"
      picture={() => <RingPicture />}
      word={(row) => amount(row.power_w, "power", units)}
      addWord="Add a ring"
      fresh={(id) => ({ id, name: "Ring", kind: "electric", power_w: 1800 })}
      fields={(row, patch) => (
        <>
          <Pick
            label="Kind"
            value={row.kind}
            options={kinds.map((k) => ({ key: k.key, name: k.name }))}
            onChange={(kind) => patch({ kind })}
          />
          <NumberField
            label="Power"
            quantity="power"
            value={row.power_w}
            onChange={(power_w) => patch({ power_w })}
            step={100}
          />
        </>
      )}
    />
  );
}

export function Pots(props: Rows<Schemas["Vessel"]>) {
  const units = useUnits();
  const walls = useQuery(choicesQuery).data?.pots ?? [];
  return (
    <Board<Schemas["Vessel"]>
      {...props}
      title="Pots and bowls"
      picture={(row) => <VesselPicture of={row} />}
      word={(row) => amount(row.diameter_m, "length", units)}
      addWord="Add a pot or bowl"
      fresh={(id) => ({ id, name: "Pot", made_of: "steel", diameter_m: 0.16, height_m: 0.09, mass_kg: 1 })}
      fields={(row, patch) => (
        <>
          <NumberField
            label="Diameter"
            quantity="length"
            value={row.diameter_m}
            onChange={(diameter_m) => patch({ diameter_m })}
            step={5}
          />
          <NumberField
            label="Height"
            quantity="length"
            value={row.height_m}
            onChange={(height_m) => patch({ height_m })}
            step={5}
          />
          <NumberField
            label="Weight, empty"
            quantity="mass"
            value={row.mass_kg}
            onChange={(mass_kg) => patch({ mass_kg })}
            step={10}
          />
          <Pick
            label="Made of"
            value={row.made_of}
            options={walls.map((m) => ({ key: m.key, name: m.name }))}
            onChange={(made_of) => patch({ made_of })}
          />
        </>
      )}
    />
  );
}

const COLD: Record<Schemas["Place"]["kind"], number | null> = { room: null, fridge: 4, freezer: -18 };

export function Microwaves(props: Rows<Schemas["Microwave"]>) {
  const units = useUnits();
  return (
    <Board<Schemas["Microwave"]>
      {...props}
      title="Microwaves"
      picture={() => <OvenPicture />}
      word={(row) => amount(row.power_w, "power", units)}
      addWord="Add a microwave"
      fewest={0}
      fresh={(id) => ({ id, name: "Microwave", power_w: 800 })}
      fields={(row, patch) => (
        <NumberField
          label="Power"
          quantity="power"
          value={row.power_w}
          onChange={(power_w) => patch({ power_w })}
          step={50}
        />
      )}
    />
  );
}

export function Baths(props: Rows<Schemas["Bath"]>) {
  const units = useUnits();
  return (
    <Board<Schemas["Bath"]>
      {...props}
      title="Water baths"
      picture={() => <BathPicture />}
      word={(row) => amount(row.water_degc, "temperature", units)}
      addWord="Add a water bath"
      fewest={0}
      fresh={(id) => ({ id, name: "Water bath", water_degc: 65 })}
      fields={(row, patch) => (
        <NumberField
          label="Water"
          quantity="temperature"
          value={row.water_degc}
          onChange={(water_degc) => patch({ water_degc })}
          step={1}
        />
      )}
    />
  );
}

const KEEPER_PICTURES: Record<Warmer["kind"], ReactNode> = {
  bath: <BathPicture />,
  plate: <RingPicture />,
  oven: <OvenPicture />,
};

const KEEPS: { key: Warmer["kind"]; name: string }[] = [
  { key: "bath", name: "Warm water" },
  { key: "plate", name: "Warming plate" },
  { key: "oven", name: "Low oven" },
];

/** What keeps melts fluid between their pours, and how many vessels at once. */
export function Warmers(props: Rows<Warmer>) {
  const units = useUnits();
  return (
    <Board<Warmer>
      {...props}
      title="Keeps warm"
      picture={(row) => KEEPER_PICTURES[row.kind]}
      word={(row) => `${amount(row.keeps_degc, "temperature", units)}, takes ${row.vessels}`}
      addWord="Add what keeps melts warm"
      fewest={0}
      fresh={(id) => ({ id, name: "Warm water", kind: "bath", keeps_degc: 38, vessels: 4 })}
      fields={(row, patch) => (
        <>
          <Pick
            label="It is"
            value={row.kind}
            options={KEEPS}
            onChange={(kind) => patch({ kind: kind as Warmer["kind"] })}
          />
          <NumberField
            label="How warm"
            quantity="temperature"
            value={row.keeps_degc}
            onChange={(keeps_degc) => patch({ keeps_degc })}
            step={1}
          />
          <NumberField
            label="Takes at once"
            quantity="count"
            value={row.vessels}
            onChange={(vessels) => patch({ vessels })}
            step={1}
          />
        </>
      )}
    />
  );
}

export function Places(props: Rows<Schemas["Place"]>) {
  const units = useUnits();
  const surfaces = useQuery(choicesQuery).data?.surfaces ?? [];
  return (
    <Board<Schemas["Place"]>
      {...props}
      title="Places"
      picture={(row) => <PlacePicture of={row} />}
      word={(row) => placeWord(row, units)}
      addWord="Add a place"
      fresh={(id) => ({
        id,
        name: "Place",
        kind: "room",
        fan: false,
        surface: "wood",
        thickness_m: 0.02,
        surface_degc: null,
        air_degc: null,
        moulds: null,
      })}
      fields={(row, patch) => (
        <>
          <Pick
            label="Kind"
            value={row.kind}
            options={[
              { key: "room", name: "In the room" },
              { key: "fridge", name: "Fridge" },
              { key: "freezer", name: "Freezer" },
            ]}
            onChange={(kind) => patch({ kind, air_degc: COLD[kind] })}
          />
          <NumberField
            label="Air"
            quantity="temperature"
            value={row.air_degc}
            onChange={(air_degc) => patch({ air_degc })}
            onClear={() => patch({ air_degc: null })}
            hint={row.air_degc === null ? "as the room" : undefined}
          />
          <Pick
            label="Fan"
            value={row.fan ? "on" : "off"}
            options={[
              { key: "off", name: "Still air" },
              { key: "on", name: "Fan on it" },
            ]}
            onChange={(fan) => patch({ fan: fan === "on" })}
          />
          <Pick
            label="Surface"
            value={row.surface}
            options={surfaces.map((s) => ({ key: s.key, name: s.name }))}
            onChange={(surface) => patch({ surface })}
          />
          <NumberField
            label="Thickness"
            quantity="length"
            value={row.thickness_m}
            onChange={(thickness_m) => patch({ thickness_m })}
            step={1}
          />
          <NumberField
            label="Its temperature"
            quantity="temperature"
            value={row.surface_degc}
            onChange={(surface_degc) => patch({ surface_degc })}
            onClear={() => patch({ surface_degc: null })}
            hint={row.surface_degc === null ? "as its air" : undefined}
          />
          <NumberField
            label="Moulds it takes"
            quantity="count"
            value={row.moulds}
            onChange={(moulds) => patch({ moulds: Math.round(moulds) })}
            onClear={() => patch({ moulds: null })}
            hint={row.moulds === null ? "enough" : undefined}
            step={1}
            digits={0}
          />
        </>
      )}
    />
  );
}

/** How cold or warm a place is, and that a fan blows on it. */
function placeWord(of: Schemas["Place"], units: Units): string {
  const degc = of.air_degc ?? of.surface_degc;
  return [degc === null ? "as the room" : amount(degc, "temperature", units), of.fan && "fan"]
    .filter(Boolean)
    .join(", ");
}
