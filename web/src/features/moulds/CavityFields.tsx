import type { Schemas } from "../../api/client";
import { OutlineFields } from "../../shared/OutlineFields";
import { type Cavity, SHAPES, type Shape } from "../../shared/shapes";
import { Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { TextField } from "../../shared/ui/plain";

interface Props {
  cavity: Cavity;
  onChange: (patch: Partial<Cavity>) => void;
  wrong: (field: string) => string | undefined;
}

/** What is measured of one kind of cavity. */
export function CavityFields({ cavity, onChange, wrong }: Props) {
  const { shape } = cavity;
  const about = SHAPES.find((s) => s.kind === shape.kind);
  const sizes = shape as unknown as Record<string, number | null>;
  const size = (key: string, value: number | null) =>
    onChange({ shape: { ...shape, [key]: value } as Shape });
  return (
    <>
      <div className="grid grid-cols-[1fr_5rem] gap-5">
        <TextField label="Name" value={cavity.name} onChange={(name) => onChange({ name })} />
        <NumberField
          label="Cavities"
          quantity="count"
          value={cavity.count}
          onChange={(count) => onChange({ count: Math.round(count) })}
          error={wrong("count")}
          step={1}
        />
      </div>
      <Pick
        label="Shape"
        value={shape.kind}
        options={SHAPES.map(({ kind, name }) => ({ key: kind, name }))}
        onChange={(kind) => onChange({ shape: SHAPES.find((s) => s.kind === kind)?.fresh ?? shape })}
      />
      {shape.kind === "outline" && (
        <OutlineFields
          corners={shape.corners as [number, number][]}
          onChange={(corners) => onChange({ shape: { ...shape, corners } as Schemas["OutlineShape"] })}
        />
      )}
      {about?.fields.map((field) => (
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
    </>
  );
}
