import type { Schemas } from "../../api/client";
import type { Is } from "../../shared/moulds";
import { OutlineFields } from "../../shared/OutlineFields";
import { type Cavity, SHAPES, type Shape } from "../../shared/shapes";
import { Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { TextField } from "../../shared/ui/plain";

/** What a cutter may be: with an upright wall all round. */
const FLAT = new Set<Shape["kind"]>(["round", "bar", "heart", "star", "outline"]);

interface Props {
  cavity: Cavity;
  /** Of what is cut out of a sheet only its outline is asked, and how many at most; of a drawing how many there are. */
  is: Is;
  onChange: (patch: Partial<Cavity>) => void;
  wrong: (field: string) => string | undefined;
}

const COUNTED: Record<Is, string> = { mould: "Cavities", sheet: "At most", drawing: "On a board" };

/** What only a cavity with walls has. */
const OF_WALLS = new Set(["depth_m", "draft_rad", "edge_m"]);

/** What is measured of one kind of cavity, or of a cutter. */
export function CavityFields({ cavity, is, onChange, wrong }: Props) {
  const { shape } = cavity;
  const cut = is === "sheet";
  const about = SHAPES.find((s) => s.kind === shape.kind);
  const sizes = shape as unknown as Record<string, number | null>;
  const size = (key: string, value: number | null) =>
    onChange({ shape: { ...shape, [key]: value } as Shape });
  return (
    <>
      <div className="grid grid-cols-[1fr_5rem] gap-5">
        <TextField label="Name" value={cavity.name} onChange={(name) => onChange({ name })} />
        <NumberField
          label={COUNTED[is]}
          quantity="count"
          value={cavity.count}
          onChange={(count) => onChange({ count: Math.round(count) })}
          error={wrong("count")}
          step={1}
        />
      </div>
      {is !== "drawing" && (
        <Pick
          label="Shape"
          value={shape.kind}
          options={SHAPES.filter(({ kind }) => kind !== "lines" && (!cut || FLAT.has(kind))).map(
            ({ kind, name }) => ({ key: kind, name }),
          )}
          onChange={(kind) => onChange({ shape: SHAPES.find((s) => s.kind === kind)?.fresh ?? shape })}
        />
      )}
      {shape.kind === "outline" && (
        <OutlineFields
          corners={shape.corners as [number, number][]}
          onChange={(corners) => onChange({ shape: { ...shape, corners } as Schemas["OutlineShape"] })}
        />
      )}
      {about?.fields
        .filter((field) => !cut || !OF_WALLS.has(field.key))
        .map((field) => (
          <NumberField
            key={shape.kind + field.key}
            label={field.label}
            quantity={field.quantity}
            value={sizes[field.key] ?? null}
            onChange={(v) => size(field.key, field.quantity === "count" ? Math.round(v) : v)}
            onClear={field.optional ? () => size(field.key, null) : undefined}
            error={wrong(field.key)}
            step={field.step}
            digits={field.digits}
          />
        ))}
      {is === "mould" && (
        <NumberField
          label="Water it holds, one cavity"
          quantity="mass"
          value={cavity.water_kg}
          onChange={(water_kg) => onChange({ water_kg })}
          onClear={() => onChange({ water_kg: null })}
          error={wrong("water_kg")}
          hint={
            shape.kind === "round" ? "two of opening, depth and water are enough" : "if weighed, it decides"
          }
        />
      )}
    </>
  );
}
