import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { problemOf, type Schemas } from "../../api/client";
import { MouldFromAbove } from "../../drawings/MouldFromAbove";
import { Section } from "../../drawings/Section";
import { amount, number } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { choicesQuery } from "../../shared/kitchen";
import { Button, Notice, Pick, TextField } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { NumberField } from "../../shared/ui/NumberField";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useThing } from "../../shared/useThing";
import { type Mould, mouldFiguresQuery, saveMould } from "./queries";

export function MouldEditor({
  stored,
  onRemove,
}: {
  stored: Schemas["StoredMould"];
  onRemove: (id: string, version: number) => void;
}) {
  const units = useUnits();
  const thing = useThing<Mould>(stored, "mould", saveMould);
  const choices = useQuery(choicesQuery).data;
  const { doc, change } = thing;
  const query = useQuery(mouldFiguresQuery(doc));
  const figures = query.data;
  const problem = query.error ? problemOf(query.error) : null;
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
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
        <TextField large label="Name of the mould" value={doc.name} onChange={(name) => change({ name })} />
        <SaveMark thing={thing} />
        {figures && (
          <>
            <Section section={figures.section} length={length} />
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
            </dl>
            <MouldFromAbove
              top={figures.section.top_m}
              bottom={figures.section.bottom_m}
              cavities={doc.cavities}
              owned={doc.owned}
            />
            {figures.disagree && figures.measured_m3 !== null && figures.weighed_m3 !== null && (
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
        {problem && !["diameter_m", "depth_m", "water_kg", "draft_rad"].includes(problem.path) && (
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        )}
      </section>
      <section aria-label="Measurements" className="space-y-5 bg-panel px-7 py-6">
        <h2 className="text-xl">Measured</h2>
        <NumberField
          label="Opening, diameter"
          quantity="length"
          value={doc.diameter_m}
          onChange={(v) => change({ diameter_m: v })}
          onClear={() => change({ diameter_m: null })}
          error={wrong("diameter_m")}
        />
        <NumberField
          label="Depth"
          quantity="length"
          value={doc.depth_m}
          onChange={(v) => change({ depth_m: v })}
          onClear={() => change({ depth_m: null })}
          error={wrong("depth_m")}
        />
        <NumberField
          label="Draft, from upright"
          quantity="angle"
          value={doc.draft_rad}
          onChange={(v) => change({ draft_rad: v })}
          error={wrong("draft_rad")}
          step={1}
          digits={1}
        />
        <NumberField
          label="Water it holds, one cavity"
          quantity="mass"
          value={doc.water_kg}
          onChange={(v) => change({ water_kg: v })}
          onClear={() => change({ water_kg: null })}
          error={wrong("water_kg")}
          hint="two of opening, depth and water are enough"
        />
        <hr className="border-line" />
        <Pick
          label="Material"
          value={doc.material}
          options={(choices?.moulds ?? []).map((m) => ({
            key: m.key as Mould["material"],
            name: m.name,
            note: `bears ${amount(m.bears_degc ?? 0, "temperature", units)}`,
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
        <div className="grid grid-cols-2 gap-6">
          <NumberField
            label="Cavities"
            quantity="count"
            value={doc.cavities}
            onChange={(v) => change({ cavities: Math.round(v) })}
            step={1}
          />
          <NumberField
            label="Owned"
            quantity="count"
            value={doc.owned}
            onChange={(v) => change({ owned: Math.round(v) })}
            step={1}
          />
        </div>
        <Button kind="quiet" onClick={() => onRemove(stored.id, thing.version)}>
          Remove this mould
        </Button>
      </section>
    </div>
  );
}

function Item({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-quiet">{name}</dt>
      <dd>{children}</dd>
    </div>
  );
}
