import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { problemOf, type Schemas } from "../../api/client";
import { amount, duration, range, runLength, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { toneOf } from "../../shared/tones";
import { Choice } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { FileLink } from "../../shared/ui/files";
import { Item } from "../../shared/ui/Item";
import { Button, Notice } from "../../shared/ui/plain";
import { useDebounced } from "../../shared/useDebounced";
import { DrawingPad, type Tool } from "./DrawingPad";
import type { Drawing, DrawnLine } from "./drawing";
import { filigreeQuery, mendsQuery } from "./queries";

type Figures = Schemas["FiligreeFigures"];
type Mend = Schemas["MendShown"];

/** What is under the hand is checked this often. */
const PAUSE_MS = 16;

/** A drawing that lines are piped over: drawn, checked, mended, and to scale on paper. */
export function DrawingPlan({
  id,
  shape,
  material,
  count,
  onChange,
}: {
  id: string;
  shape: Drawing;
  material: string;
  /** How often it lies on a board. */
  count: number;
  onChange: (lines: DrawnLine[]) => void;
}) {
  const units = useUnits();
  const [tool, setTool] = useState<Tool>("straight");
  const [draft, setDraft] = useState<DrawnLine[] | null>(null);
  const seen = useMemo(
    () => ({ shape: { ...shape, lines: draft ?? shape.lines }, material, count }),
    [shape, draft, material, count],
  );
  const asked = useDebounced(seen, PAUSE_MS);
  const { data, error, isPlaceholderData } = useQuery(filigreeQuery(asked));
  const problem = error ? problemOf(error) : null;
  const still = draft === null && asked === seen && !isPlaceholderData;
  return (
    <>
      <Choice label="With the pointer" value={tool} options={TOOLS} onChange={setTool} />
      <div className="mt-3 flex flex-wrap gap-6">
        <DrawingPad
          lines={shape.lines}
          bore_m={shape.bore_m}
          tone={toneOf(material)}
          tool={tool}
          figures={data}
          onDraft={setDraft}
          onChange={onChange}
        />
        {data && (
          <div className={`min-w-56 flex-1 ${isPlaceholderData ? "opacity-50" : ""}`}>
            <Verdict of={data} units={units} />
            {still && !data.holds && <Mends asked={asked} units={units} onMend={onChange} />}
          </div>
        )}
      </div>
      {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
      {data && (
        <div className={isPlaceholderData ? "opacity-50" : ""}>
          <p className="mt-1 text-quiet">
            {amount(data.wide_m, "length", units)} by {amount(data.high_m, "length", units)}; a line lies{" "}
            {amount(data.bead_wide_m, "length", units)} wide, {amount(data.bead_high_m, "length", units)}{" "}
            high. Squares of 1 cm.
          </p>
          <dl className="mt-5 flex flex-wrap gap-x-12 gap-y-3">
            <Item name="of line">
              <span className="text-3xl font-bold">{runLength(data.piped.value.likely, units)}</span>
            </Item>
            <Item name="of melt, one of them">
              <Figure of={data.weight} name="Weight" className="text-3xl" />
            </Item>
            <Item name="to pipe one">
              <Figure of={data.takes} name="To pipe one" className="text-3xl" />
            </Item>
            <Item name="break as they are lifted">
              <span className="text-3xl font-bold">{breakWords(data.breaks_frac, units)}</span>
            </Item>
          </dl>
          <p className="mt-4">{bagWords(data.bag, count, units)}</p>
          <p className="mt-5 flex flex-wrap gap-x-6 gap-y-1">
            {PAPERS.map(({ file, name }) => (
              <FileLink key={file} href={`/api/moulds/${id}/${file}`}>
                {name}
              </FileLink>
            ))}
          </p>
        </div>
      )}
    </>
  );
}

/** What a board is piped out of. */
function bagWords({ board_kg, board_s, flows, bags }: Figures["bag"], count: number, units: Units): string {
  const board = `A board of ${count}: ${amount(board_kg, "mass", units)}, ${duration(board_s)} to pipe.`;
  if (flows === null) return `${board} In a bag in the hand it flows as long as that.`;
  const lasts = `A bag of it flows for ${range(flows, "s", units)} in the hand`;
  return bags > 1 ? `${board} ${lasts}: fill ${bags} small ones, one after the other.` : `${board} ${lasts}.`;
}

/** Of how many as they are lifted: an estimate, so no share that says more. */
function breakWords(frac: number, units: Units): string {
  if (frac > NEARLY_ALL_FRAC) return "nearly all";
  return frac < NEARLY_NONE_FRAC ? "hardly any" : `about ${amount(frac, "share", units)}`;
}

const [NEARLY_ALL_FRAC, NEARLY_NONE_FRAC] = [0.9, 0.01];

const TOOLS: { key: Tool; name: string }[] = [
  { key: "straight", name: "straight line" },
  { key: "free", name: "free line" },
  { key: "move", name: "move" },
  { key: "twice", name: "second line on it" },
  { key: "remove", name: "take away" },
];

const PAPERS = [
  { file: "drawing.pdf", name: "To scale, under the film: PDF" },
  { file: "drawing.svg", name: "SVG" },
  { file: "drawing-below.pdf", name: "Mirrored, for what is seen from its flat side: PDF" },
  { file: "drawing-below.svg", name: "SVG, mirrored" },
];

/** Whether it holds, and what does not. */
function Verdict({ of, units }: { of: Figures; units: Units }) {
  const length = (m: number) => amount(m, "length", units);
  const ends = of.joins.filter((join) => join.far && join.loose_end);
  const single = of.joins.filter((join) => !join.loose_end);
  const [span, end] = [widest(of.spans), widest(ends)];
  const falls = single.reduce((most, join) => Math.max(most, join.length_m), 0);
  return (
    <ul className="space-y-2 text-lg" aria-label="Whether it holds">
      {of.parts.length > 1 && (
        <li className="font-bold text-heat">
          It falls into {of.parts.length} parts when it is lifted: what is edged does not hold to the rest.
        </li>
      )}
      {span && (
        <li className="text-heat">
          {of.spans.length === 1 ? "One span reaches" : `${of.spans.length} spans reach`} too far between
          joins: {length(span.reach_m)}, where {length(span.holds_m)} are safe.
        </li>
      )}
      {end && (
        <li className="text-heat">
          {ends.length === 1 ? "One loose end reaches" : `${ends.length} loose ends reach`} too far:{" "}
          {length(end.reach_m)}, where {length(end.holds_m)} are safe.
        </li>
      )}
      {single.length > 0 && (
        <li className={single.some((join) => join.far) ? "text-heat" : ""}>
          {single.length === 1 ? "One join holds" : `${single.length} joins hold`} a part alone (ringed): if
          it breaks, up to {runLength(falls, units)} of line fall off.
        </li>
      )}
      {of.holds && <li className="font-bold">It comes off in one, and nothing reaches too far.</li>}
    </ul>
  );
}

const widest = <T extends { reach_m: number }>(rows: T[]): T | null =>
  rows.reduce<T | null>((most, row) => (most && most.reach_m >= row.reach_m ? most : row), null);

/** What would make it hold, each put in with one press. */
function Mends({
  asked,
  units,
  onMend,
}: {
  asked: Schemas["FiligreeRequest"];
  units: Units;
  onMend: (lines: DrawnLine[]) => void;
}) {
  const mends = useQuery(mendsQuery(asked)).data ?? [];
  return (
    <div className="mt-5 space-y-4" aria-live="polite">
      {mends.map((mend) => (
        <div key={mend.kind}>
          <Button onClick={() => onMend(mend.lines)}>{mendName(mend)}</Button>
          <p className="mt-1 text-sm text-quiet">{mendNote(mend, units)}</p>
        </div>
      ))}
    </div>
  );
}

function mendName({ kind, added, doubled }: Mend): string {
  switch (kind) {
    case "joins":
      return `Draw ${added} ${added === 1 ? "join" : "joins"}`;
    case "twice":
      return `A second line on ${doubled}`;
    case "frame":
      return "A frame round it";
  }
}

function mendNote({ parts, far, breaks_frac }: Mend, units: Units): string {
  const falls = parts > 1 ? `still ${parts} parts` : "comes off in one";
  const reach = far > 0 ? `${far} still reach too far` : "nothing reaches too far";
  return `${falls}, ${reach}; ${breakWords(breaks_frac, units)} break`;
}
