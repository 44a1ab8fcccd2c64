import type { ReactNode } from "react";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import type { Answer } from "../../shared/ask";
import { BAND_WORDS, drawnTo } from "../../shared/bands";
import { burstList } from "../../shared/bowlWords";
import { amount, duration, range, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { markEvery, marksTo } from "../../shared/marks";
import { doseWords, FAR_OFF } from "../../shared/melts";
import { Figure } from "../../shared/ui/Figure";
import { useWidth } from "../../shared/useWidth";
import type { Names } from "./Sentence";

type Of<Q extends Answer["question"]> = Extract<Answer, { question: Q }>;

/** An answer: the one figure she came for, large; what goes with it; what was taken for granted. */
export function Answered({ answer, names }: { answer: Answer; names: Names }) {
  const units = useUnits();
  return (
    <>
      <div className="mt-5">{figure(answer, names, units)}</div>
      <p className="mt-6 max-w-prose text-quiet">{granted(answer, names, units)}</p>
    </>
  );
}

function figure(answer: Answer, names: Names, units: Units): ReactNode {
  switch (answer.question) {
    case "unmould":
      return <Unmould of={answer} names={names} />;
    case "how_much":
      return <HowMuch of={answer} units={units} />;
    case "still":
      return <Still of={answer} units={units} />;
    case "heat":
      return (
        <Said
          big={answer.bursts ? `${burstList([...answer.bursts])}` : range(answer.lasts, "s", units)}
          say={
            answer.bursts
              ? `stirred between, ${duration(answer.lasts.likely)} in all, to ${amount(answer.to_degc, "temperature", units)}; look after each, lumps and all`
              : `on the ring to ${amount(answer.to_degc, "temperature", units)}, ${answer.water_kg > 0 ? `with ${amount(answer.water_kg, "mass", units)} of water` : "no water"}`
          }
        />
      );
    case "seed":
      return (
        <Said
          big={<Figure of={answer.seed} name="Seed" text={range(answer.seed.value, "kg", units)} />}
          say={`melted to ${range(answer.melt_to, "degC", units)}, stirred in at ${range(answer.seed_at, "degC", units)}, worked at ${range(answer.work_at, "degC", units)}; spoilt above ${amount(answer.spoils_degc, "temperature", units)}`}
        />
      );
    case "colour":
      return <Colours of={answer} units={units} />;
    case "keeps":
      return <Keeps of={answer} units={units} />;
    case "stands":
      return <Stands of={answer} units={units} />;
  }
}

/** The figure across the room, and the line under it. */
function Said({ big, say, beside }: { big: ReactNode; say: ReactNode; beside?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-end gap-x-12 gap-y-4">
      <div>
        <p className="font-head text-5xl font-bold sm:text-6xl" role="status">
          {big}
        </p>
        <p className="mt-2 max-w-prose text-lg text-quiet">{say}</p>
      </div>
      {beside}
    </div>
  );
}

function Unmould({ of, names }: { of: Of<"unmould">; names: Names }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const [first, ...others] = of.lies;
  const whereOf = (id: string) => {
    const place = names.kitchen.places.find((p) => p.id === id);
    return place ? `${place.kind === "room" ? "on" : "in"} the ${place.name.toLowerCase()}` : "there";
  };
  const hot = names.melts.find((melt) => melt.key === of.asked.material)?.family?.made === "cooked";
  return (
    <>
      <Said
        big={first?.unmould ? minutes(first.unmould, units) : "It does not set there"}
        say={
          first?.unmould
            ? hot
              ? "then it is glass: ease it out of the mould, warm to the hand"
              : "then it drops out when the mould is turned"
            : "take a colder place, or a thinner cast"
        }
        beside={
          <dl className="flex flex-wrap gap-x-9 gap-y-3">
            {others.map(({ place_id, unmould, cracks }) => (
              <div key={place_id} className="flex flex-col-reverse">
                <dt className="text-quiet">
                  {whereOf(place_id)}
                  {cracks && `, may crack from ${Math.floor(cracks.low / 60)} min`}
                </dt>
                <dd className="font-head text-2xl font-bold">
                  {unmould ? minutes(unmould, units) : "does not set"}
                </dd>
              </div>
            ))}
          </dl>
        }
      />
      <div ref={ref} className="mt-6">
        <HeatRibbon
          bands={drawnTo(of.bands, of.to_s)}
          from={0}
          to={of.to_s}
          width={width}
          height={58}
          words={BAND_WORDS}
          label="Its states from the pour on"
        />
        <div className="relative h-6" aria-hidden="true">
          {marksTo(of.to_s, markEvery(of.to_s, 9)).map((s) => (
            <span
              key={s}
              className={`absolute text-sm text-quiet ${s === 0 ? "" : "-translate-x-1/2"}`}
              style={{ left: (s / of.to_s) * width }}
            >
              {s === 0 ? "poured" : `${s / 60} min`}
            </span>
          ))}
        </div>
      </div>
    </>
  );
}

/** Whole minutes, as one waits; seconds where it is short. */
function minutes(of: { low: number; high: number }, units: Units): string {
  if (of.high < 180) return range({ ...of, likely: of.low }, "s", units);
  const [low, high] = [Math.floor(of.low / 60), Math.ceil(of.high / 60)];
  return low === high ? `${high} min` : `${low} to ${high} min`;
}

function HowMuch({ of, units }: { of: Of<"how_much">; units: Units }) {
  const { casts, rounds, cooks, cavities, sure_frac, melts } = of;
  return (
    <>
      <Said
        big={amount(of.fresh_kg, "mass", units)}
        say={
          <>
            to melt in all: <Figure of={casts} name="Castings" /> cast for {of.asked.quantity}, spares with
            them ({Math.round(100 * sure_frac)} % sure), what stays in the vessel and a reserve; {rounds}{" "}
            {rounds === 1 ? "filling" : "fillings"} of a mould of {cavities}, {cooks}{" "}
            {cooks === 1 ? "melt" : "melts"}
          </>
        }
        beside={
          <p>
            <strong className="block font-head text-2xl">{amount(of.each_kg, "mass", units)}</strong>
            <span className="text-quiet">each, finished</span>
          </p>
        }
      />
      {melts.length > 1 && (
        <ul className="mt-4 flex flex-wrap gap-x-8 text-lg">
          {melts.map((melt) => (
            <li key={`${melt.material} ${melt.colour}`}>
              <strong>{amount(melt.kg, "mass", units)}</strong> {melt.name.toLowerCase()}
              {melt.colour && (
                <span
                  aria-hidden
                  className="ml-2 inline-block h-3.5 w-3.5 border border-ink"
                  style={{ background: melt.colour }}
                />
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

const SPOILT = { sugar: "it browns", fat: "its fat parts from the rest and it sets crinkled and pale" };

function Still({ of, units }: { of: Of<"still">; units: Units }) {
  const done = { pour: "poured", pipe: "piped", dip: "dipped into", bend: "bent" }[of.asked.doing ?? "pour"];
  const between = `${done} from ${amount(of.to_degc, "temperature", units)} down to about ${amount(of.from_degc, "temperature", units)}`;
  switch (of.verdict) {
    case "yes":
      return (
        <Said
          big={`Yes, for ${minutes(of.lasts, units)}`}
          say={`as it stands, stirred now and then; it is ${between}`}
        />
      );
    case "wait":
      return <Said big={`Wait ${minutes(of.waits, units)}`} say={`too hot yet; it is ${between}`} />;
    case "spoilt":
      return (
        <Said
          big="No: it has been too hot"
          say={`over ${amount(of.to_degc, "temperature", units)} ${SPOILT[of.rows]}: melt fresh`}
        />
      );
    case "no":
      return <Said big="No: warm it again, gently" say={`too cold by now; it is ${between}`} />;
  }
}

function Colours({ of, units }: { of: Of<"colour">; units: Units }) {
  if (!of.coloured)
    return (
      <Said
        big="No colour at hand"
        say="Note the colours you have, each with its kind and dye; then it is told in drops and grams."
      />
    );
  const { doses, swatches, delta_e } = of.coloured;
  const look = swatches[0]?.looks.daylight;
  return (
    <Said
      big={doses.length === 0 ? "None: as it comes" : doses.map((dose) => doseWords(dose, units)).join(", ")}
      say={
        delta_e < FAR_OFF
          ? "looks as wanted"
          : `the nearest these reach, ${delta_e.toFixed(0)} off by the eye's measure`
      }
      beside={
        <span aria-hidden className="flex h-16 w-32 border border-ink">
          <span className="flex-1" style={{ background: of.asked.wanted ?? "" }} />
          <span className="flex-1" style={{ background: look }} />
        </span>
      }
    />
  );
}

function Keeps({ of, units }: { of: Of<"keeps">; units: Units }) {
  const { sweat, sticky_frac, humidity_frac } = of;
  const damp = amount(humidity_frac, "share", units);
  const dry = sweat.dry_s;
  const wet = sweat.sweats_s !== 0;
  return (
    <>
      <Said
        big={
          wet
            ? dry === null
              ? "It sweats, and stays wet"
              : `It sweats, dry after ${duration(dry)}`
            : "It does not sweat"
        }
        say={`this air gives off its water on all that is colder than ${amount(sweat.dew_degc, "temperature", units)}${wet ? ". Bring it out in a closed box, and open that when it is as warm as the room" : ""}`}
      />
      {sticky_frac && (
        <p className="mt-4 text-lg">
          {humidity_frac >= sticky_frac.low ? (
            <strong>At {damp} it may turn sticky: box it with drying agent as soon as it is cold.</strong>
          ) : (
            `Sticky from about ${amount(sticky_frac.low, "share", units)} humidity on; here it is ${damp}.`
          )}
        </p>
      )}
    </>
  );
}

function Stands({ of, units }: { of: Of<"stands">; units: Units }) {
  if (of.tips_rad === null)
    return (
      <Said
        big="No piece says how it stands"
        say="Open a piece, put it together, and say where its parts are and what it stands on."
      />
    );
  const leans = of.tips_rad >= of.safe_rad;
  return (
    <Said
      big={of.tips_rad <= 0 ? "It tips over" : leans ? "It stands" : "It stands, but barely"}
      say={`${of.tips_rad > 0 ? `tips when it leans by ${amount(of.tips_rad, "angle", units)}; ` : ""}it should bear ${amount(of.safe_rad, "angle", units)}; ${amount(of.kg, "mass", units)} in all`}
    />
  );
}

const NAMED: Record<string, string> = {
  material: "the melt",
  thickness_m: "the thickness",
  mould: "the mould",
  place_id: "the place",
  quantity: "how many",
  shape: "the shape",
  across_m: "its size",
  doing: "what you do",
  degc: "how warm it is",
  kg: "how much",
  wanted: "the colour",
  piece_id: "the piece",
};

/** What nobody said, and was taken as usual; and what else the answer rests on. */
function granted(answer: Answer, { kitchen }: Names, units: Units): string {
  const assumed = answer.assumed.map((name) => NAMED[name] ?? name);
  const usual =
    assumed.length > 0 ? `Taken as usual: ${assumed.join(", ")}; press it above to change it. ` : "";
  const room = `a room of ${amount(kitchen.room_degc, "temperature", units)}`;
  switch (answer.question) {
    case "unmould":
      return `${usual}Poured at ${amount(answer.pour_degc, "temperature", units)}, a mould wall of ${amount(answer.wall_m, "length", units)}, still air, ${answer.bench_s > 0 ? `${duration(answer.bench_s)} on the bench first, ` : ""}${room}. One timed tray in your own kitchen narrows it.`;
    case "how_much":
      return `${usual}With a reserve of ${Math.round(100 * answer.reserve_frac)} %, and breakage as is usual until your own is known.`;
    case "still":
      return answer.asked.doing === "bend"
        ? `${usual}A flat piece in its mould on the bench, in ${room}.`
        : `${usual}In the usual vessel on the bench, in ${room}; it has come down to this from as warm as it is made.`;
    case "heat":
      return `${usual}In ${name(kitchen.vessels, answer.vessel_id)}, ${answer.bursts ? "in" : "on"} ${name([...kitchen.microwaves, ...kitchen.rings], answer.heater_id)}, from ${room}.`;
    case "seed":
      return `${usual}Seed as warm as the room, and melted right through first.`;
    case "colour":
      return `${usual}From your colours at hand; stir in half, look at a drop on white, then the rest.`;
    case "keeps":
      return `${usual}It has been in the cold long enough to be as cold; ${room}, ${amount(kitchen.humidity_frac, "share", units)} humidity.`;
    case "stands":
      return `${usual}Joins that hold, on a level board.`;
  }
}

const name = (rows: { id: string; name: string }[], id: string) =>
  `the ${rows.find((row) => row.id === id)?.name.toLowerCase() ?? "usual one"}`;
