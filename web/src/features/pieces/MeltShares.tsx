import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, Notice } from "../../shared/ui/plain";
import { MeltFields } from "./MeltFields";

type MeltShare = Schemas["MeltShare"];

interface Props {
  first: Schemas["MeltRef"];
  others: MeltShare[];
  shares: Schemas["Shares"];
  materials: Schemas["MaterialShown"][];
  colours: string[];
  label: string;
  error: string | undefined;
  /** What is wrong with one of them, by its place and field. */
  wrong: (path: string) => string | undefined;
  onChange: (others: MeltShare[]) => void;
}

/** Melts beside the first of a pass, each with its share; the first has what they leave. */
export function MeltShares({
  first,
  others,
  shares,
  materials,
  colours,
  label,
  error,
  wrong,
  onChange,
}: Props) {
  const units = useUnits();
  const rest = 1 - others.reduce((sum, of) => sum + of.share_frac, 0);
  const change = (i: number, patch: Partial<MeltShare>) =>
    onChange(others.map((of, j) => (j === i ? { ...of, ...patch } : of)));
  const unused = colours.find((of) => of !== first.colour && others.every((o) => o.melt.colour !== of));
  const more = () =>
    onChange([...others, { melt: { ...first, colour: unused ?? null }, share_frac: rest / 2 }]);
  return (
    <fieldset className="space-y-4">
      <legend className="sr-only">{label}</legend>
      {others.map((of, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two may be alike
        <div key={i} className="space-y-3 border-l-4 border-line pl-3">
          <MeltFields
            melt={of.melt}
            materials={materials}
            colours={colours}
            label={`${NTH[i]} melt`}
            onChange={(melt) => change(i, { melt })}
          />
          <div className="flex items-end gap-4">
            <NumberField
              label="Share"
              quantity="share"
              value={of.share_frac}
              step={5}
              error={wrong(`${i}.share_frac`)}
              onChange={(share_frac) => change(i, { share_frac })}
            />
            <Button onClick={() => onChange(others.filter((_, j) => j !== i))}>Leave it out</Button>
          </div>
        </div>
      ))}
      {error && <Notice tone="hot">{error}</Notice>}
      {others.length > 0 && !error && (
        <p className="text-quiet">The first melt has what is left: {amount(rest, "share", units)}.</p>
      )}
      {others.length < shares.most && (
        <Button onClick={more}>{others.length === 0 ? "Marble it with another" : "And another"}</Button>
      )}
    </fieldset>
  );
}

const NTH = ["Second", "Third", "Fourth", "Fifth", "Sixth", "Seventh"];
