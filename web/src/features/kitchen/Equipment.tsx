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
}: Rows<T> & {
  title: string;
  addWord: string;
  fresh: (id: string) => T;
  fields: (row: T, patch: (part: Partial<T>) => void) => ReactNode;
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
            {rows.length > 1 && (
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
  const metals = useQuery(choicesQuery).data?.pots ?? [];
  return (
    <Table<Schemas["Vessel"]>
      {...props}
      title="Pots"
      addWord="Add a pot"
      fresh={(id) => ({ id, name: "Pot", metal: "steel", diameter_m: 0.16, height_m: 0.09, mass_kg: 1 })}
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
            label="Metal"
            value={row.metal}
            options={metals.map((m) => ({ key: m.key as Schemas["Vessel"]["metal"], name: m.name }))}
            onChange={(metal) => patch({ metal })}
          />
        </>
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
      fresh={(id) => ({ id, name: "Place", surface: "wood", thickness_m: 0.02, surface_degc: null })}
      fields={(row, patch) => (
        <>
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
            hint={row.surface_degc === null ? "as the room" : undefined}
          />
        </>
      )}
    />
  );
}
