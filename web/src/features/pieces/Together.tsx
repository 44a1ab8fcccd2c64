import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { PartShape } from "../../drawings/PartShape";
import { amount, duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { mouldListQuery, propertiesQuery } from "../../shared/kitchen";
import { isOf } from "../../shared/moulds";
import { Figure } from "../../shared/ui/Figure";
import { Button, Notice } from "../../shared/ui/plain";
import { useDebounced } from "../../shared/useDebounced";
import { meltsIn } from "../../shared/wording";
import { GROUNDS } from "./Base";
import { JoinFields } from "./JoinFields";
import { MayBeEaten } from "./MayBeEaten";
import { groundOf, type Join, type Part, partTone, passName } from "./passes";
import { assemblyQuery, firstJoin, type Piece } from "./queries";
import { StandPart } from "./StandPart";

const PAUSE_MS = 120;
/** The widest part is drawn so wide, the others to its scale. */
const SHAPE_PX = 60;

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
  const widest = Math.max(
    0.01,
    ...(of?.parts ?? []).flatMap((row) => row.rings.flat(2).map((at) => 2 * Math.abs(at))),
  );
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
              scale={SHAPE_PX / widest}
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
        {of && <MayBeEaten of={of.eaten} />}
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
  scale,
  onOpen,
}: {
  part: Part;
  weight: Schemas["PartWeight"] | undefined;
  scale: number;
  onOpen: () => void;
}) {
  const units = useUnits();
  const mould = useQuery(mouldListQuery).data?.items.find((of) => of.id === part.mould_id)?.doc;
  const hidden = weight?.hidden.map((i) => passName(part.passes[i] as Part["passes"][number]).toLowerCase());
  return (
    <li className="grid grid-cols-[3.5rem_4rem_1fr_auto] items-center gap-x-3 border-b border-line py-2">
      <strong className="text-lg">{part.count} ×</strong>
      {weight ? <PartShape rings={weight.rings} tone={partTone(part)} scale={scale} /> : <span />}
      <span className="min-w-0">
        <button type="button" className="text-lg font-bold text-glass hover:underline" onClick={onOpen}>
          {part.name}
        </button>
        <span className="ml-3 text-quiet">{seenWords(part, mould)}</span>
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

/** Which face of a part is seen. */
function seenWords(part: Part, mould: Schemas["Mould"] | undefined): string {
  const ground = groundOf(part, mould);
  if (ground === "body") return "all round";
  if (ground === "hand") return "modelled by hand";
  const { below, above } = GROUNDS[isOf(mould, part.cavity)];
  return `${part.seen === "mould" ? below : above} is seen`;
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
