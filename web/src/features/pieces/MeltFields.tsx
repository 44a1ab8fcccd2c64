import type { Schemas } from "../../api/client";
import { Pick } from "../../shared/ui/controls";

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
      <fieldset>
        <legend className="text-sm text-quiet">Colour</legend>
        <div className="flex flex-wrap items-center gap-2">
          <button
            type="button"
            aria-pressed={melt.colour === null}
            onClick={() => onChange({ ...melt, colour: null })}
            className={`min-h-9 rounded-sm border-2 px-2 ${melt.colour === null ? "border-glass font-bold" : "border-line"}`}
          >
            as it comes
          </button>
          {colours.map((hex) => (
            <button
              key={hex}
              type="button"
              aria-label={`Colour ${hex}`}
              aria-pressed={melt.colour === hex}
              onClick={() => onChange({ ...melt, colour: hex })}
              className={`h-9 w-9 rounded-sm border-2 ${melt.colour === hex ? "border-glass outline-2 outline-glass" : "border-line"}`}
              style={{ background: hex }}
            />
          ))}
          <input
            type="color"
            aria-label={`${label}, another colour`}
            value={melt.colour ?? "#ffffff"}
            onChange={(event) => onChange({ ...melt, colour: event.target.value })}
            className="h-9 w-12"
          />
        </div>
      </fieldset>
    </div>
  );
}
