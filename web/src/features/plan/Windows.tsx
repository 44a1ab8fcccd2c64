import type { Explained, Schemas, Spread } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { ThermoStick, type Zone } from "../../drawings/ThermoStick";
import { BAND_WORDS, drawnTo, reach } from "../../shared/bands";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { markEvery, marksTo } from "../../shared/marks";
import { wholeName } from "../../shared/named";
import { Figure } from "../../shared/ui/Figure";
import { useWidth } from "../../shared/useWidth";
import type { Wording } from "../../shared/wording";
import { Part } from "./Part";
import { type Asked, windowsQuery } from "./queries";

const ROW_PX = 46;

/** When to pour, bend and unmould: the pot from off the heat, the casts from their pour, on one scale. */
export function Windows({ asked, kitchen }: { asked: Asked; kitchen: Schemas["Kitchen"] }) {
  return (
    <section aria-label="Windows">
      <h2 className="border-b border-line pb-1 text-xl">Windows</h2>
      <Part query={windowsQuery(asked)} place="mt-3 min-h-96">
        {(rows) => <Ribbons rows={rows} kitchen={kitchen} />}
      </Part>
    </section>
  );
}

function Ribbons({ rows, kitchen }: { rows: Schemas["WindowRows"]; kitchen: Schemas["Kitchen"] }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const to = Math.max(
    ...rows.casts.map((cast) => reach(spreads(cast.windows), cast.never)),
    ...rows.pots.map((pot) => Math.min(pot.closes.value.high, pot.closes.value.likely * 1.6) * 1.2),
  );
  const placeOf = (id: string) => kitchen.places.find((p) => p.id === id)?.name.toLowerCase() ?? "";
  return (
    <div className="mt-3 flex gap-6">
      <CookStick marks={rows.marks} />
      <div ref={ref} className="min-w-0 flex-1">
        {rows.pots.map((pot) => (
          <div key={pot.cook} className="mb-4">
            <p className="mb-1">
              <b>
                {{ sugar: "Pot, cook", fat: "Bowl, melt" }[pot.wording]} {pot.cook + 1}
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
        {rows.casts.map((cast) => (
          <div key={cast.round} className="mb-4">
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
        <p className="mt-1 text-sm text-quiet">
          Soft edges are what is not known. Readings at the bench narrow them.
        </p>
      </div>
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
  const { bend_opens, bend_closes, brittle, stick_closes, groove_opens, groove_closes } = cast.windows;
  const { touch, unmould, over_chilled, cool_to_hold } = cast.windows;
  return (
    <>
      {bend_opens && bend_closes && brittle && cast.work !== "stick" && (
        <>
          {cast.work === "bend" ? "bend from " : "soft enough to bend "}
          <Figure of={bend_opens} name="Bend window opens" /> to{" "}
          <Figure of={bend_closes} name="Bend window closes" />; snaps from{" "}
          <Figure of={brittle} name="Brittle" />;{" "}
        </>
      )}
      {cast.work === "stick" && stick_closes && (
        <>
          sticks in until <Figure of={stick_closes} name="Takes a stick until" />;{" "}
        </>
      )}
      {cast.work === "groove" && groove_opens && groove_closes && (
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

function CookStick({ marks }: { marks: Schemas["Marks"] }) {
  const units = useUnits();
  const { opens_degc: opens, closes_degc: closes, end_degc: end } = marks;
  const low = { sugar: 20, fat: 15 }[marks.wording];
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
  const zones = every[marks.wording];
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
