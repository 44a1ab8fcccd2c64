import { useQuery } from "@tanstack/react-query";
import type { Explained, Schemas, Spread } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { ThermoStick, type Zone } from "../../drawings/ThermoStick";
import { BAND_WORDS, drawnTo, reach } from "../../shared/bands";
import { amount, daysWords, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { grouped } from "../../shared/grouped";
import { paletteListQuery } from "../../shared/kitchen";
import { TASK_WORDS } from "../../shared/laneWords";
import { markEvery, marksTo } from "../../shared/marks";
import { meltName } from "../../shared/melts";
import { wholeName } from "../../shared/named";
import { Figure } from "../../shared/ui/Figure";
import { Fold } from "../../shared/ui/Fold";
import { useWidth } from "../../shared/useWidth";
import type { Wording } from "../../shared/wording";
import { Part } from "./Part";
import { type Asked, windowsQuery } from "./queries";

const ROW_PX = 46;
/** With no more rows than these, all groups are open from the start. */
const FEW_ROWS = 5;

/** When to pour, bend and unmould: each melt from off the heat, each piece from its pour, every group on a scale of its own. */
export function Windows({ asked, kitchen }: { asked: Asked; kitchen: Schemas["Kitchen"] }) {
  return (
    <Part query={windowsQuery(asked)} place="min-h-96">
      {(rows) => <Groups rows={rows} kitchen={kitchen} />}
    </Part>
  );
}

function Groups({ rows, kitchen }: { rows: Schemas["WindowRows"]; kitchen: Schemas["Kitchen"] }) {
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const melts = grouped(rows.pots, (pot) => pot.melt);
  const pieces = grouped(rows.casts, (cast) => cast.named.piece);
  const all = rows.pots.length + rows.casts.length <= FEW_ROWS;
  return (
    <>
      <Safe lost={rows.lost} />
      {melts.map(([first, ...more], i) => (
        <Fold
          key={first.melt}
          title={meltName({ ...first, material: first.melt }, palettes)}
          note={`pour ${first.opens.value.high < 1 ? "at once" : `from ${range(first.opens.value)}`}, until ${range(first.closes.value)} off the heat`}
          open={all || i === 0}
        >
          <Pots pots={[first, ...more]} />
        </Fold>
      ))}
      {pieces.map(([first, ...more]) => (
        <Fold key={first.named.piece} title={first.named.piece} note={castNote([first, ...more])} open={all}>
          <Casts casts={[first, ...more]} kitchen={kitchen} />
        </Fold>
      ))}
      <p className="mt-2 text-quiet">Soft edges are what is not known. Readings at the bench narrow them.</p>
    </>
  );
}

/** Which windows are easily lost, and that the others hold. */
function Safe({ lost }: { lost: Schemas["WindowRows"]["lost"] }) {
  return (
    <p className="mb-2">
      {lost.map(({ named, kind, kept_frac, room_s, by_slip }) => (
        <span key={`${wholeName(named)} ${kind}`} className="block">
          <strong>
            {wholeName(named)}, {TASK_WORDS[kind]}:
          </strong>{" "}
          {by_slip
            ? "in time, unless something before it is done late."
            : `in time on ${daysWords(kept_frac)}, ${duration(room_s)} to spare.`}
        </span>
      ))}
      <span className="text-quiet">
        {lost.length === 0 ? "All that is done to a piece" : "All else that is done to a piece"} comes in time
        on 99 days of 100, whatever slips by half its own time to spare; a melt that thickens meanwhile is
        warmed again.
      </span>
    </p>
  );
}

const range = ({ low, high }: Spread) =>
  duration(low) === duration(high) ? duration(high) : `${duration(low)}–${duration(high)}`;

/** When the last of a piece may be turned out, in a word. */
function castNote(casts: CastRows): string {
  const last = casts.at(-1) ?? casts[0];
  const { unmould, touch } = last.windows;
  if (last.never.includes("unmould")) return "does not set there";
  if (unmould) return `turn out from ${range(unmould.value)} after its pour`;
  return touch ? `touch-set from ${range(touch.value)}` : "";
}

function Pots({ pots }: { pots: [Schemas["PotRow"], ...Schemas["PotRow"][]] }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const [first] = pots;
  const to = Math.max(
    ...pots.map((pot) => Math.min(pot.closes.value.high, pot.closes.value.likely * 1.6) * 1.2),
  );
  return (
    <div className="flex gap-6">
      <CookStick marks={first.marks} wording={first.wording} />
      <div ref={ref} className="min-w-0 flex-1">
        {pots.map((pot) => (
          <div key={`${pot.cook} ${pot.named.map(wholeName).join()}`} className="mb-3">
            <p className="mb-1">
              <b>
                {{ sugar: "Pot, cook", fat: "Bowl, melt" }[pot.wording]} {pot.cook + 1}
                {pot.named.length > 0 &&
                  `, for ${pot.named.map((n) => wholeName(n).toLowerCase()).join("; ")}`}
              </b>
              , off the heat: pour from <Figure of={pot.opens} name="Pour window opens" /> to{" "}
              <Figure of={pot.closes} name="Pour window closes" />;{" "}
              <Figure of={pot.capacity} name="Cavities one person fills in it" /> cavities fit at{" "}
              {duration(pot.each_s)} each
            </p>
            <HeatRibbon
              bands={drawnTo(pot.bands, to)}
              from={0}
              to={to}
              width={width}
              height={ROW_PX}
              words={BAND_WORDS}
              label={`Pour window of cook ${pot.cook + 1}`}
            />
          </div>
        ))}
        <Minutes to={to} width={width} />
      </div>
    </div>
  );
}

type CastRows = [Schemas["CastRow"], ...Schemas["CastRow"][]];

function Casts({ casts, kitchen }: { casts: CastRows; kitchen: Schemas["Kitchen"] }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const to = Math.max(...casts.map((cast) => reach(spreads(cast.windows), cast.never)));
  const placeOf = (id: string) => kitchen.places.find((p) => p.id === id)?.name.toLowerCase() ?? "";
  return (
    <div ref={ref}>
      {casts.map((cast) => (
        <div key={cast.round} className="mb-3">
          <p className="mb-1">
            <b>
              {wholeName(cast.named)}, {cast.casts} at a time
            </b>
            {cast.held !== null ? (
              <>
                , from the join: <JoinWords held={cast.held} moved={cast.windows.unmould} />
              </>
            ) : (
              <>
                , from the pour, {{ sugar: "on", fat: "in" }[cast.wording]} the {placeOf(cast.sets_in_id)}:{" "}
                <CastWords cast={cast} />
              </>
            )}
          </p>
          <HeatRibbon
            bands={drawnTo(cast.bands, to)}
            from={0}
            to={to}
            width={width}
            height={ROW_PX}
            words={BAND_WORDS}
            label={`Windows of ${wholeName(cast.named)}`}
          />
        </div>
      ))}
      <Minutes to={to} width={width} />
    </div>
  );
}

const spreads = (windows: Schemas["CastWindows"]): Record<string, Spread> =>
  Object.fromEntries(Object.entries(windows).flatMap(([name, of]) => (of ? [[name, of.value]] : [])));

/** How long a join is held, and left. */
function JoinWords({ held, moved }: { held: Explained; moved: Explained | null }) {
  return (
    <>
      hold it or prop it for <Figure of={held} name="Until it holds" />;{" "}
      {moved && (
        <>
          do not move it for <Figure of={moved} name="Until it may be moved" />
        </>
      )}
    </>
  );
}

/** What may be done with a cast when, each number explaining itself. */
function CastWords({ cast }: { cast: Schemas["CastRow"] }) {
  const { bend_opens, bend_closes, brittle, stick_closes } = cast.windows;
  const { groove_opens, groove_closes, comb_opens, comb_closes, cutter_closes } = cast.windows;
  const { touch, unmould, over_chilled, cool_to_hold } = cast.windows;
  return (
    <>
      {bend_opens && bend_closes && brittle && !cast.works.includes("stick") && (
        <>
          {cast.works.includes("bend") ? "bend from " : "soft enough to bend "}
          <Figure of={bend_opens} name="Bend window opens" /> to{" "}
          <Figure of={bend_closes} name="Bend window closes" />; snaps from{" "}
          <Figure of={brittle} name="Brittle" />;{" "}
        </>
      )}
      {cast.works.includes("stick") && stick_closes && (
        <>
          sticks in until <Figure of={stick_closes} name="Takes a stick until" />;{" "}
        </>
      )}
      {cast.works.includes("film") && comb_opens && comb_closes && (
        <>
          takes a film from <Figure of={comb_opens} name="No longer runs" /> to{" "}
          <Figure of={comb_closes} name="Takes no film any more" />;{" "}
        </>
      )}
      {cast.works.includes("drag") && comb_closes && (
        <>
          dragged through while it is wet, until <Figure of={comb_closes} name="Too firm to drag" />;{" "}
        </>
      )}
      {cast.works.includes("comb") && comb_opens && comb_closes && (
        <>
          combed from <Figure of={comb_opens} name="No longer runs" /> to{" "}
          <Figure of={comb_closes} name="Too firm to comb" />;{" "}
        </>
      )}
      {cast.works.includes("cut") && comb_opens && cutter_closes && (
        <>
          cut from <Figure of={comb_opens} name="No longer runs" /> to{" "}
          <Figure of={cutter_closes} name="Too firm to cut" />;{" "}
        </>
      )}
      {cast.works.includes("shape") && comb_opens && cutter_closes && (
        <>
          bends on its film from <Figure of={comb_opens} name="No longer runs" /> to{" "}
          <Figure of={cutter_closes} name="Too firm to bend" />;{" "}
        </>
      )}
      {cast.works.includes("groove") && groove_opens && groove_closes && (
        <>
          groove from <Figure of={groove_opens} name="Leathery" /> to{" "}
          <Figure of={groove_closes} name="Too firm to groove" />;{" "}
        </>
      )}
      {cast.next_pass ? (
        <>
          the next pass from <Figure of={cast.next_pass} name="Bears the next pass" />
        </>
      ) : (
        <>
          {touch && (
            <>
              touch-set from <Figure of={touch} name="Touch-set" />;{" "}
            </>
          )}
          {cast.never.includes("unmould")
            ? "it does not set there"
            : unmould && (
                <>
                  unmould from <Figure of={unmould} name="May be unmoulded" />
                </>
              )}
          {over_chilled && !cast.never.includes("over_chilled") && (
            <>
              ; over-chilled from <Figure of={over_chilled} name="Over-chilled" />
            </>
          )}
        </>
      )}
      {cool_to_hold.value.likely > 0 && (
        <>
          ; hot to hold until <Figure of={cool_to_hold} name="Hot to hold until" />
        </>
      )}
    </>
  );
}

function Minutes({ to, width }: { to: number; width: number }) {
  const every = markEvery(to, 14);
  return (
    <div className="relative h-6" aria-hidden="true">
      {marksTo(to, every).map((s) => (
        <span
          key={s}
          className={`absolute text-sm text-quiet ${s === 0 ? "" : "-translate-x-1/2"}`}
          style={{ left: (s / to) * width }}
        >
          {s / 60}
          {s === 0 ? "" : s === every ? " min" : ""}
        </span>
      ))}
    </div>
  );
}

function CookStick({ marks, wording }: { marks: Schemas["Marks"]; wording: Wording }) {
  const units = useUnits();
  const { opens_degc: opens, closes_degc: closes, end_degc: end } = marks;
  const low = { sugar: 20, fat: 15 }[wording];
  const glass = marks.glass_degc ?? low;
  const every: Record<Wording, Zone[]> = {
    sugar: [
      { from: low, to: glass, fill: "plain", word: "glass" },
      { from: glass, to: closes, fill: "close-dots", word: "thickens" },
      { from: closes, to: opens, fill: "open", word: "pour" },
      { from: opens, to: end, fill: "hatch", word: "bubbles" },
    ],
    fat: [
      { from: low, to: closes, fill: "close-dots", word: "thickens, sets" },
      { from: closes, to: opens, fill: "open", word: "fluid: pour" },
      { from: opens, to: end + 8, fill: "hatch", word: "too hot" },
    ],
  };
  const zones = every[wording];
  return (
    <div className="hidden shrink-0 md:block">
      <ThermoStick
        low={low}
        high={end + 8}
        height={300}
        word={(degc) => amount(degc, "temperature", units)}
        zones={zones}
        reading={end}
      />
    </div>
  );
}
