import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { inUnit, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Choice, Notice, TextField } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import type { Wording } from "../../shared/wording";
import { Keeps } from "./Keeps";
import { FillFields, FillingFields, Layer } from "./KindFields";
import { MeltFields } from "./MeltFields";
import { DipFields, HeapFields, PasteFields } from "./MoreKinds";
import { PassNumber } from "./PassNumber";
import { type Part, type Pass, passName } from "./passes";
import { type PartFigures, solvePass } from "./queries";

interface Props {
  part: Part;
  index: number;
  figures: PartFigures | undefined;
  materials: Schemas["MaterialShown"][];
  colours: string[];
  wrong: (path: string) => string | undefined;
  onChange: (pass: Pass) => void;
}

/** What a weight or volume typed for a pass is turned into. */
const SOLVED: Partial<Record<Pass["kind"], string>> = {
  fill: "level_m",
  shell: "thick_m",
  detail: "thick_m",
  filling: "gap_m",
  dip: "thick_m",
};

/** When a pass bears the next. */
const BEARS: Record<Wording, string> = { sugar: "holds its shape", fat: "is touch-set" };

/** Everything about one pass that can be set, and what it comes to. */
export function PassFields({ part, index, figures, materials, colours, wrong, onChange }: Props) {
  const pass = part.passes[index];
  const units = useUnits();
  const [problem, setProblem] = useState<Problem | null>(null);
  if (!pass) return null;
  const row = figures?.rows.find((r) => r.index === index);
  const fault = figures?.faults.find((f) => f.index === index);
  const depth = figures?.section.depth_m ?? 0.02;
  const at = (name: string) => wrong(`part.passes.${index}.${name}`) ?? wrong(`passes.${index}.${name}`);
  const change = (patch: Partial<Pass>) => {
    setProblem(null);
    onChange({ ...pass, ...patch } as Pass);
  };
  const by = async (given: { finished_kg: number | null; volume_m3: number | null }) => {
    try {
      const value = await solvePass({ part, index, ...given });
      const name = SOLVED[pass.kind] ?? "thick_m";
      change({ [name]: value, ...(pass.kind === "filling" ? { kg: null } : {}) } as Partial<Pass>);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const solved = pass.kind in SOLVED;
  return (
    <div className="space-y-5">
      <h2 className="text-xl">{passName(pass)}</h2>
      <Waits part={part} index={index} figures={figures} materials={materials} />
      {fault && (
        <Notice tone="hot">
          {fault.words}
          {fault.limit !== null && <> (limit: {inUnit(fault.limit, fault.unit, units)})</>}.
        </Notice>
      )}
      {"melt" in pass && (
        <MeltFields
          melt={pass.melt}
          materials={materials}
          colours={colours}
          label="Melt"
          onChange={(melt) => change({ melt })}
        />
      )}
      {pass.kind === "fill" && <FillFields pass={pass} {...{ depth, at, change, materials, colours }} />}
      {(pass.kind === "shell" || pass.kind === "detail") && (
        <Layer
          pass={pass}
          depth={depth}
          across={figures?.section.across_m ?? depth}
          rim={figures?.rim ?? []}
          at={at}
          change={change}
        />
      )}
      {pass.kind === "filling" && <FillingFields pass={pass} depth={depth} at={at} change={change} />}
      {pass.kind === "turned" && (
        <PassNumber
          {...{ pass, at, change }}
          name="ball_kg"
          label="The whole ball's melt"
          quantity="mass"
          step={1}
          large
        />
      )}
      {pass.kind === "stick" && (
        <>
          <PassNumber
            {...{ pass, at, change }}
            name="diameter_m"
            label="Stick, diameter"
            quantity="length"
            step={0.5}
          />
          <PassNumber {...{ pass, at, change }} name="inside_m" label="Inside" quantity="length" step={1} />
          <Choice
            label="It"
            value={pass.taken_out ? "out" : pass.reseated ? "reseated" : "in"}
            options={[
              { key: "in", name: "stays in" },
              { key: "reseated", name: "is drawn back, reseated" },
              { key: "out", name: "only makes the hole" },
            ]}
            onChange={(key) => change({ taken_out: key === "out", reseated: key === "reseated" })}
          />
        </>
      )}
      {(pass.kind === "drizzle" || pass.kind === "dollop" || pass.kind === "cluster") && (
        <HeapFields pass={pass} depth={depth} at={at} change={change} />
      )}
      {pass.kind === "dip" && (
        <DipFields pass={pass} {...{ depth, at, change, materials, colours }} film={row?.thick_m} />
      )}
      {pass.kind === "paste" && (
        <PasteFields pass={pass} depth={depth} at={at} change={change} volume={row?.volume_m3} />
      )}
      {pass.kind === "print" && (
        <TextField label="What" value={pass.name} onChange={(name) => change({ name })} />
      )}
      {(pass.kind === "dust" || pass.kind === "centre") && (
        <>
          <TextField label="What" value={pass.name} onChange={(name) => change({ name })} />
          <PassNumber
            {...{ pass, at, change }}
            name="kg"
            label="A casting takes"
            quantity="mass"
            step={0.1}
          />
        </>
      )}
      {(pass.kind === "dust" || pass.kind === "print") && (
        <Choice
          label="Goes"
          value={pass.on_wet ? "wet" : "empty"}
          options={[
            { key: "empty", name: "into the empty mould" },
            { key: "wet", name: "on the wet melt" },
          ]}
          onChange={(key) => change({ on_wet: key === "wet" })}
        />
      )}
      {pass.kind === "centre" && (
        <PassNumber {...{ pass, at, change }} name="volume_m3" label="It displaces" quantity="volume" />
      )}
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
      {pass.kind === "shell" && row?.keeps && <Keeps keeps={row.keeps} pass={pass} onChange={change} />}
    </div>
  );
}

/** The state a pass needs of the one before it, and from when that is reached. */
function Waits({ part, index, figures, materials }: Pick<Props, "part" | "index" | "figures" | "materials">) {
  const units = useUnits();
  const pass = part.passes[index];
  const before = figures?.rows.filter((r) => r.index < index && r.melted).at(-1);
  const under = before && part.passes[before.index];
  if (!pass || !before?.sets || !under) return null;
  const soft =
    before.index === index - 1 &&
    (pass.kind === "stick" || ((pass.kind === "dust" || pass.kind === "print") && pass.on_wet));
  const wording =
    "melt" in under ? materials.find((m) => m.key === under.melt.material)?.family?.rows : undefined;
  return (
    <p className="text-quiet">
      {soft
        ? `While the ${passName(under).toLowerCase()} is still soft.`
        : `Once the ${passName(under).toLowerCase()} ${BEARS[wording ?? "fat"]}: after ${range(before.sets, "s", units)}.`}
    </p>
  );
}
