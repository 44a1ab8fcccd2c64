import { useEffect, useId, useRef, useState } from "react";
import type { Schemas, Spread } from "../api/client";
import { markEvery, marksTo } from "../shared/marks";
import { isDark } from "../shared/tones";
import { Button } from "../shared/ui/plain";
import { useWidth } from "../shared/useWidth";
import { Patterns } from "./patterns";

export type Role = Schemas["Span"]["role"];

/** Something in a lane from then until then [s], with a word for it and what it is in full. */
export interface LaneSpan {
  key: string;
  role: Role;
  start_s: number;
  end: Spread;
  word: string;
  title: string;
  /** Of what is in a place: how much of it is taken [0 to 1]. */
  full?: number;
}

/** A row of a timetable; tone: of the melt in a vessel. */
export interface LaneRow {
  key: string;
  name: string;
  note: string;
  tone?: string;
  spans: LaneSpan[];
}

interface Props {
  lanes: LaneRow[];
  from: number;
  to: number;
  /** When nobody is there, in order: drawn short. */
  away?: [number, number][];
  now?: number;
  clock: (s: number) => string;
  /** How long after midnight the moment 0 is [s]. */
  midnight_s: number;
  label: string;
  hand?: Handling;
}

/** Bars that may be pressed, or dragged to another time. */
interface Handling {
  may: ReadonlySet<string>;
  picked: string | null;
  onPick: (key: string) => void;
  onDrop: (key: string, start_s: number) => void;
}

const ROW_PX = 52;
const BAR_PX = 30;
const TOP_PX = 11;
const HEAD_PX = 26;
/** So that two clock times do not meet. */
const APART_PX = 75;
const LETTER_PX = 8.4;
/** A night is drawn as if it were so long [s]. */
const NIGHT_S = 900;
const ALWAYS_THERE: [number, number][] = [];
/** How much time the drawing shows at once [s]; null: all of it. */
const ZOOMS: { name: string; shows_s: number | null }[] = [
  { name: "All of it", shows_s: null },
  { name: "4 hours", shows_s: 4 * 3600 },
  { name: "1 hour", shows_s: 3600 },
];

/** Time across, a named row for each pair of hands, heater, vessel, mould and place: busy and waiting told apart. */
export function Lanes({ lanes, from, to, away = ALWAYS_THERE, now, clock, midnight_s, label, hand }: Props) {
  const id = useId();
  const [frame, room] = useWidth<HTMLDivElement>(900);
  const scroller = useRef<HTMLDivElement>(null);
  const [shows, setShows] = useState<number | null>(null);
  const drawn = (s: number) => s - from - away.reduce((sum, gap) => sum + leftOut(gap, s), 0);
  const lasts = Math.max(drawn(to), 60);
  const width = shows === null ? room : Math.max(room, (lasts / shows) * room);
  const x = (s: number) => (drawn(s) / lasts) * width;
  const middle = now !== undefined && now > from && now < to ? now : from;
  const atMiddle = x(middle);
  useEffect(() => {
    if (scroller.current) scroller.current.scrollLeft = atMiddle - room / 3;
  }, [atMiddle, room]);
  const zooms = ZOOMS.filter(({ shows_s }) => shows_s === null || shows_s < lasts);
  return (
    <div>
      {zooms.length > 1 && (
        <fieldset aria-label="Shown at once" className="mb-1 flex flex-wrap gap-x-6">
          {zooms.map(({ name, shows_s }) => (
            <Button key={name} kind="quiet" pressed={shows === shows_s} onClick={() => setShows(shows_s)}>
              {name}
            </Button>
          ))}
        </fieldset>
      )}
      <div className="flex">
        <ul aria-label="Rows" className="w-24 shrink-0 sm:w-44" style={{ paddingTop: HEAD_PX }}>
          {lanes.map((lane) => (
            <li
              key={lane.key}
              className="flex flex-col justify-center overflow-hidden border-b border-line pr-3 leading-tight"
              style={{ height: ROW_PX }}
            >
              <strong className="line-clamp-2 text-[0.95rem] leading-tight sm:line-clamp-1" title={lane.name}>
                {lane.name}
              </strong>
              <span className="hidden truncate text-sm text-quiet sm:block">{lane.note}</span>
            </li>
          ))}
        </ul>
        <div ref={frame} className="min-w-0 flex-1">
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls sideways is reached by the keys */}
          <div ref={scroller} tabIndex={0} className="overflow-x-auto overflow-y-hidden">
            <svg
              width={width}
              height={HEAD_PX + lanes.length * ROW_PX}
              role="img"
              aria-label={label}
              className="block"
            >
              <defs>
                <Patterns id={id} />
                <linearGradient id={`${id}-fades`}>
                  <stop offset="0%" stopColor="#fff" />
                  <stop offset="100%" stopColor="#fff" stopOpacity="0" />
                </linearGradient>
              </defs>
              <Marks
                stretches={stretchesOf(from, to, away)}
                lasts={lasts}
                x={x}
                width={width}
                rows={lanes.length}
                clock={clock}
                midnight_s={midnight_s}
              />
              {lanes.map((lane, row) => (
                <g key={lane.key} transform={`translate(0 ${HEAD_PX + row * ROW_PX})`}>
                  <line x1="0" x2={width} y1={ROW_PX - 0.5} y2={ROW_PX - 0.5} stroke="var(--line)" />
                  {lane.spans.map((span) => (
                    <Span
                      key={span.key}
                      span={span}
                      tone={lane.tone}
                      x={x}
                      id={id}
                      hand={hand?.may.has(span.key) ? hand : undefined}
                      s={(px) => (px / width) * lasts}
                      clock={clock}
                    />
                  ))}
                </g>
              ))}
              {now !== undefined && now > from && now < to && (
                <line
                  x1={x(now)}
                  x2={x(now)}
                  y1="0"
                  y2={HEAD_PX + lanes.length * ROW_PX}
                  stroke="var(--heat)"
                  strokeWidth="3"
                />
              )}
            </svg>
          </div>
        </div>
      </div>
      <Key tones={lanes.some((lane) => lane.tone)} />
    </div>
  );
}

/** How much of a night before a moment is not drawn [s]. */
function leftOut([start, end]: [number, number], s: number): number {
  const share = Math.max(1 - NIGHT_S / (end - start), 0);
  return share * Math.max(Math.min(s, end) - start, 0);
}

/** What lies between nights, from then until then [s]. */
function stretchesOf(from: number, to: number, away: [number, number][]): [number, number][] {
  const starts = [from, ...away.map(([, end]) => end)];
  const ends = [...away.map(([start]) => start), to];
  return starts.map((start, i) => [start, ends[i] ?? to]);
}

interface MarksProps {
  stretches: [number, number][];
  lasts: number;
  x: (s: number) => number;
  width: number;
  rows: number;
  clock: (s: number) => string;
  midnight_s: number;
}

/** Round clock times above the rows. */
function Marks({ stretches, lasts, x, width, rows, clock, midnight_s }: MarksProps) {
  const every = markEvery(lasts, Math.max(2, width / APART_PX));
  const marks = stretches.flatMap(([start, end]) => {
    const first = Math.ceil((start + midnight_s) / every) * every - midnight_s;
    return marksTo(end - first, every).map((s) => first + s);
  });
  return (
    <>
      {marks.map((s) => (
        <g key={s}>
          <line x1={x(s)} x2={x(s)} y1={HEAD_PX - 6} y2={HEAD_PX + rows * ROW_PX} stroke="var(--line)" />
          {x(s) < width - 50 && (
            <text x={x(s) + 4} y={HEAD_PX - 9} fontSize="14" fill="var(--quiet)">
              {clock(s)}
            </text>
          )}
        </g>
      ))}
    </>
  );
}

interface SpanProps {
  span: LaneSpan;
  tone: string | undefined;
  x: (s: number) => number;
  id: string;
  hand: Handling | undefined;
  /** How long so many pixels are [s]. */
  s: (px: number) => number;
  clock: (s: number) => string;
}

/** Moved by less, it was pressed [px]. */
const MOVED_PX = 5;

/** A bar that may be pressed, and with a mouse dragged along its row. */
function useHand(span: LaneSpan, hand: Handling | undefined, s: (px: number) => number) {
  const [grip, setGrip] = useState<{ from: number; by: number } | null>(null);
  if (hand === undefined) return { by: 0, on: {} };
  return {
    by: grip && Math.abs(grip.by) > MOVED_PX ? grip.by : 0,
    on: {
      style: { cursor: "grab" },
      onPointerDown: (e: React.PointerEvent) => {
        if (e.pointerType === "touch") return;
        e.currentTarget.setPointerCapture(e.pointerId);
        setGrip({ from: e.clientX, by: 0 });
      },
      onPointerMove: (e: React.PointerEvent) => grip && setGrip({ ...grip, by: e.clientX - grip.from }),
      onPointerUp: (e: React.PointerEvent) => {
        const by = grip ? e.clientX - grip.from : 0;
        setGrip(null);
        if (Math.abs(by) > MOVED_PX) hand.onDrop(span.key, span.start_s + s(by));
        else hand.onPick(span.key);
      },
      onPointerCancel: () => setGrip(null),
    },
  };
}

function Span({ span, tone, x, id, hand, s, clock }: SpanProps) {
  const { by, on } = useHand(span, hand, s);
  const left = x(span.start_s) + by;
  const sure = Math.max(x(span.end.low) + by - left, 0);
  const whole = Math.max(x(span.end.high) + by - left, 1.5);
  const look = LOOKS[span.role];
  const tall = span.full === undefined ? look.tall : Math.max(4, BAR_PX * span.full);
  const y = span.full === undefined ? TOP_PX + (BAR_PX - tall) / 2 : TOP_PX + BAR_PX - tall;
  const fill = look.fill === "tone" ? (tone ?? "var(--glass-soft)") : look.fill(id);
  const ink =
    look.fill === "tone" ? (tone === undefined ? "var(--ink)" : isDark(tone) ? "#fff" : "#2b1b14") : look.ink;
  const fits = span.word !== "" && whole > span.word.length * LETTER_PX + 10 && tall > 15;
  const soft = whole - sure > 1.5;
  return (
    <g {...on}>
      <title>{span.title}</title>
      <rect x={left} y={y} width={soft ? sure : whole} height={tall} fill={fill} stroke={look.edge} />
      {hand?.picked === span.key && (
        <rect
          x={left - 2}
          y={y - 4}
          width={whole + 4}
          height={tall + 8}
          fill="none"
          stroke="var(--glass)"
          strokeWidth="3"
        />
      )}
      {by !== 0 && (
        <text x={left} y={TOP_PX - 1} fontSize="14" fontWeight="700" fill="var(--glass)">
          {clock(span.start_s + s(by))}
        </text>
      )}
      {soft && (
        <>
          <mask
            id={`${id}-${span.key}`}
            maskUnits="userSpaceOnUse"
            x={left + sure}
            y={y}
            width={whole - sure}
            height={tall}
          >
            <rect x={left + sure} y={y} width={whole - sure} height={tall} fill={`url(#${id}-fades)`} />
          </mask>
          <rect
            x={left + sure}
            y={y}
            width={whole - sure}
            height={tall}
            fill={fill}
            mask={`url(#${id}-${span.key})`}
          />
        </>
      )}
      {fits && (
        <text
          x={left + 6}
          y={TOP_PX + BAR_PX / 2 + 5}
          fontSize="14.5"
          fontWeight={look.bold ? 700 : 400}
          fill={ink}
        >
          {span.word}
        </text>
      )}
    </g>
  );
}

interface Look {
  tall: number;
  fill: "tone" | ((id: string) => string);
  ink: string;
  edge?: string;
  bold?: boolean;
}

/** Busy is tall, waiting is low; what cannot wait is bright; what gets hot is hatched; an open window has its melt's tone. */
const LOOKS: Record<Role, Look> = {
  busy: { tall: BAR_PX, fill: () => "var(--ink)", ink: "var(--ground)", edge: "var(--ground)" },
  pressed: {
    tall: BAR_PX,
    fill: () => "var(--glass)",
    ink: "var(--on-glass)",
    edge: "var(--ground)",
    bold: true,
  },
  away: { tall: BAR_PX, fill: () => "var(--panel)", ink: "var(--quiet)", edge: "var(--line)" },
  heats: { tall: BAR_PX, fill: (id) => `url(#${id}-hatch)`, ink: "var(--ink)", edge: "var(--heat)" },
  waits: { tall: 9, fill: (id) => `url(#${id}-close-dots)`, ink: "var(--ink)", edge: "var(--line)" },
  open: { tall: BAR_PX, fill: "tone", ink: "var(--ink)", edge: "var(--quiet)" },
  holds: { tall: BAR_PX, fill: () => "var(--mould)", ink: "var(--ink)", edge: "var(--quiet)" },
};

/** What the bars mean, in a line. */
function Key({ tones }: { tones: boolean }) {
  const id = useId();
  const rows: { role: Role; word: string }[] = [
    { role: "busy", word: "hands at work" },
    { role: "pressed", word: "cannot wait" },
    { role: "heats", word: "on the heat" },
    { role: "waits", word: "waits, sets" },
    { role: "open", word: tones ? "may be poured, may be turned out; its end is not sure" : "may be done" },
  ];
  return (
    <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-1 text-sm text-quiet" aria-label="What the bars mean">
      {rows.map(({ role, word }) => {
        const { fill, tall, edge } = LOOKS[role];
        return (
          <li key={role} className="flex items-center gap-2">
            <svg width="26" height="16" aria-hidden="true">
              <defs>
                <Patterns id={`${id}-${role}`} />
              </defs>
              <rect
                width="26"
                y={tall < BAR_PX ? 5 : 1}
                height={tall < BAR_PX ? 6 : 14}
                fill={fill === "tone" ? "var(--glass-soft)" : fill(`${id}-${role}`)}
                stroke={edge}
              />
            </svg>
            {word}
          </li>
        );
      })}
    </ul>
  );
}
