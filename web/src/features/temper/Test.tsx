import { useState } from "react";
import { type Problem, problemOf, type Schemas, type Spread } from "../../api/client";
import { amount, clock, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Notice } from "../../shared/ui/controls";
import { FileButton } from "../../shared/ui/files";
import { useElapsedSince } from "../../shared/useElapsedSince";
import { useWidth } from "../../shared/useWidth";
import { Curve } from "./Curve";
import { readCurve } from "./queries";
import { KIND_MEANS, KIND_WORDS } from "./words";

/** Is it in temper: a smear and its clock, or a cooling curve. */
export function Test({ smear }: { smear: Spread | undefined }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(560);
  const [read, setRead] = useState<Schemas["CurveRead"] | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const take = async (csv: string) => {
    try {
      setRead(await readCurve({ csv, over_below_k_min: null, under_above_k_min: null }));
      setProblem(null);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  return (
    <section aria-label="Test" className="mt-10" ref={ref}>
      <h2 className="border-b border-line pb-1 text-xl">Is it in temper?</h2>
      {smear && <Smear sets={smear} />}
      <h3 className="mt-6 text-lg">A cooling curve</h3>
      <p className="text-quiet">
        A CSV file with the header time,temperature,unit: seconds or ISO times, C or F. At least two and a
        half minutes, no gap over half a minute.
      </p>
      <FileButton label="Cooling curve as CSV" accept=".csv,text/csv" onText={(text) => void take(text)}>
        Read a curve
      </FileButton>
      {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
      {read && (
        <div className="mt-3">
          <p className="text-3xl font-bold" role="status">
            {KIND_WORDS[read.test.kind]}
            <span className="ml-3 text-lg font-normal text-quiet">
              {Math.round((read.test.sure[read.test.kind] ?? 0) * 100)} % sure
            </span>
          </p>
          <p className="mb-2 max-w-3xl text-lg">{KIND_MEANS[read.test.kind]}</p>
          <Curve
            read={read}
            width={Math.min(width, 760)}
            word={(degc) => amount(degc, "temperature", units)}
          />
          <p className="text-quiet">
            Well tempered between {read.bands.over_below_k_min} and {read.bands.under_above_k_min} K/min where
            the curve turns, for a usual probe: another cup and bath move these.
          </p>
        </div>
      )}
    </section>
  );
}

/** A smear on a knife, with its clock. */
function Smear({ sets }: { sets: Spread }) {
  const [since, setSince] = useState<number | null>(null);
  const elapsed = useElapsedSince(since);
  return (
    <div className="mt-3 flex flex-wrap items-center gap-6">
      <button
        type="button"
        onClick={() => setSince(since === null ? Date.now() : null)}
        className="min-h-16 rounded-sm bg-glass px-6 text-xl font-bold text-on-glass"
      >
        {since === null ? "Smear laid on" : "Start again"}
      </button>
      {since !== null && <strong className="text-5xl">{clock(elapsed)}</strong>}
      <p className="max-w-xl text-lg">
        {since === null
          ? "A thin smear on a knife or paper at room temperature."
          : elapsed < sets.low
            ? `Still wet is right. Look from ${duration(sets.low)} on.`
            : elapsed < sets.high
              ? "Set and glossy by now: in temper. Dull or streaked: seed it again."
              : `Not set after ${duration(sets.high)}: under-tempered. Seed it again.`}
      </p>
    </div>
  );
}
