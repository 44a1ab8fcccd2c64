import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { choicesQuery } from "../../shared/kitchen";
import { Button, Pick, TextField } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";

interface Rows<T> {
  rows: T[];
  onChange: (rows: T[]) => void;
}

/** Rows of one kind of equipment: edited in place, added, removed while another is left. */
function Table<T extends { id: string; name: string }>({
  title,
  addWord,
  fresh,
  rows,
  onChange,
  fields,
  fewest = 1,
}: Rows<T> & {
  title: string;
  addWord: string;
  fresh: (id: string) => T;
  fields: (row: T, patch: (part: Partial<T>) => void) => ReactNode;
  fewest?: number;
}) {
  return (
    <section>
      <h2 className="border-b border-line pb-1 text-xl">{title}</h2>
      {rows.map((row) => {
        const patch = (part: Partial<T>) =>
          onChange(rows.map((r) => (r.id === row.id ? { ...r, ...part } : r)));
        return (
          <fieldset
            key={row.id}
            className="grid grid-cols-2 gap-x-6 gap-y-3 border-b border-line py-4 sm:grid-cols-3"
          >
            <legend className="sr-only">{row.name}</legend>
            <TextField label="Name" value={row.name} onChange={(name) => patch({ name } as Partial<T>)} />
            {fields(row, patch)}
            {rows.length > fewest && (
              <div className="self-end">
                <Button
                  kind="quiet"
                  label={`Remove ${row.name}`}
                  onClick={() => onChange(rows.filter((r) => r.id !== row.id))}
                >
                  Remove
                </Button>
              </div>
            )}
          </fieldset>
        );
      })}
      <div className="mt-3">
        <Button kind="quiet" onClick={() => onChange([...rows, fresh(crypto.randomUUID().slice(0, 12))])}>
          {addWord}
        </Button>
      </div>
    </section>
  );
}

export function Rings(props: Rows<Schemas["Ring"]>) {
  const kinds = useQuery(choicesQuery).data?.rings ?? [];
  return (
    <Table<Schemas["Ring"]>
      {...props}
      title="Hob rings"
      addWord="Add a ring"
      fresh={(id) => ({ id, name: "Ring", kind: "electric", power_w: 1800 })}
      fields={(row, patch) => (
        <>
          <Pick
            label="Kind"
            value={row.kind}
            options={kinds.map((k) => ({ key: k.key as Schemas["Ring"]["kind"], name: k.name }))}
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
  const walls = useQuery(choicesQuery).data?.pots ?? [];
  return (
    <Table<Schemas["Vessel"]>
      {...props}
      title="Pots and bowls"
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
            options={walls.map((m) => ({ key: m.key as Schemas["Vessel"]["made_of"], name: m.name }))}
            onChange={(made_of) => patch({ made_of })}
          />
        </>
      )}
    />
  );
}

const COLD: Record<Schemas["Place"]["kind"], number | null> = { room: null, fridge: 4, freezer: -18 };

export function Microwaves(props: Rows<Schemas["Microwave"]>) {
  return (
    <Table<Schemas["Microwave"]>
      {...props}
      title="Microwaves"
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
  return (
    <Table<Schemas["Bath"]>
      {...props}
      title="Water baths"
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

export function Places(props: Rows<Schemas["Place"]>) {
  const surfaces = useQuery(choicesQuery).data?.surfaces ?? [];
  return (
    <Table<Schemas["Place"]>
      {...props}
      title="Places"
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
            options={surfaces.map((s) => ({ key: s.key as Schemas["Place"]["surface"], name: s.name }))}
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
