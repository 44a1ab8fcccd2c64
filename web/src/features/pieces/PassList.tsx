import { amount, range, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Button } from "../../shared/ui/plain";
import { type Pass, passName, passTone } from "./passes";
import type { PartFigures } from "./queries";

interface Props {
  passes: Pass[];
  figures: PartFigures | undefined;
  materials: Record<string, string>;
  selected: number;
  onSelect: (index: number) => void;
  onMove: (index: number, by: number) => void;
}

/** The passes of a build in their order, each with its grams and how long it sets. */
export function PassList({ passes, figures, materials, selected, onSelect, onMove }: Props) {
  const units = useUnits();
  return (
    <ol aria-label="Passes" className="-mx-6 border-t border-line">
      {passes.map((pass, i) => {
        const row = figures?.rows.find((r) => r.index === i);
        const fault = figures?.faults.find((f) => f.index === i);
        const chosen = i === selected;
        const tone = passTone(pass);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a pass is its place in the build
          <li key={i} className={`border-b border-line ${chosen ? "bg-raised" : ""}`}>
            <button
              type="button"
              aria-current={chosen ? "true" : undefined}
              onClick={() => onSelect(i)}
              className={`grid w-full grid-cols-[1.9rem_1fr_auto] gap-x-2 border-l-4 px-5 py-2.5 text-left ${chosen ? "border-glass" : "border-transparent"}`}
            >
              <span className="text-lg font-bold">{i + 1}</span>
              <span className="text-lg leading-tight font-bold">{passName(pass)}</span>
              <span className="text-lg font-bold">
                {row && row.finished.value.likely > 0 ? gramsOf(row.finished.value.likely, units) : ""}
              </span>
              <span aria-hidden className="pt-1.5">
                {tone && (
                  <span className="block h-3.5 w-3.5 border border-ink" style={{ background: tone }} />
                )}
              </span>
              <span className={`col-span-2 text-sm ${fault ? "font-semibold text-heat" : "text-quiet"}`}>
                {fault ? fault.words : notes(pass, row, materials, units).join(", ")}
              </span>
            </button>
            {chosen && passes.length > 1 && (
              <div className="flex gap-5 pb-2 pl-14 text-sm">
                {i > 0 && (
                  <Button
                    kind="quiet"
                    onClick={() => onMove(i, -1)}
                    label={`${passName(pass)} one pass earlier`}
                  >
                    ↑ earlier
                  </Button>
                )}
                {i < passes.length - 1 && (
                  <Button
                    kind="quiet"
                    onClick={() => onMove(i, 1)}
                    label={`${passName(pass)} one pass later`}
                  >
                    ↓ later
                  </Button>
                )}
              </div>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function notes(
  pass: Pass,
  row: PartFigures["rows"][number] | undefined,
  materials: Record<string, string>,
  units: ReturnType<typeof useUnits>,
): string[] {
  const out: string[] = [];
  if ("melt" in pass) out.push((materials[pass.melt.material] ?? pass.melt.material).toLowerCase());
  if ("others" in pass && pass.others.length > 0) out.push(`${pass.others.length + 1} melts`);
  if ("strokes_count" in pass) out.push(`${pass.strokes_count} strokes`);
  if ("inside_m" in pass) out.push(`${amount(pass.inside_m, "length", units)} inside`);
  else if (row && row.thick_m > 0) out.push(amount(row.thick_m, "length", units));
  if (row?.setting)
    out.push(`sets ${range(row.setting.sets, "s", units)}, ${row.setting.place.toLowerCase()}`);
  return out;
}

/** Less than a scale of a tenth of a gram shows. */
const TRACE_KG = 0.00005;

const gramsOf = (kg: number, units: Units) => (kg < TRACE_KG ? "a trace" : amount(kg, "mass", units));
