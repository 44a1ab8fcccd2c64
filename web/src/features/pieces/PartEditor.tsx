import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { BuildSection, type DrawnLayer } from "../../drawings/BuildSection";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { propertiesQuery } from "../../shared/kitchen";
import { type Is, isOf } from "../../shared/moulds";
import { pointsOf } from "../../shared/points";
import { meltTone, toneOf } from "../../shared/tones";
import { Choice, Pick } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, Notice } from "../../shared/ui/plain";
import { useWidth } from "../../shared/useWidth";
import { meltsIn } from "../../shared/wording";
import { Base } from "./Base";
import { Cooling } from "./Cooling";
import { edgeOf, withEdge } from "./edges";
import { OneRound } from "./OneRound";
import { OwnWay } from "./OwnWay";
import { PassFields } from "./PassFields";
import { PassList } from "./PassList";
import {
  groundOf,
  type KindShown,
  lastMelt,
  offeredAs,
  type Part,
  type Pass,
  passName,
  passTone,
} from "./passes";
import { addPass, kindsQuery, type PartFigures, usePart } from "./queries";

const NARROWEST = 520;

interface Props {
  head: React.ReactNode;
  part: Part;
  moulds: Schemas["StoredMould"][];
  colours: string[];
  onChange: (part: Part) => void;
  foot: React.ReactNode;
}

const PRESS = "Press a layer, drag its edge.";
const SEEN: Record<KindShown["on"][number], string> = {
  mould: PRESS,
  body: PRESS,
  drawing: "From above, to scale.",
  hand: "As it lies, to scale.",
};
const ROUND_OF: Record<Is, string> = { mould: "mould", sheet: "sheet", drawing: "board" };

/** A part's build: its passes in order, its section, and the pass that is chosen. */
export function PartEditor({ head, part, moulds, colours, onChange, foot }: Props) {
  const units = useUnits();
  const [chosen, setChosen] = useState(0);
  const [cut, setCut] = useState(0);
  const [ref, width] = useWidth<HTMLElement>(640);
  const index = Math.min(chosen, part.passes.length - 1);
  const { figures, asked, error, dim, dimSets, usual } = usePart(part, cut);
  const [refused, setRefused] = useState<Problem | null>(null);
  const problem = refused ?? (error ? problemOf(error) : null);
  const wrong = (path: string, label?: string) =>
    problem?.path === path ? wordProblem(problem, units, label) : undefined;
  const materials = meltsIn(useQuery(propertiesQuery).data?.groups);
  const names = Object.fromEntries(materials.map((m) => [m.key, m.name]));
  const mould = moulds.find((of) => of.id === part.mould_id)?.doc;
  const ground = groundOf(part, mould);
  const change = (patch: Partial<Part>) => {
    setRefused(null);
    onChange({ ...part, ...patch });
  };
  const put = (pass: Pass, at = index) =>
    change({ passes: part.passes.map((p, i) => (i === at ? pass : p)) });
  const move = (from: number, by: number) => {
    const passes = [...part.passes];
    const [moved] = passes.splice(from, 1);
    if (moved) passes.splice(from + by, 0, moved);
    setChosen(from + by);
    change({ passes });
  };
  const inOrder = (passes: Pass[], order: number[]) =>
    change({ passes: order.flatMap((i) => passes[i] ?? []) });
  const kinds = useQuery(kindsQuery).data ?? [];
  const additions = kinds
    .filter((kind) => kind.on.includes(ground))
    .flatMap((kind) => kind.ways.map((way) => ({ kind: kind.kind, way })));
  const add = async (which: number) => {
    const addition = additions[which];
    if (!addition) return;
    try {
      const added = await addPass({ part, ...addition });
      setChosen(added.index);
      onChange(added.part);
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  const outOfOrder = usual.length === part.passes.length && usual.some((from, i) => from !== i);
  const bends = materials.find((m) => m.key === lastMelt(part).material)?.family?.bends === true;
  return (
    <div className="grid min-h-full lg:grid-cols-[270px_1fr] xl:grid-cols-[290px_1fr_290px]">
      <section aria-label="The build" className="space-y-4 bg-panel px-6 py-6">
        {head}
        <PassList
          passes={part.passes}
          figures={figures}
          materials={names}
          selected={index}
          onSelect={setChosen}
          onMove={move}
        />
        <Pick
          label="Add a pass"
          value=""
          options={additions.map(({ kind, way }, i) => ({ key: String(i), name: offeredAs(kind, way) }))}
          onChange={(key) => void add(Number(key))}
        />
        {outOfOrder && (
          <Button kind="quiet" onClick={() => inOrder(part.passes, usual)}>
            Put them in the usual order
          </Button>
        )}
        <div className="space-y-4 border-t border-line pt-4">
          <Base part={part} moulds={moulds} wrong={wrong} onChange={change} />
          <NumberField
            label="A piece takes"
            quantity="count"
            value={part.count}
            onChange={(count) => change({ count: Math.round(count) })}
            step={1}
            digits={0}
          />
          {bends && (
            <Choice
              label="While it is soft"
              value={part.bent ? (part.released ? "release" : "bend") : "leave"}
              options={[
                { key: "leave", name: "leave it" },
                { key: "bend", name: "bend it in its mould" },
                { key: "release", name: "release it warm, bend it on a form" },
              ]}
              onChange={(key) => change({ bent: key !== "leave", released: key === "release" })}
            />
          )}
          {part.stays.length > 0 && <OwnWay stays={part.stays} onClear={() => change({ stays: [] })} />}
        </div>
        {foot}
      </section>
      <section aria-label="Section" className="min-w-0 px-7 py-6" ref={ref}>
        {figures && (
          <>
            <div className="flex flex-wrap items-baseline justify-between gap-x-8">
              <p className="text-quiet">{SEEN[ground]}</p>
              <p className="text-quiet">
                <Figure of={figures.finished} name="finished" className="text-3xl text-ink" dim={dim} />{" "}
                {ground === "hand" ? "of paste, one of them" : "finished, one casting"}
              </p>
            </div>
            <BuildSection
              section={figures.section}
              body={part.body ? toneOf(part.body.made_of) : null}
              on={ground === "hand" || ground === "body" ? ground : isOf(mould, part.cavity)}
              layers={drawn(figures, asked.passes, kinds, (row) => layerNote(row, units))}
              stick={stickOf(part)}
              selected={index}
              onSelect={setChosen}
              edge={edge(part, kinds, figures, index, cut)}
              onEdge={(height) => {
                const pass = part.passes[index];
                const row = figures.rows.find((r) => r.index === index);
                const kind = kinds.find((k) => k.kind === pass?.kind);
                if (pass && row && kind) put(withEdge(pass, kind, row, height, figures.section.depth_m));
              }}
              length={(si) => amount(si, "length", units)}
              width={Math.max(Math.min(width - 56, 760), NARROWEST)}
            />
            {(ground === "mould" || ground === "body") && (
              <label className="flex max-w-md items-center gap-3 text-sm text-quiet">
                {part.body ? "turn the piece" : "turn the cut"}
                <input
                  type="range"
                  aria-label="Where it is cut"
                  min={-0.95}
                  max={0.95}
                  step={0.05}
                  value={cut}
                  onChange={(event) => setCut(Number(event.target.value))}
                  className="h-6 flex-1"
                />
              </label>
            )}
            {ground !== "hand" && <Weights figures={figures} index={index} dim={dim} />}
            {ground === "hand" && <HandsTake figures={figures} />}
            {ground !== "hand" && figures.setting && (
              <div className={dimSets ? "opacity-50" : ""}>
                <OneRound
                  sets={figures.setting}
                  passes={asked.passes}
                  of={part.body ? "tray" : ROUND_OF[isOf(mould, part.cavity)]}
                />
                {figures.setting.cools && <Cooling cools={figures.setting.cools} />}
              </div>
            )}
          </>
        )}
        {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
      </section>
      <section aria-label="The pass" className="bg-panel px-6 py-6 lg:col-span-2 xl:col-span-1">
        <PassFields
          part={part}
          index={index}
          figures={figures}
          kinds={kinds}
          materials={materials}
          colours={colours}
          wrong={wrong}
          onChange={put}
          onAfter={(pass) => {
            setChosen(index + 1);
            change({ passes: part.passes.toSpliced(index + 1, 0, pass) });
          }}
        />
        {part.passes.length > 1 && (
          <div className="mt-6">
            <Button
              kind="quiet"
              onClick={() => change({ passes: part.passes.filter((_, i) => i !== index) })}
            >
              Take this pass out
            </Button>
          </div>
        )}
      </section>
    </div>
  );
}

/** What hands take for one that they model. */
function HandsTake({ figures }: { figures: PartFigures }) {
  const all = figures.rows.reduce((sum, row) => sum + row.hands_s, 0);
  return (
    <p className="mt-4 text-quiet">
      <strong className="text-2xl text-ink">{duration(all)}</strong> of hands, one of them
    </p>
  );
}

function Weights({ figures, index, dim }: { figures: PartFigures; index: number; dim: boolean }) {
  const row = figures.rows.find((r) => r.index === index);
  if (!row || row.finished.value.likely === 0 || row.swatches) return null;
  return (
    <dl className={`mt-4 flex flex-wrap gap-x-12 gap-y-3 ${dim ? "opacity-50" : ""}`}>
      {(
        [
          ["poured", row.poured],
          ["stays in it", row.finished],
        ] as const
      ).map(([name, of]) => (
        <div key={name} className="flex flex-col-reverse">
          <dt className="text-quiet">{name}, this pass</dt>
          <dd>
            <Figure of={of} name={name} className="text-2xl" />
          </dd>
        </div>
      ))}
      <div className="flex flex-col-reverse">
        <dt className="text-quiet">hands, one casting</dt>
        <dd className="text-2xl font-bold">
          {duration(row.hands_s + (row.setting ? row.setting.turned_s : 0))}
        </dd>
      </div>
    </dl>
  );
}

function stickOf(part: Part) {
  return part.passes.find((pass) => "use" in pass) ?? null;
}

function layerNote(row: PartFigures["rows"][number], units: ReturnType<typeof useUnits>): string {
  const thick = amount(row.thick_m, "length", units);
  const kg = row.finished.value.likely;
  return kg > 0 ? `${thick}, ${amount(kg, "mass", units)}` : thick;
}

function drawn(
  figures: PartFigures,
  passes: Pass[],
  kinds: KindShown[],
  note: (row: PartFigures["rows"][number]) => string,
): DrawnLayer[] {
  return figures.layers.flatMap((layer) => {
    const pass = passes[layer.index];
    const row = figures.rows.find((r) => r.index === layer.index);
    // what is drawn into a back shows what is behind it
    const tone = pass && ("deep_m" in pass ? "var(--ground)" : passTone(pass));
    if (!pass || !row || !tone) return [];
    const veins =
      "others" in pass ? pass.others.map((of) => ({ tone: meltTone(of.melt), share: of.share_frac })) : [];
    const marble = { veins, striped: row.stripes !== null };
    return [
      {
        ...layer,
        rings: layer.rings.map(pointsOf),
        tone,
        marble,
        grainy: kinds.find((k) => k.kind === pass.kind)?.grainy === true,
        name: passName(pass),
        note: note(row),
      },
    ];
  });
}

function edge(part: Part, kinds: KindShown[], figures: PartFigures, index: number, cut: number) {
  const pass = part.passes[index];
  const kind = kinds.find((k) => k.kind === pass?.kind);
  const row = figures.rows.find((r) => r.index === index);
  return pass && kind && row ? edgeOf(pass, kind, row, figures.section.depth_m, cut) : null;
}
