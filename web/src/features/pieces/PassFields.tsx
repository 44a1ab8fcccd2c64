import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { amount, duration, inUnit, range, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { pointsOf } from "../../shared/points";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice } from "../../shared/ui/plain";
import type { Wording } from "../../shared/wording";
import { Covering } from "./Covering";
import { DustSwatches } from "./DustSwatches";
import { Keeps } from "./Keeps";
import { type KindShown, type Part, type Pass, passName } from "./passes";
import { wordsOf } from "./passWords";
import { type PartFigures, solvePass } from "./queries";
import { type Around, isSet, NOTHING_ROUND, ShapeField } from "./ShapeField";
import { WireBears } from "./WireBears";

interface Props {
  part: Part;
  index: number;
  figures: PartFigures | undefined;
  kinds: KindShown[];
  materials: Schemas["MaterialShown"][];
  colours: string[];
  wrong: (path: string, label?: string) => string | undefined;
  onChange: (pass: Pass) => void;
  /** Another pass right after this one. */
  onAfter: (pass: Pass) => void;
}

/** When a pass bears the next. */
const BEARS: Record<Wording, string> = { sugar: "holds its shape", fat: "is touch-set" };

/** Everything about one pass that can be set, and what it comes to. */
export function PassFields({
  part,
  index,
  figures,
  kinds,
  materials,
  colours,
  wrong,
  onChange,
  onAfter,
}: Props) {
  const pass = part.passes[index];
  const units = useUnits();
  const [problem, setProblem] = useState<Problem | null>(null);
  const kind = kinds.find((k) => k.kind === pass?.kind);
  if (!pass || !kind) return null;
  const row = figures?.rows.find((r) => r.index === index);
  const fault = figures?.faults.find((f) => f.index === index);
  const { depth, across } = figures
    ? { depth: figures.section.depth_m, across: figures.section.across_m }
    : NOTHING_ROUND;
  const byHand = part.mould_id === null && !part.body;
  const change = (patch: Record<string, unknown>) => {
    setProblem(null);
    onChange({ ...pass, ...patch } as Pass);
  };
  const solved = kind.fields.find((field) => field.name === kind.solved_by);
  const by = async (given: { finished_kg: number | null; volume_m3: number | null }) => {
    if (!solved) return;
    try {
      const value = await solvePass({ part, index, ...given });
      change({ [solved.name]: value, ...(solved.told?.instead ? { [solved.told.instead]: null } : {}) });
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const around: Around = {
    materials,
    colours,
    depth,
    across,
    rim: pointsOf(figures?.rim ?? []),
    parts: [],
    row,
    wrong: (name, label) =>
      wrong(`part.passes.${index}.${name}`, label) ?? wrong(`passes.${index}.${name}`, label),
    change,
  };
  return (
    <div className="space-y-5">
      <h2 className="text-xl">{passName(pass)}</h2>
      {kind.after ? (
        <p className="text-quiet">Once it is out of its mould and no longer cold.</p>
      ) : (
        <Waits part={part} index={index} figures={figures} materials={materials} />
      )}
      {fault && (
        <Notice tone="hot">
          {fault.words}
          {fault.limit !== null && <> (limit: {inUnit(fault.limit, fault.unit, units)})</>}.
        </Notice>
      )}
      {kind.fields
        .filter((field) => isSet(pass, field) && !IN_KEEPS.includes(field.name))
        .filter((field) => !(byHand && field.name === "on_wet"))
        .map((field) => (
          <ShapeField
            key={`${index} ${field.name}`}
            of={pass}
            field={field}
            words={wordsOf(pass.kind, field.name)}
            {...around}
          />
        ))}
      {row && row.left_m !== null && (
        <p className="text-quiet">{amount(row.left_m, "length", units)} are left under it.</p>
      )}
      {row?.stripes && <p className="text-quiet">{stripesLie(row.stripes, units)}</p>}
      {"line_m" in pass && pass.others.length > 0 && (
        <p className="text-quiet">
          The other melts float on the bath, the good side goes in first. Each piece takes its share along: it
          is planned to be used up with the last one.
        </p>
      )}
      {row?.coat && <CoatWords of={row.coat} />}
      {row?.swatches && <DustSwatches of={row.swatches} />}
      {row?.wire && <WireBears of={row.wire} />}
      {row?.covering && <Covering of={row.covering} onWhite={onAfter} />}
      {solved && (
        <div className="grid grid-cols-2 gap-5">
          <NumberField
            label="Volume"
            quantity="volume"
            value={row?.volume_m3 ?? null}
            onChange={(volume_m3) => void by({ volume_m3, finished_kg: null })}
            error={problem?.path === "volume_m3" ? wordProblem(problem, units) : undefined}
          />
          <NumberField
            label="Weight, finished"
            quantity="mass"
            value={row?.finished.value.likely ?? null}
            onChange={(finished_kg) => void by({ finished_kg, volume_m3: null })}
            error={problem?.path === "finished_kg" ? wordProblem(problem, units) : undefined}
          />
        </div>
      )}
      {"dwell_s" in pass && row?.setting?.keeps && (
        <Keeps keeps={row.setting.keeps} pass={pass} onChange={change} />
      )}
    </div>
  );
}

/** How a coat dries, and what its spirit lacks. */
function CoatWords({ of }: { of: Schemas["CoatTold"] }) {
  const units = useUnits();
  return (
    <>
      {of.weak && (
        <Notice tone="hot">
          Under {amount(of.least_frac, "share", units)} alcohol it dries slowly: its water draws into the face
          and lifts what is under it. Take a stronger spirit or lemon extract, or go thin and wait.
        </Notice>
      )}
      {of.dries_s > 0 && (
        <p className="text-quiet">A coat is dry in about {duration(of.dries_s)} in this kitchen.</p>
      )}
    </>
  );
}

function stripesLie({ counts, wide_m }: Schemas["Stripes"], units: Units): string {
  const all = counts.reduce((sum, n) => sum + n, 0);
  return `${all} stripes side by side, each ${amount(wide_m, "length", units)} wide as it lies: ${counts.join(", ")} of the melts in turn.`;
}

/** Shown beside what they bring. */
const IN_KEEPS = ["dwell_s"];

/** The state a pass needs of the one before it, and from when that is reached. */
function Waits({ part, index, figures, materials }: Pick<Props, "part" | "index" | "figures" | "materials">) {
  const units = useUnits();
  const pass = part.passes[index];
  const before = figures?.rows.filter((r) => r.index < index && r.melted).at(-1);
  const under = before && part.passes[before.index];
  const sets = before?.setting?.sets;
  if (!pass || !sets || !under) return null;
  const soft = before.index === index - 1 && figures?.rows.find((r) => r.index === index)?.soft != null;
  const wording =
    "melt" in under ? materials.find((m) => m.key === under.melt.material)?.family?.rows : undefined;
  return (
    <p className="text-quiet">
      {soft
        ? `Onto the ${passName(under).toLowerCase()}, while still soft.`
        : `On the ${passName(under).toLowerCase()}, once it ${BEARS[wording ?? "fat"]}: after ${range(sets, "s", units)}.`}
    </p>
  );
}
