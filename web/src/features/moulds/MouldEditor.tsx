import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf, type Schemas } from "../../api/client";
import { type Kind, MouldFromAbove } from "../../drawings/MouldFromAbove";
import { Section } from "../../drawings/Section";
import { amount, number } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { choicesQuery } from "../../shared/kitchen";
import { type Is, isOf } from "../../shared/moulds";
import { pointsOf } from "../../shared/points";
import type { Cavity } from "../../shared/shapes";
import { Choice, Pick } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { Item } from "../../shared/ui/Item";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, Notice, TextField } from "../../shared/ui/plain";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useThing } from "../../shared/useThing";
import { CavityFields } from "./CavityFields";
import { DrawingFields } from "./DrawingFields";
import { DrawingPlan } from "./DrawingPlan";
import { freshDrawing, toDrawing } from "./drawing";
import { cavityFiguresQuery, freshCavity, type Mould } from "./queries";
import { asCutter, freshCutter, SheetFields, toSheet } from "./SheetFields";
import { SheetPlan } from "./SheetPlan";

const FIRST_BASE = { length_m: 0.275, width_m: 0.135 };
const BASE_SIZES = [
  { key: "length_m", label: "Base, long" },
  { key: "width_m", label: "Base, wide" },
] as const;

/** Refusals of these stand beside their field. */
const OWN_FIELDS = new Set([
  "diameter_m",
  "depth_m",
  "water_kg",
  "draft_rad",
  "edge_m",
  "length_m",
  "width_m",
  "corner_m",
  "floor_m",
  "tips",
  "inner_frac",
  "count",
]);
const FIRST_MAT: Mould["mat"] = { material: "silicone", thickness_m: 0.001 };

export function MouldEditor({
  stored,
  onRemove,
}: {
  stored: Schemas["StoredMould"];
  onRemove: (id: string, version: number) => void;
}) {
  const units = useUnits();
  const thing = useThing("mould", stored);
  const choices = useQuery(choicesQuery).data;
  const { doc, change } = thing;
  const [chosen, setChosen] = useState(0);
  const [cut, setCut] = useState(0);
  const [melt, setMelt] = useState("dark");
  const index = Math.min(chosen, doc.cavities.length - 1);
  const under = doc.mat?.thickness_m ?? doc.wall_m;
  const all = useQueries({
    queries: doc.cavities.map((c, i) => cavityFiguresQuery(c, under, i === index ? cut : 0)),
  });
  const query = all[index];
  const cavity = doc.cavities[index];
  const drawing = cavity?.shape.kind === "lines" ? cavity.shape : null;
  const is = isOf(doc, index);
  const figures = query?.data;
  const problem = query?.error ? problemOf(query.error) : null;
  const lastOf = (path: string) => path.split(".").at(-1) ?? "";
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  const wrongSize = (field: string) =>
    problem && lastOf(problem.path) === field ? wordProblem(problem, units) : undefined;
  const edit = (patch: Partial<Cavity>) =>
    change({
      cavities: doc.cavities.map((c, i) => {
        const edited = { ...c, ...patch };
        return i !== index ? c : doc.sheet ? asCutter(edited) : edited;
      }),
    });
  const kinds = all.flatMap((q, i): Kind[] => {
    const kind = doc.cavities[i];
    return q.data && kind ? [{ name: kind.name, count: kind.count, rim: pointsOf(q.data.rim) }] : [];
  });
  const length = (si: number) => amount(si, "length", units);
  const material = choices?.moulds.find((m) => m.key === doc.material);
  const chooseMaterial = (key: Mould["material"]) => {
    const chosen = choices?.moulds.find((m) => m.key === key);
    change({
      material: key,
      bears_degc: chosen?.bears_degc ?? doc.bears_degc,
      wall_m: chosen?.wall_m ?? doc.wall_m,
    });
  };
  return (
    <div className="grid min-h-full xl:grid-cols-[1fr_320px]">
      <section className="px-8 py-6">
        <TextField large label={`Name of the ${is}`} value={doc.name} onChange={(name) => change({ name })} />
        <SaveMark thing={thing} />
        {doc.sheet && <SheetPlan id={stored.id} mould={doc} sheet={doc.sheet} chosen={index} />}
        {drawing && (
          <DrawingPlan
            id={stored.id}
            shape={drawing}
            material={melt}
            count={cavity?.count ?? 1}
            onChange={(lines) => edit({ shape: { ...drawing, lines } })}
          />
        )}
        {is === "mould" && figures && (
          <>
            <Section section={figures.section} length={length} />
            <label className="mt-1 flex max-w-md items-center gap-4 text-quiet">
              cut at
              <input
                type="range"
                className="flex-1 accent-[var(--glass)]"
                min={-0.95}
                max={0.95}
                step={0.05}
                value={cut}
                aria-label="Where the cavity is cut"
                onChange={(event) => setCut(Number(event.target.value))}
              />
              {cut === 0 ? "the middle" : length((Math.abs(cut) * figures.section.along_m) / 2)}
            </label>
            <dl
              className={`mt-4 flex flex-wrap gap-x-12 gap-y-3 ${query.isPlaceholderData ? "opacity-50" : ""}`}
            >
              <Item name="holds">
                <Figure of={figures.volume} name="Volume" className="text-3xl" />
              </Item>
              <Item name="open surface">
                <Figure of={figures.open} name="Open surface" className="text-3xl" />
              </Item>
              <Item name="floor and wall">
                <Figure of={figures.area} name="Floor and wall" className="text-3xl" />
              </Item>
              <Item name="thick, full, in the mean">
                <Figure of={figures.thickness} name="Thickness" className="text-3xl" />
              </Item>
            </dl>
            {kinds.length === doc.cavities.length && (
              <MouldFromAbove kinds={kinds} chosen={index} owned={doc.owned} />
            )}
            {figures.disagree && figures.weighed_m3 !== null && (
              <div className="mt-5 max-w-xl">
                <Notice tone="hot">
                  Sizes and water disagree: measured {amount(figures.measured_m3, "volume", units)}, weighed{" "}
                  {amount(figures.weighed_m3, "volume", units)},{" "}
                  {number(Math.abs(figures.weighed_m3 / figures.measured_m3 - 1) * 100, 0)} % apart, more than{" "}
                  {number(figures.tolerance_frac * 100, 0)} % of measuring explains. The weight is used.
                  Measure again: is the opening or the widest place meant, was the water level with the rim?
                </Notice>
              </div>
            )}
          </>
        )}
        {is === "mould" && problem && !OWN_FIELDS.has(lastOf(problem.path)) && (
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        )}
      </section>
      <section aria-label="Measurements" className="space-y-5 bg-panel px-7 py-6">
        <h2 className="text-xl">{WORDS[is].measured}</h2>
        <Choice
          label="It is"
          value={is}
          options={[
            { key: "mould", name: "a mould" },
            { key: "sheet", name: "a sheet that is cut" },
            { key: "drawing", name: "a drawing, piped over" },
          ]}
          onChange={(key) => {
            if (key !== is) change(made(key, doc, choices?.moulds ?? []));
          }}
        />
        {doc.cavities.length > 1 && (
          <Pick
            label={WORDS[is].kind}
            value={String(index)}
            options={doc.cavities.map((c, i) => ({ key: String(i), name: c.name }))}
            onChange={(key) => setChosen(Number(key))}
          />
        )}
        {cavity && <CavityFields key={index} cavity={cavity} is={is} onChange={edit} wrong={wrongSize} />}
        {drawing && (
          <DrawingFields
            shape={drawing}
            material={melt}
            onMaterial={setMelt}
            onChange={(shape) => edit({ shape })}
          />
        )}
        <div className="flex flex-wrap gap-x-5">
          <Button
            kind="quiet"
            onClick={() => {
              const n = doc.cavities.length + 1;
              const fresh = FRESH[is](n);
              change({ cavities: [...doc.cavities, fresh] });
              setChosen(doc.cavities.length);
            }}
          >
            Add another kind
          </Button>
          {doc.cavities.length > 1 && (
            <Button
              kind="quiet"
              onClick={() => change({ cavities: doc.cavities.filter((_, i) => i !== index) })}
            >
              Remove this kind
            </Button>
          )}
        </div>
        <hr className="border-line" />
        {doc.sheet && (
          <SheetFields
            sheet={doc.sheet}
            onChange={(sheet) => change({ sheet })}
            wrong={(field) =>
              thing.problem?.path.endsWith(`sheet.${field}`) ? wordProblem(thing.problem, units) : undefined
            }
          />
        )}
        <Pick
          label={WORDS[is].on}
          value={doc.material}
          options={(choices?.moulds ?? []).map((m) => ({
            key: m.key,
            name: m.name,
            note: `bears ${amount(m.bears_degc, "temperature", units)}`,
          }))}
          onChange={chooseMaterial}
        />
        <NumberField
          label="Bears at most"
          quantity="temperature"
          value={doc.bears_degc}
          onChange={(v) => change({ bears_degc: v })}
          error={wrong("bears_degc")}
          step={5}
        />
        {(material?.bears_degc ?? 999) < 130 && (
          <Notice tone="hot">Not for hot sugar: a pour into it is refused.</Notice>
        )}
        <NumberField
          label="Wall"
          quantity="length"
          value={doc.wall_m}
          onChange={(v) => change({ wall_m: v })}
          error={wrong("wall_m")}
          step={0.5}
        />
        {is === "mould" && (
          <>
            <Choice
              label="Floor"
              value={doc.mat ? "mat" : "own"}
              options={[
                { key: "own", name: "its own" },
                { key: "mat", name: "rings or bars on a mat" },
              ]}
              onChange={(key) => change({ mat: key === "mat" ? FIRST_MAT : null })}
            />
            {doc.mat && (
              <NumberField
                label="Mat, silicone"
                quantity="length"
                value={doc.mat.thickness_m}
                onChange={(thickness_m) => change({ mat: { material: "silicone", thickness_m } })}
                step={0.5}
              />
            )}
            {doc.material === "polycarbonate" && (
              <Choice
                label="Base"
                value={doc.base ? "loose" : "fixed"}
                options={[
                  { key: "fixed", name: "fixed" },
                  { key: "loose", name: "loose, for a film" },
                ]}
                onChange={(key) => change({ base: key === "loose" ? FIRST_BASE : null })}
              />
            )}
            {doc.base && (
              <div className="grid grid-cols-2 gap-4">
                {BASE_SIZES.map(({ key, label }) => (
                  <NumberField
                    key={key}
                    label={label}
                    quantity="length"
                    value={doc.base?.[key] ?? null}
                    onChange={(m) => doc.base && change({ base: { ...doc.base, [key]: m } })}
                    error={wrong(`base.${key}`)}
                    step={5}
                  />
                ))}
              </div>
            )}
            <NumberField
              label="Finest detail, wide"
              quantity="length"
              value={doc.detail_m}
              onChange={(detail_m) => change({ detail_m })}
              onClear={() => change({ detail_m: null })}
              error={wrong("detail_m")}
              step={0.1}
            />
            <Choice
              label="A film of oil"
              value={doc.oiled ? "oiled" : "dry"}
              options={[
                { key: "dry", name: "never" },
                { key: "oiled", name: "the thinnest" },
              ]}
              onChange={(key) => change({ oiled: key === "oiled" })}
            />
            {doc.oiled && doc.material === "polycarbonate" && (
              <Notice>A stiff mould is wiped and dry, nothing in it: oil leaves marks on the gloss.</Notice>
            )}
          </>
        )}
        <NumberField
          label={WORDS[is].owned}
          quantity="count"
          value={doc.owned}
          onChange={(v) => change({ owned: Math.round(v) })}
          step={1}
        />
        <Button kind="quiet" onClick={() => onRemove(stored.id, thing.version)}>
          Remove this {is}
        </Button>
      </section>
    </div>
  );
}

const WORDS: Record<Is, { measured: string; kind: string; on: string; owned: string }> = {
  mould: { measured: "Measured", kind: "Kind of cavity", on: "Material", owned: "Owned" },
  sheet: { measured: "Cutters", kind: "Cutter", on: "Poured on", owned: "Sheets at a time" },
  drawing: { measured: "Drawings", kind: "Drawing", on: "Piped on", owned: "Boards at a time" },
};

const FRESH: Record<Is, (n: number) => Cavity> = {
  mould: (n) => freshCavity(`Cavity ${n}`),
  sheet: (n) => freshCutter(`Cutter ${n}`),
  drawing: (n) => freshDrawing(`Drawing ${n}`),
};

/** A mould made a sheet or a drawing, or either made a mould. */
function made(is: Is, doc: Mould, moulds: Schemas["MouldChoice"][]): Partial<Mould> {
  if (is === "drawing") return toDrawing(moulds);
  const plain = doc.cavities.filter(({ shape }) => shape.kind !== "lines");
  const cavities = plain.length > 0 ? plain : [freshCavity("Disc")];
  return is === "sheet" ? toSheet({ ...doc, cavities }, moulds) : { sheet: null, cavities };
}
