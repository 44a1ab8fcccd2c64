import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Choice } from "../../shared/ui/controls";
import type { Join } from "./passes";
import { JOIN } from "./passWords";
import { joinQuery } from "./queries";
import { type Around, isSet, NOTHING_ROUND, ShapeField } from "./ShapeField";

interface Props {
  join: Join;
  number: number;
  parts: string[];
  materials: Schemas["MaterialShown"][];
  colours: string[];
  wrong: (name: string) => string | undefined;
  onChange: (join: Join) => void;
}

/** One join: which parts, by what, how long or how many dots, and what holds it. */
export function JoinFields({ join, number, parts, materials, colours, wrong, onChange }: Props) {
  const of = useQuery(joinQuery).data;
  const change = (patch: Partial<Join>) => onChange({ ...join, ...patch });
  const around: Around = { ...NOTHING_ROUND, parts, materials, colours, wrong, change };
  const field = (shown: Schemas["FieldShown"]) => {
    const name = shown.name as keyof Join;
    const words = { ...JOIN, part: `Join ${number}`, ...asItIs(join) }[name];
    return <ShapeField key={name} of={join} field={shown} words={words} {...around} />;
  };
  const without = of?.kinds.find((kind) => kind.by === join.by)?.left_out ?? [];
  const fields = (of?.fields ?? []).filter((shown) => isSet(join, shown) && !without.includes(shown.name));
  // which parts and by what comes first, the melt last and over two columns
  const first = fields.filter(({ sort }) => sort === "part" || sort === "choice");
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2 xl:grid-cols-3 2xl:grid-cols-4">
      {first.map(field)}
      <Choice
        label="As"
        value={join.dots > 0 ? "dots" : "bead"}
        options={[
          { key: "bead", name: "a bead" },
          { key: "dots", name: "dots" },
        ]}
        onChange={(key) => change(key === "dots" ? { dots: 3, seam_m: 0 } : { dots: 0, seam_m: 0.1 })}
      />
      {fields.filter(({ sort }) => sort === "number").map(field)}
      {fields
        .filter(({ sort }) => sort === "melt")
        .map((shown) => (
          <div key={shown.name} className="sm:col-span-2">
            {field(shown)}
          </div>
        ))}
    </div>
  );
}

/** What is called by how the join is. */
const asItIs = ({ dots, props }: Join) => ({
  bead_m: dots > 0 ? "A dot, how wide" : "Bead, how wide",
  ...(props === 0 ? { props: "Pieces the props hold: by hand" } : {}),
});
