import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf, type Schemas } from "../../api/client";
import { CuttingPlan } from "../../drawings/CuttingPlan";
import { amount, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { pointsOf } from "../../shared/points";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice } from "../../shared/ui/plain";
import { type Mould, type Sheet, sheetQuery } from "./queries";

/** What is cut out of a sheet: every piece in its place, how many, what is left; and to scale on paper. */
export function SheetPlan({
  id,
  mould,
  sheet,
  chosen,
}: {
  id: string;
  mould: Mould;
  sheet: Sheet;
  chosen: number;
}) {
  const units = useUnits();
  const [wanted, setWanted] = useState<number[]>([]);
  const asked = mould.cavities.map((_, kind) => wanted[kind] ?? NONE);
  const { data, error, isPlaceholderData } = useQuery(sheetQuery(mould, asked));
  const problem = error ? problemOf(error) : null;
  const length = (si: number) => amount(si, "length", units);
  const counted = (n: number, kind: number) => `${n} ${mould.cavities[kind]?.name.toLowerCase() ?? ""}`;
  return (
    <>
      {/* a refused size of the sheet stands beside its field */}
      {problem && !problem.path.startsWith("mould.sheet.") && (
        <Notice tone="hot">{wordProblem(problem, units)}</Notice>
      )}
      {data && (
        <div className={isPlaceholderData ? "opacity-50" : ""}>
          <CuttingPlan
            {...sheet}
            pieces={(data.wanted ?? data).pieces.map(({ kind, ring }) => ({ kind, ring: pointsOf(ring) }))}
            last_m={data.wanted?.last_m ?? sheet.length_m}
            chosen={chosen}
            label={`Cutting plan: ${countsOf(data.wanted?.pieces, data.counts).map(counted).join(", ")}`}
          />
          <p className="mt-2 text-quiet">
            {length(sheet.length_m)} by {length(sheet.width_m)}, from above; {length(sheet.web_m)} between two
          </p>
          <dl className="mt-5 flex flex-wrap gap-x-12 gap-y-3">
            {data.counts.map((count, kind) => (
              <div key={mould.cavities[kind]?.name} className="flex flex-col-reverse">
                <dt className="text-quiet">{mould.cavities[kind]?.name.toLowerCase()}</dt>
                <dd className="text-3xl font-bold">{count}</dd>
              </div>
            ))}
            <div className="flex flex-col-reverse">
              <dt className="text-quiet">
                of the sheet in pieces; the rest goes back into the bowl, of several colours into a darker one
              </dt>
              <dd className="text-3xl font-bold">{amount(data.used_frac, "share", units)}</dd>
            </div>
          </dl>
          <section aria-label="Sheets for so many" className="mt-6 border-t border-line pt-4">
            <div className="flex flex-wrap gap-x-6 gap-y-3">
              {mould.cavities.map((cavity, kind) => (
                <div key={cavity.name} className="w-40">
                  <NumberField
                    label={`Wanted: ${cavity.name.toLowerCase()}`}
                    quantity="count"
                    value={asked[kind] || null}
                    onChange={(n) => setWanted(asked.map((of, i) => (i === kind ? n : of)))}
                    onClear={() => setWanted(asked.map((of, i) => (i === kind ? 0 : of)))}
                    step={1}
                  />
                </div>
              ))}
            </div>
            {data.wanted && <p className="mt-3 text-xl">{sheetsWords(data.wanted, sheet, units)}</p>}
          </section>
          <p className="mt-5 flex flex-wrap gap-x-6 gap-y-1 font-bold text-glass">
            {PAPERS.map(({ file, name }) => (
              <a
                key={file}
                href={`/api/moulds/${id}/${data.wanted ? `last-of-${asked.join("-")}` : "cutting"}${file}`}
                download
              >
                {name}
              </a>
            ))}
          </p>
        </div>
      )}
    </>
  );
}

/** How many of each cutter are drawn: those of the last sheet, or of a whole one. */
const countsOf = (last: Schemas["CutPiece"][] | undefined, whole: number[]): number[] =>
  last ? whole.map((_, kind) => last.filter((of) => of.kind === kind).length) : whole;

function sheetsWords(
  { count, last_m, used_frac }: NonNullable<Schemas["SheetFigures"]["wanted"]>,
  { length_m }: Sheet,
  units: Units,
): string {
  const length = (si: number) => amount(si, "length", units);
  const whole = last_m >= length_m;
  const sheets =
    count === 1
      ? whole
        ? "One whole sheet"
        : `One sheet, only ${length(last_m)} long`
      : `${count} sheets${whole ? "" : `, the last only ${length(last_m)} long`}`;
  return `${sheets}: ${amount(used_frac, "share", units)} of what is poured is in pieces.`;
}

const NONE = 0;

const PAPERS = [
  { file: ".pdf", name: "To scale, under the paper: PDF" },
  { file: ".svg", name: "SVG" },
  { file: "-below.pdf", name: "Mirrored, seen from below: PDF" },
  { file: "-below.svg", name: "SVG, mirrored" },
];
