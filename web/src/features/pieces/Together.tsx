import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { Standing } from "../../drawings/Standing";
import { amount, duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { propertiesQuery } from "../../shared/kitchen";
import { Button, Notice } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { NumberField } from "../../shared/ui/NumberField";
import { Fact } from "../../shared/ui/Sheet";
import { useDebounced } from "../../shared/useDebounced";
import { useWidth } from "../../shared/useWidth";
import { meltsIn } from "../../shared/wording";
import { JoinFields } from "./JoinFields";
import { type Join, type Part, passName } from "./passes";
import { assemblyQuery, firstJoin, type Piece } from "./queries";

const PAUSE_MS = 120;
const DEGREES = 180 / Math.PI;
type Stands = Omit<Schemas["Stands"], "standing"> & {
  standing: Omit<Schemas["Standing"], "middle_m"> & { middle_m: number[] };
};
type Stand = NonNullable<Piece["stand"]>;

/** A piece put together: its parts, its joins in order with their melt and holding times, and whether it stands. */
export function Together({
  head,
  doc,
  colours,
  onChange,
  onOpen,
  foot,
}: {
  head: React.ReactNode;
  doc: Piece;
  colours: string[];
  onChange: (patch: Partial<Piece>) => void;
  onOpen: (part: number) => void;
  foot: React.ReactNode;
}) {
  const units = useUnits();
  const query = useQuery(assemblyQuery(useDebounced(doc, PAUSE_MS)));
  const of = query.data;
  const [refused, setRefused] = useState<Problem | null>(null);
  const problem = refused ?? (query.error ? problemOf(query.error) : null);
  const addJoin = () =>
    firstJoin(doc).then(
      (join) => onChange({ joins: [...doc.joins, join] }),
      (error) => setRefused(problemOf(error)),
    );
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  const materials = meltsIn(useQuery(propertiesQuery).data?.groups);
  const putJoin = (i: number, join: Join) =>
    onChange({ joins: doc.joins.map((j, k) => (k === i ? join : j)) });
  const dim = query.isPlaceholderData ? "opacity-60" : "";
  return (
    <div className="grid min-h-full lg:grid-cols-[290px_1fr]">
      <section aria-label="The piece" className="space-y-4 bg-panel px-6 py-6">
        {head}
        {foot}
      </section>
      <section aria-label="Put together" className="min-w-0 space-y-8 px-7 py-6">
        <div className="flex flex-wrap items-baseline justify-between gap-x-8">
          <h2 className="text-xl">Put together</h2>
          {of && (
            <p className="text-quiet">
              <Figure of={of.weight} name="the whole piece" className="text-3xl text-ink" dim={dim !== ""} />{" "}
              the whole piece
            </p>
          )}
        </div>
        <ul className="border-t border-line">
          {doc.parts.map((part, i) => (
            <PartRow
              // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the piece
              key={i}
              part={part}
              weight={of?.parts[i]}
              onOpen={() => onOpen(i)}
            />
          ))}
        </ul>
        <div>
          <h3 className="mb-2 text-lg">Joins, in their order</h3>
          <ol className="border-t border-line">
            {doc.joins.map((join, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a join is its place in the order
              <li key={i} className="border-b border-line py-4">
                <JoinFields
                  join={join}
                  number={i + 1}
                  parts={doc.parts.map((part) => part.name)}
                  materials={materials}
                  colours={colours}
                  wrong={(name) => wrong(`piece.joins.${i}.${name}`) ?? wrong(`joins.${i}.${name}`)}
                  onChange={(next) => putJoin(i, next)}
                />
                <div className="mt-3 flex flex-wrap items-baseline gap-x-8 gap-y-1">
                  {of?.joins[i] && <Held row={of.joins[i]} />}
                  {i > 0 && (
                    <Button
                      kind="quiet"
                      label={`Join ${i + 1} one earlier`}
                      onClick={() => onChange({ joins: swapped(doc.joins, i) })}
                    >
                      ↑ earlier
                    </Button>
                  )}
                  <Button
                    kind="quiet"
                    label={`Take join ${i + 1} out`}
                    onClick={() => onChange({ joins: doc.joins.filter((_, k) => k !== i) })}
                  >
                    Take it out
                  </Button>
                </div>
              </li>
            ))}
          </ol>
          <div className="mt-3">
            <Button kind="quiet" onClick={() => void addJoin()}>
              Add a join
            </Button>
          </div>
        </div>
        <StandPart doc={doc} stands={of?.stands ?? null} parts={of?.parts ?? []} onChange={onChange} />
        {problem && !problem.path.includes("joins.") && (
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        )}
      </section>
    </div>
  );
}

function swapped(joins: Join[], i: number): Join[] {
  const out = [...joins];
  const [moved] = out.splice(i, 1);
  if (moved) out.splice(i - 1, 0, moved);
  return out;
}

function PartRow({
  part,
  weight,
  onOpen,
}: {
  part: Part;
  weight: Schemas["PartWeight"] | undefined;
  onOpen: () => void;
}) {
  const units = useUnits();
  const hidden = weight?.hidden.map((i) => passName(part.passes[i] as Part["passes"][number]).toLowerCase());
  return (
    <li className="grid grid-cols-[3.5rem_1fr_auto] items-baseline gap-x-3 border-b border-line py-2">
      <strong className="text-lg">{part.count} ×</strong>
      <span className="min-w-0">
        <button type="button" className="text-lg font-bold text-glass hover:underline" onClick={onOpen}>
          {part.name}
        </button>
        <span className="ml-3 text-quiet">
          {part.body
            ? "all round"
            : part.seen === "mould"
              ? "its mould side is seen"
              : "its open side is seen"}
        </span>
        {hidden && hidden.length > 0 && (
          <span className="block font-semibold text-heat">
            {hidden.join(", ")} {hidden.length === 1 ? "lies" : "lie"} on the face that is hidden.
          </span>
        )}
      </span>
      <span className="text-lg font-bold">{weight && amount(weight.each.value.likely, "mass", units)}</span>
    </li>
  );
}

function Held({ row }: { row: Schemas["JoinRow"] }) {
  const units = useUnits();
  return (
    <p>
      {row.kg > 0 && (
        <>
          <strong>{amount(row.kg, "mass", units)}</strong> a piece;{" "}
        </>
      )}
      {row.by_hand ? "hold each by hand" : "leave each in its prop"} for{" "}
      <strong>{range(row.holds, "s", units)}</strong>, do not move it for{" "}
      <strong>{range(row.sets, "s", units)}</strong>; hands for a piece: {duration(row.hands_s)}.
    </p>
  );
}

function StandPart({
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
  const middle = stands?.standing.middle_m ?? [0, 0, 0];
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
                spots={doc.parts.map((part, i) => ({
                  name: part.name,
                  kg: parts[i]?.all_kg ?? 0,
                  x_m: stand.spots[i]?.x_m ?? 0,
                  z_m: stand.spots[i]?.z_m ?? 0,
                }))}
                base_m={stand.base_m}
                middle={[middle[0] ?? 0, middle[2] ?? 0]}
                inside={stands.standing.inside_m > 0}
                length={(si) => amount(si, "length", units)}
                width={Math.min(width, 520)}
              />
              <dl className="mt-3 flex flex-wrap gap-x-10 gap-y-3">
                <Fact name="of what is safe, in the foot">
                  <span className={stands.foot_frac > 1 ? "text-heat" : ""}>
                    {amount(stands.foot_frac, "share", units)}
                  </span>
                </Fact>
                <Fact name="foot that would be safe">
                  {amount(stands.foot_needs_m, "length", units)} thick
                </Fact>
                <Fact name="times over the wire carries it">{stands.hangs.toFixed(1)}</Fact>
              </dl>
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

const firstStand = (parts: number): Stand => ({
  spots: Array.from({ length: parts }, (_, i) => ({ x_m: 0, z_m: 0.02 + 0.05 * i })),
  base_m: 0.08,
  base_deep_m: 0.06,
  foot_wide_m: 0.03,
  foot_thick_m: 0.01,
  wire_m: 0.0005,
  wire_in_m: 0.02,
});
