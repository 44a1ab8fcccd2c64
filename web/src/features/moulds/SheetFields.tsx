import type { Schemas } from "../../api/client";
import type { Cavity } from "../../shared/shapes";
import { Choice } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { FIRST_SHEET, freshCavity, type Mould, type Sheet } from "./queries";

/** A cutter stands upright, and higher than any sheet is thick. */
const CUTTER_M = 0.01;
/** As many as there is room for. */
const MANY = 200;

export const freshCutter = (name: string) => asCutter({ ...freshCavity(name), count: MANY });

/** A cavity as the cutter of its outline. */
export const asCutter = (cavity: Cavity): Cavity => ({
  ...cavity,
  water_kg: null,
  shape: {
    ...cavity.shape,
    ...("depth_m" in cavity.shape ? { depth_m: CUTTER_M } : {}),
    ...("draft_rad" in cavity.shape ? { draft_rad: 0, edge_m: 0 } : {}),
  } as Cavity["shape"],
});

/** A mould made a sheet: its cavities are cutters now, poured on a film. */
export function toSheet(doc: Mould, moulds: Schemas["MouldChoice"][]): Partial<Mould> {
  const on = moulds.find((m) => m.key === "paper");
  return {
    sheet: FIRST_SHEET,
    material: "paper",
    mat: null,
    ...(on ? { bears_degc: on.bears_degc, wall_m: on.wall_m } : {}),
    cavities: doc.cavities.map((cavity) => asCutter({ ...cavity, count: MANY })),
  };
}

/** How large the sheet is, what stays between its pieces, and how they may lie. */
export function SheetFields({
  sheet,
  onChange,
  wrong,
}: {
  sheet: Sheet;
  onChange: (sheet: Sheet) => void;
  wrong: (field: string) => string | undefined;
}) {
  const size = (key: "length_m" | "width_m" | "web_m" | "margin_m", label: string, step: number) => (
    <NumberField
      label={label}
      quantity="length"
      value={sheet[key]}
      onChange={(v) => onChange({ ...sheet, [key]: v })}
      error={wrong(key)}
      step={step}
    />
  );
  return (
    <>
      <div className="grid grid-cols-2 gap-4">
        {size("length_m", "Sheet, long", 10)}
        {size("width_m", "Sheet, wide", 10)}
        {size("web_m", "Web between two", 0.5)}
        {size("margin_m", "Margin", 1)}
      </div>
      <Choice
        label="Pieces"
        value={sheet.turned ? "turned" : "along"}
        options={[
          { key: "turned", name: "turned as they fit" },
          { key: "along", name: "along its stripes" },
        ]}
        onChange={(key) => onChange({ ...sheet, turned: key === "turned" })}
      />
    </>
  );
}
