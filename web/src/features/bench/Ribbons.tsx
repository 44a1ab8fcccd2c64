import { useState } from "react";
import type { Schemas } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { BAND_WORDS } from "../../shared/bands";
import { curveAt } from "../../shared/curve";
import { amount, clock } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { passFirst } from "../../shared/named";
import { sightWords } from "../../shared/sights";
import { spotWords } from "../../shared/spots";
import { isSame, keyOf, type Subject } from "../../shared/subject";
import { useWidth } from "../../shared/useWidth";
import type { Wording } from "../../shared/wording";

type Ribbon = Schemas["Ribbon"];

const BEFORE_S = 240;
const AFTER_S = 1080;
const NARROW = 560;
/** A mark nearer to the edge would be cut off. */
const MARK_PX = 16;
/** What a ribbon reaches above its curve, which so stands clear of the words [degC]. */
const HIGH: Record<Wording, (hottest: number) => number | undefined> = {
  sugar: () => undefined,
  fat: (hottest) => hottest + 9,
};
/** Few ribbons stand tall, many slim. */
const heightFor = (count: number) => (count <= 2 ? 104 : count <= 4 ? 72 : count <= 5 ? 56 : 40);

/** With more than these, those that need nothing soon are folded away. */
const ALL_SHOWN = 5;
/** What needs a hand or an eye this soon is shown [s]. */
const SOON_S = 300;

interface Props {
  ribbons: Ribbon[];
  acts: Schemas["ActView"][];
  elapsed: number;
  selected: Subject | undefined;
  onSelect: (subject: Subject) => void;
  room: number;
}

/** When something next wants a hand: its act, or the moment a held melt no longer flows; null: not that is known. */
function wantedAt(ribbon: Ribbon, acts: Schemas["ActView"][]): number | null {
  const times = acts.filter((act) => isSame(act.subject, ribbon.subject)).map((act) => act.opens_s);
  if (ribbon.flows_until_s !== null) times.push(ribbon.flows_until_s.low);
  return times.length > 0 ? Math.min(...times) : null;
}

/** Pots and rounds under one "now", side by side in time; many of them only where they need something within minutes. */
export function Ribbons({ ribbons: all, acts, elapsed, selected, onSelect, room }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(900);
  const [unfolded, setUnfolded] = useState(false);
  const soon = (ribbon: Ribbon) => {
    const at = wantedAt(ribbon, acts);
    return at !== null && at - elapsed < SOON_S;
  };
  const shown = (ribbon: Ribbon) =>
    unfolded ||
    all.length <= ALL_SHOWN ||
    soon(ribbon) ||
    (selected !== undefined && isSame(ribbon.subject, selected));
  const ribbons = all.filter(shown);
  const folded = all.filter((ribbon) => !shown(ribbon));
  const narrow = width < NARROW;
  const span = narrow ? { before: BEFORE_S / 2, after: AFTER_S / 2 } : { before: BEFORE_S, after: AFTER_S };
  const from = elapsed - span.before;
  const to = elapsed + span.after;
  const label = narrow ? 0 : 236;
  const across = width - label;
  return (
    <div ref={ref} className="min-w-0">
      <Axis from={from} to={to} now={elapsed} width={across} left={label} />
      {ribbons.map((ribbon) => (
        <Row
          key={keyOf(ribbon.subject)}
          ribbon={ribbon}
          elapsed={elapsed}
          selected={selected !== undefined && isSame(ribbon.subject, selected)}
          onSelect={() => onSelect(ribbon.subject)}
          from={from}
          to={to}
          width={across}
          narrow={narrow}
          height={narrow ? (ribbons.length > 3 ? 24 : 60) : heightFor(ribbons.length)}
          room={room}
        />
      ))}
      {all.length > ALL_SHOWN && (folded.length > 0 || unfolded) && (
        <p className="flex flex-wrap items-center gap-x-5 px-3 pb-1 text-lg">
          <button
            type="button"
            aria-expanded={unfolded}
            onClick={() => setUnfolded(!unfolded)}
            className="min-h-11 font-bold text-glass underline-offset-4 hover:underline"
          >
            {unfolded ? "Only what is wanted soon" : `${folded.length} more, not wanted yet`}
          </button>
          {folded.map((ribbon) => {
            const at = wantedAt(ribbon, acts);
            return (
              <span key={keyOf(ribbon.subject)} className="text-quiet">
                {ribbon.named ? passFirst(ribbon.named) : ribbon.name}
                {at !== null && (
                  <strong className="ml-1.5 text-ink">{clock(Math.max(at - elapsed, 0))}</strong>
                )}
              </span>
            );
          })}
        </p>
      )}
    </div>
  );
}

function Row({
  ribbon,
  elapsed,
  selected,
  onSelect,
  from,
  to,
  width,
  narrow,
  height,
  room,
}: {
  ribbon: Ribbon;
  elapsed: number;
  selected: boolean;
  onSelect: () => void;
  from: number;
  to: number;
  width: number;
  narrow: boolean;
  height: number;
  room: number;
}) {
  const units = useUnits();
  const degc = curveAt(ribbon.curve, ribbon.curve.likely_degc, elapsed);
  const hot = ribbon.hot_until_s === null || elapsed < ribbon.hot_until_s;
  const number = ribbon.subject.number + 1;
  const pot = ribbon.subject.of === "pot";
  const held = ribbon.phase === "held";
  const slim = height < 50;
  const grams = ribbon.melt_kg === null ? "" : `${amount(ribbon.melt_kg, "mass", units)}, `;
  const meta = held
    ? `${grams}${spotWords(ribbon.place)}${tipWords(ribbon, elapsed)}`
    : pot
      ? `${grams}${ribbon.place.toLowerCase()}`
      : `round ${number}: ${ribbon.casts}, ${ribbon.place.toLowerCase()}`;
  const name = pot || held ? ribbon.name : `${ribbon.name}, ${number}`;
  return (
    <div
      className={`${slim ? "mb-1" : "mb-2"} flex border-l-4 ${narrow ? "flex-col" : ""} ${selected ? "border-glass bg-panel" : "border-transparent"}`}
    >
      <button
        type="button"
        onClick={onSelect}
        aria-pressed={selected}
        title="select for readings"
        className={`shrink-0 px-3 text-left ${slim ? "py-0" : "py-1"} ${narrow ? "" : "w-[232px]"}`}
      >
        <span className="flex items-baseline justify-between gap-2">
          <strong className="flex min-w-0 items-center gap-2 text-xl">
            {ribbon.colour && (
              <span
                className="h-4 w-4 shrink-0 rounded-full border border-ink"
                style={{ backgroundColor: ribbon.colour }}
                aria-hidden="true"
              />
            )}
            <span className="truncate">{ribbon.named ? passFirst(ribbon.named) : ribbon.name}</span>
          </strong>
          <strong className="text-2xl">
            {degc === null ? "" : `${amount(degc, "temperature", units, false)}°`}
          </strong>
        </span>
        <span className={`flex items-center gap-2 text-quiet ${slim ? "-mt-1 text-sm" : "text-[0.95rem]"}`}>
          {hot && <HotMark />}
          {ribbon.overheated && <strong className="shrink-0 text-heat">was too hot</strong>}
          <span className="truncate">{meta}</span>
        </span>
      </button>
      <div className="min-w-0 flex-1">
        <HeatRibbon
          bands={ribbon.bands}
          curve={slim ? undefined : ribbon.curve}
          dots={ribbon.dots}
          sights={ribbon.sights.map((sight) => ({
            at_s: sight.at_s,
            word: sightWords(sight.what, ribbon.wording),
          }))}
          from={from}
          to={to}
          now={elapsed}
          width={width - 4}
          height={height}
          low={Math.min(room - 5, ...ribbon.curve.likely_degc.map((t) => t - 6))}
          high={HIGH[ribbon.wording](Math.max(...ribbon.curve.likely_degc))}
          words={BAND_WORDS}
          label={`${name}: ${degc === null ? "" : amount(degc, "temperature", units)}`}
        />
      </div>
    </div>
  );
}

/** An idle tip closes long before its bag does. */
function tipWords(ribbon: Ribbon, elapsed: number): string {
  if (ribbon.tip_until_s === null) return "";
  const left = ribbon.tip_until_s - elapsed;
  return left > 0 ? `, tip ${clock(left)}` : ", tip closed";
}

/** Whatever is hot to hold carries this. */
export function HotMark() {
  return (
    <span className="inline-flex shrink-0 items-center gap-1 bg-heat px-1.5 text-sm font-bold text-[#1b1512]">
      <svg viewBox="0 0 12 12" className="h-3 w-3" aria-hidden="true">
        <path
          d="M1 11h10M3 9C1 7 5 5 3 2M7 9C5 7 9 5 7 2"
          stroke="currentColor"
          strokeWidth="1.6"
          fill="none"
        />
      </svg>
      hot
    </span>
  );
}

function Axis({
  from,
  to,
  now,
  width,
  left,
}: {
  from: number;
  to: number;
  now: number;
  width: number;
  left: number;
}) {
  const every = to - from < 700 ? 60 : 120;
  const first = Math.ceil((from - now) / every) * every;
  const marks = Array.from(
    { length: Math.floor((to - now - first) / every) + 1 },
    (_, i) => first + i * every,
  ).filter((s) => ((now + s - from) / (to - from)) * width < width - MARK_PX);
  return (
    <div className="relative h-7" style={{ marginLeft: left }} aria-hidden="true">
      {marks.map((s) => (
        <span
          key={s}
          className={`absolute -translate-x-1/2 text-[0.95rem] ${s === 0 ? "font-bold text-heat" : "text-quiet"}`}
          style={{ left: ((now + s - from) / (to - from)) * width }}
        >
          {s === 0 ? "now" : `${s > 0 ? "+" : "−"}${Math.abs(s / 60)}`}
        </span>
      ))}
    </div>
  );
}
