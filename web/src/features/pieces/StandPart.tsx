import type { Schemas } from "../../api/client";
import { Standing, type StandingPart } from "../../drawings/Standing";
import { amount, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { NumberField } from "../../shared/ui/NumberField";
import { Button } from "../../shared/ui/plain";
import { useWidth } from "../../shared/useWidth";
import { type Part, partTone } from "./passes";
import type { Piece } from "./queries";

const DEGREES = 180 / Math.PI;
type Stands = Omit<Schemas["Stands"], "standing"> & {
  standing: Omit<Schemas["Standing"], "middle_m"> & { middle_m: number[] };
};
type Stand = NonNullable<Piece["stand"]>;

/** Whether a piece stands, drawn with its parts in their shapes, and what carries it. */
export function StandPart({
  doc,
  stands,
  parts,
  onChange,
}: {
  doc: Piece;
  stands: Stands | null;
  parts: Schemas["PartWeight"][];
  onChange: (patch: Partial<Piece>) => void;
}) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLElement>(520);
  const { stand } = doc;
  if (!stand)
    return (
      <div>
        <h3 className="mb-2 text-lg">Does it stand?</h3>
        <Button kind="quiet" onClick={() => onChange({ stand: firstStand(doc.parts.length) })}>
          Say where its parts are
        </Button>
      </div>
    );
  const put = (patch: Partial<Stand>) => onChange({ stand: { ...stand, ...patch } });
  const field = (key: Exclude<keyof Stand, "spots">, label: string, step = 1) => (
    <NumberField
      label={label}
      quantity="length"
      value={stand[key]}
      onChange={(v) => put({ [key]: v })}
      step={step}
    />
  );
  const lean = stands ? stands.standing.tips_rad : 0;
  const firm = stands !== null && lean >= stands.safe_rad;
  return (
    <section ref={ref} aria-label="Does it stand?">
      <h3 className="mb-2 text-lg">Does it stand?</h3>
      <div className="grid gap-x-8 gap-y-4 xl:grid-cols-[1fr_1fr]">
        <div>
          {stands && (
            <>
              <p className={`text-3xl font-bold ${firm ? "" : "text-heat"}`} role="status">
                {stands.standing.inside_m <= 0
                  ? "It tips over"
                  : `${firm ? "It stands" : "It stands badly"}: tips at ${(lean * DEGREES).toFixed(0)}°`}
              </p>
              <Standing
                parts={doc.parts.flatMap((part, i) => {
                  const [weight, spot] = [parts[i], stand.spots[i]];
                  return weight && spot ? [standingPart(doc, part, i, weight, spot)] : [];
                })}
                base_m={stand.base_m}
                middle={stands.middle}
                inside={stands.standing.inside_m > 0}
                length={(si) => amount(si, "length", units)}
                width={Math.min(width, 520)}
              />
              <ul className="mt-3 space-y-1 text-lg">
                <li className={stands.foot_frac > 1 ? "font-bold text-heat" : ""}>
                  {footWords(stands, units)}
                </li>
                <li className={stands.hangs < 1 ? "font-bold text-heat" : ""}>{wireWords(stands, units)}</li>
              </ul>
            </>
          )}
        </div>
        <div className="space-y-4">
          {doc.parts.map((part, i) => {
            const spot = stand.spots[i] ?? { x_m: 0, z_m: 0 };
            const at = (patch: Partial<typeof spot>) =>
              put({
                spots: doc.parts.map((_, k) => ({ ...(stand.spots[k] ?? spot), ...(k === i ? patch : {}) })),
              });
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the piece
              <div key={i} className="grid grid-cols-2 gap-4">
                <NumberField
                  label={`${part.name}, off centre`}
                  quantity="length"
                  value={spot.x_m}
                  onChange={(x_m) => at({ x_m })}
                  step={5}
                />
                <NumberField
                  label="and up"
                  quantity="length"
                  value={spot.z_m}
                  onChange={(z_m) => at({ z_m })}
                  step={5}
                />
              </div>
            );
          })}
          <div className="grid grid-cols-2 gap-4">
            {field("base_m", "Stands on, wide", 5)}
            {field("base_deep_m", "and deep", 5)}
            {field("foot_wide_m", "Foot or stem, wide")}
            {field("foot_thick_m", "and thick", 0.5)}
            {field("wire_m", "Wire to hang it from", 0.1)}
            {field("wire_in_m", "set in")}
          </div>
          <Button kind="quiet" onClick={() => onChange({ stand: null })}>
            It need not stand
          </Button>
        </div>
      </div>
      <p className="mt-4 max-w-2xl border-l-4 border-heat pl-3">
        Strengths are assumed and planned with a wide safety: sugar breaks without warning, from a scratch or
        a draught. Wires, sticks and skewers are declared; nothing hangs over people.
      </p>
    </section>
  );
}

function standingPart(
  doc: Piece,
  part: Part,
  i: number,
  { rings }: Schemas["PartWeight"],
  { x_m, z_m }: Stand["spots"][number],
): StandingPart {
  return {
    name: part.name,
    x_m,
    z_m,
    rings,
    tone: partTone(part),
    count: part.count,
    propped: doc.joins.some((join) => join.part === i && join.props > 0),
  };
}

/** How much of what is safe a foot or a wire is asked for, as one says it. */
const PARTS: [upTo: number, words: string][] = [
  [0.15, "easily"],
  [0.4, "with plenty over"],
  [0.7, "with some over"],
  [1, "just safely"],
];

function footWords({ foot_frac, foot_needs_m }: Stands, units: Units): string {
  const [, words] = PARTS.find(([upTo]) => foot_frac <= upTo) ?? [];
  return words
    ? `Its foot carries it ${words}.`
    : `Its foot is too thin: ${amount(foot_needs_m, "length", units)} would do.`;
}

function wireWords({ hangs, wire_needs_m }: Stands, units: Units): string {
  const [, words] = PARTS.find(([upTo]) => 1 / hangs <= upTo) ?? [];
  if (words) return `The wire carries it ${words}.`;
  const share =
    hangs >= 0.6 ? "most of" : hangs >= 0.4 ? "half of" : hangs >= 0.25 ? "a third of" : "little of";
  return `The wire carries ${share} it: too thin, or not deep enough in; ${amount(wire_needs_m, "length", units)} would do.`;
}

const firstStand = (parts: number): Stand => ({
  spots: Array.from({ length: parts }, (_, i) => ({ x_m: 0, z_m: 0.02 + 0.05 * i })),
  base_m: 0.08,
  base_deep_m: 0.06,
  foot_wide_m: 0.03,
  foot_thick_m: 0.01,
  wire_m: 0.0005,
  wire_in_m: 0.02,
});
