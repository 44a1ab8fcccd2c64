import type { Schemas } from "../../api/client";
import { type LaneRow, type LaneSpan, Lanes, type Role } from "../../drawings/Lanes";
import { FILL_OF } from "../../drawings/patterns";
import type { View } from "../../shared/acts";
import { actShort } from "../../shared/actWords";
import { BAND_WORDS } from "../../shared/bands";
import { sinceMidnight_s, timeOfDay } from "../../shared/format/zone";
import { tonesOf } from "../../shared/melts";
import { passFirst } from "../../shared/named";
import { keyOf } from "../../shared/subject";
import { Dialog } from "../../shared/ui/controls";

type Ribbon = Schemas["Ribbon"];
type State = Ribbon["bands"][number]["state"];

/** When hands are next wanted is drawn as long as this: until when they may be is seen in the row of what they work on [s]. */
const ACT_S = 120;
/** So far back and ahead the drawing reaches at most [s]. */
const BEFORE_S = 1800;
const AHEAD_S = 3 * 3600;

interface Props {
  view: View;
  elapsed: number;
  kitchen: Schemas["Kitchen"];
  onClose: () => void;
}

/** What runs, in the rows of the plan's timetable: hands, melts in their vessels, moulds, under one now. */
export function BenchTimetable({ view, elapsed, kitchen, onClose }: Props) {
  const started = new Date(view.started_at).getTime();
  const clock = (s: number) => timeOfDay(new Date(started + s * 1000), kitchen.zone);
  const live = view.ribbons.filter((ribbon) => !ribbon.done);
  const rows: LaneRow[] = [
    {
      key: "hands",
      name: "Hands",
      note: "what comes next",
      spans: view.acts.map((act, i) => actSpan(act, i, view, clock)),
    },
    ...live.filter((r) => r.subject.of !== "round").map((r) => ribbonRow(r, clock)),
    ...live.filter((r) => r.subject.of === "round").map((r) => ribbonRow(r, clock)),
  ];
  const ends = rows.flatMap((row) => row.spans.map((span) => span.end.likely)).filter(Number.isFinite);
  const from = Math.max(0, elapsed - BEFORE_S);
  const to = Math.min(Math.max(elapsed + 600, ...ends), elapsed + AHEAD_S);
  return (
    <Dialog open onClose={onClose} title="What runs" bench wide>
      <Lanes
        lanes={rows.map((row) => ({ ...row, spans: row.spans.flatMap((span) => within(span, from, to)) }))}
        from={from}
        to={to}
        now={elapsed}
        clock={clock}
        midnight_s={sinceMidnight_s(new Date(started), kitchen.zone)}
        label={`What runs, from ${clock(from)} to ${clock(to)}`}
      />
      <button
        type="button"
        onClick={onClose}
        className="mt-6 min-h-16 rounded-sm bg-glass px-8 text-2xl font-bold text-on-glass"
      >
        Close
      </button>
    </Dialog>
  );
}

function actSpan(act: Schemas["ActView"], i: number, view: View, clock: (s: number) => string): LaneSpan {
  const end = act.opens_s + ACT_S;
  const word = actShort(act, view);
  return {
    key: `hands-${i}`,
    role: act.closes_s === null ? "busy" : "pressed",
    start_s: act.opens_s,
    end: { low: end, likely: end, high: end },
    word,
    title: `${clock(act.opens_s)}: ${word}`,
  };
}

function ribbonRow(ribbon: Ribbon, clock: (s: number) => string): LaneRow {
  const key = keyOf(ribbon.subject);
  const last = ribbon.bands.length - 1;
  return {
    key,
    name: ribbon.named ? passFirst(ribbon.named) : ribbon.name,
    note: ribbon.place.toLowerCase(),
    ...(ribbon.subject.of === "round" || ribbon.colour === null
      ? {}
      : { tone: tonesOf({ material: "", colour: ribbon.colour }).tone }),
    spans: ribbon.bands.map((band, i) => ({
      key: `${key}-${i}`.replaceAll(/[^a-z0-9-]/gi, ""),
      role: roleOf(band.state),
      start_s: band.start.likely,
      // the last state goes on as long as the drawing does
      end: i === last ? { low: Infinity, likely: Infinity, high: Infinity } : band.end,
      word: BAND_WORDS[band.state].toLowerCase(),
      title: `${clock(band.start.likely)}: ${BAND_WORDS[band.state].toLowerCase()}`,
    })),
  };
}

/** The role of a state, by how it is drawn on a ribbon. */
function roleOf(state: State): Role {
  const fill = FILL_OF[state];
  return fill === "open" ? "open" : fill === "hatch" ? "heats" : "waits";
}

/** A span as far as it is within the drawing. */
function within(span: LaneSpan, from: number, to: number): LaneSpan[] {
  const start_s = Math.max(span.start_s, from);
  const cut = (s: number) => Math.min(Math.max(s, start_s), to);
  const end = { low: cut(span.end.low), likely: cut(span.end.likely), high: cut(span.end.high) };
  return start_s < to && end.high > from && end.high > start_s ? [{ ...span, start_s, end }] : [];
}
