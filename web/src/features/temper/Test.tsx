import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf, type Schemas, type Spread } from "../../api/client";
import { amount, clock, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { assignProbe, probesQuery } from "../../shared/probes";
import { isSame } from "../../shared/subject";
import { Pick } from "../../shared/ui/controls";
import { FileButton } from "../../shared/ui/files";
import { Button, Notice } from "../../shared/ui/plain";
import { useElapsedSince } from "../../shared/useElapsedSince";
import { useWidth } from "../../shared/useWidth";
import { Curve } from "./Curve";
import { curveQuery, SAMPLE } from "./queries";
import { KIND_MEANS, KIND_WORDS } from "./words";

const USUAL = "usual";

const isInSample = ({ subject }: Schemas["ProbeView"]) => subject !== null && isSame(subject, SAMPLE);

/** Is it in temper: a smear and its clock, or a cooling curve from a file or a probe in a sample. */
export function Test({ smear }: { smear: Spread | undefined }) {
  const units = useUnits();
  const probes = (useQuery(probesQuery).data?.items ?? []).filter((p) => p.kind === "immersed");
  const [csv, setCsv] = useState<string | null>(null);
  const [picked, setPicked] = useState(USUAL);
  const following = probes.find(isInSample);
  const probe = csv === null ? following : probes.find((p) => p.id === picked);
  const query = useQuery(curveQuery({ csv, probe_id: probe?.id ?? null }));
  const follow = async (id: string) => {
    setCsv(null);
    setPicked(id);
    await assignProbe(id, SAMPLE);
  };
  const asked = csv !== null || probe !== undefined;
  return (
    <section aria-label="Test" className="mt-10">
      <h2 className="border-b border-line pb-1 text-xl">Is it in temper?</h2>
      {smear && <Smear sets={smear} />}
      <h3 className="mt-6 text-lg">A cooling curve</h3>
      <p className="max-w-3xl text-quiet">
        A few grams in a small cup standing in cold water, a probe in the middle. Or a CSV file with the
        header time,temperature,unit: seconds or ISO times, C or F. At least two and a half minutes, no gap
        over half a minute.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-5">
        {probes.map((p) => (
          <Button key={p.id} onClick={() => void follow(p.id)}>
            {isInSample(p) ? `${p.name}: a new sample` : `${p.name} is in a sample now`}
          </Button>
        ))}
        <FileButton label="Cooling curve as CSV" accept=".csv,text/csv" onText={setCsv}>
          Read a curve
        </FileButton>
        {csv !== null && probes.length > 0 && (
          <Pick
            label="by the bands of"
            value={picked}
            options={[
              { key: USUAL, name: "a usual probe" },
              ...probes.map((p) => ({ key: p.id, name: p.name })),
            ]}
            onChange={setPicked}
          />
        )}
      </div>
      {query.error && asked && <Notice tone="hot">{wordProblem(problemOf(query.error), units)}</Notice>}
      {query.data && asked && <Read read={query.data} probe={probe} />}
    </section>
  );
}

function Read({ read, probe }: { read: Schemas["CurveRead"]; probe: Schemas["ProbeView"] | undefined }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(560);
  const { test, bands } = read;
  return (
    <div className="mt-3" ref={ref}>
      <p className="text-3xl font-bold" role="status">
        {test ? `${test.is_sure ? "" : "perhaps "}${KIND_WORDS[test.kind]}` : "Reading the sample"}
        <span className="ml-3 text-lg font-normal text-quiet">
          {test ? `${Math.round(test.sure_frac * 100)} % sure` : read.waits}
        </span>
      </p>
      {test && <p className="mb-2 max-w-3xl text-lg">{KIND_MEANS[test.kind]}</p>}
      {read.points.length > 1 && (
        <Curve read={read} width={Math.min(width, 760)} word={(degc) => amount(degc, "temperature", units)} />
      )}
      <p className="text-quiet">
        Well tempered between {amount(bands.over_below_k_min, "slope", units)} and{" "}
        {amount(bands.under_above_k_min, "slope", units)} where the curve turns, for{" "}
        {probe ? probe.name : "a usual probe"}: another cup and bath move these. A probe's own are set in the
        kitchen.
      </p>
    </div>
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
