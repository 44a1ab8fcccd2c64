import type { Schemas } from "../../api/client";
import { Pick } from "../../shared/ui/controls";
import { ColourField } from "./ColourField";

/** Which material in which colour. */
export function MeltFields({
  melt,
  materials,
  colours,
  label,
  onChange,
}: {
  melt: Schemas["MeltRef"];
  materials: Schemas["MaterialShown"][];
  colours: string[];
  label: string;
  onChange: (melt: Schemas["MeltRef"]) => void;
}) {
  return (
    <div className="space-y-3">
      <Pick
        label={label}
        value={melt.material}
        options={materials.map((m) => ({ key: m.key, name: m.name }))}
        onChange={(material) => onChange({ ...melt, material })}
      />
      <ColourField
        colour={melt.colour}
        colours={colours}
        label={label}
        onChange={(colour) => onChange({ ...melt, colour })}
      />
    </div>
  );
}
