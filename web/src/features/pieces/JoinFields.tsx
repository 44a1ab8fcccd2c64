import type { Schemas } from "../../api/client";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { MeltFields } from "./MeltFields";
import type { Join, Part } from "./passes";

const BY: { key: Join["by"]; name: string }[] = [
  { key: "melt", name: "melt" },
  { key: "soften", name: "warmed faces" },
  { key: "glue", name: "edible glue" },
];
type Size = "seam_m" | "bead_m" | "gap_m" | "deep_m";

/** One join: which parts, by what, how long or how many dots, and what holds it. */
export function JoinFields({
  join,
  number,
  parts,
  materials,
  colours,
  wrong,
  onChange,
}: {
  join: Join;
  number: number;
  parts: Part[];
  materials: Schemas["MaterialShown"][];
  colours: string[];
  wrong: (name: string) => string | undefined;
  onChange: (join: Join) => void;
}) {
  const change = (patch: Partial<Join>) => onChange({ ...join, ...patch });
  const names = parts.map((part, i) => ({ key: String(i), name: part.name }));
  const size = (key: Size, label: string, step: number) => (
    <NumberField
      label={label}
      quantity="length"
      value={join[key]}
      onChange={(v) => change({ [key]: v })}
      error={wrong(key)}
      step={step}
    />
  );
  const whole = (key: "count" | "dots" | "props", label: string, hint?: string) => (
    <NumberField
      label={label}
      quantity="count"
      value={join[key]}
      onChange={(v) => change({ [key]: Math.round(v) })}
      error={wrong(key)}
      hint={hint}
      step={1}
      digits={0}
    />
  );
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2 xl:grid-cols-3 2xl:grid-cols-4">
      <Pick
        label={`Join ${number}`}
        value={String(join.part)}
        options={names}
        onChange={(key) => change({ part: Number(key) })}
      />
      <Pick
        label="to"
        value={String(join.to)}
        options={names}
        onChange={(key) => change({ to: Number(key) })}
      />
      <Choice label="By" value={join.by} options={BY} onChange={(by) => change({ by })} />
      <Choice
        label="As"
        value={join.dots > 0 ? "dots" : "bead"}
        options={[
          { key: "bead", name: "a bead" },
          { key: "dots", name: "dots" },
        ]}
        onChange={(key) => change(key === "dots" ? { dots: 3, seam_m: 0 } : { dots: 0, seam_m: 0.1 })}
      />
      {whole("count", "Such joins in a piece")}
      {join.dots > 0 ? whole("dots", "Dots, each join") : size("seam_m", "Seam, each join", 5)}
      {size("bead_m", join.dots > 0 ? "A dot, how wide" : "Bead, how wide", 0.5)}
      {whole("props", "Pieces the props hold", join.props === 0 ? "held by hand" : undefined)}
      {join.by === "melt" && join.dots === 0 && (
        <>
          {size("gap_m", "Gap under it", 0.5)}
          {size("deep_m", "so deep", 0.5)}
        </>
      )}
      {join.by === "melt" && (
        <div className="sm:col-span-2">
          <MeltFields
            melt={join.melt}
            materials={materials}
            colours={colours}
            label="Melt"
            onChange={(melt) => change({ melt })}
          />
        </div>
      )}
    </div>
  );
}
