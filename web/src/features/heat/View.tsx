import { useQuery, useQueryClient } from "@tanstack/react-query";
import { memo, useCallback, useMemo, useState } from "react";
import { Link } from "react-router";
import { problemOf, type Schemas } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { Profile } from "../../drawings/Profile";
import { BAND_WORDS, drawnTo, reach } from "../../shared/bands";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { mendWords } from "../../shared/format/words";
import { kitchenQuery, pieceListQuery, propertiesQuery } from "../../shared/kitchen";
import { markEvery, marksTo } from "../../shared/marks";
import { Button } from "../../shared/ui/plain";
import { useWidth } from "../../shared/useWidth";
import { CastInputs } from "./CastInputs";
import { Details } from "./Details";
import { Path } from "./Path";
import type { Cast, Explored, Stay, Way } from "./queries";
import { TakeIntoPiece } from "./TakeIntoPiece";
import { useAsked } from "./useAsked";
import { difference } from "./words";

const MOST_WAYS = 3;
const NARROW = 560;
const POURING_S = 60;
const FIRST_CAST: Cast = {
  material: "coating",
  temper: "tempered",
  water_frac: null,
  piece_id: null,
  shape: "plate",
  thickness_m: 0.004,
  mould: "silicone",
  wall_m: 0.003,
  pour_degc: null,
  first: null,
  bend: null,
};

/** One cast, up to three ways through places, side by side. */
export function HeatView() {
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const groups = useQuery(propertiesQuery).data?.groups;
  const pieces = useQuery(pieceListQuery).data?.items;
  if (!kitchen || !groups || !pieces) return null;
  return <Explorer kitchen={kitchen} groups={groups} pieces={pieces} />;
}

function Explorer({
  kitchen,
  groups,
  pieces,
}: {
  kitchen: Schemas["Kitchen"];
  groups: Schemas["Group"][];
  pieces: Schemas["StoredPiece"][];
}) {
  const queryClient = useQueryClient();
  const asked = useAsked(() => ({ cast: FIRST_CAST, ways: firstWays(kitchen.places) }));
  const { cast, ways } = asked.want;
  const [chosen, setChosen] = useState(0);
  const [at, setAt] = useState(0.25);
  const [ref, width] = useWidth<HTMLDivElement>(900);
  const { answers, error, change: ask } = asked;
  const shown = named(
    ways.flatMap(({ id }, i) => {
      const of = answers?.get(id);
      return of ? [{ i, of }] : [];
    }),
  );
  const problem = useMemo(() => (error ? problemOf(error) : null), [error]);
  const to = Math.max(60, ...shown.map(({ of }) => reach(of.windows, [...of.never, "strain"])));
  const now = at * to;
  const current = shown.find((way) => way.i === chosen) ?? shown[0];
  const [low, high] = scaleOf(shown.map((way) => way.of));
  const change = useCallback(
    (patch: Partial<Cast>) => ask((before) => ({ cast: { ...before.cast, ...patch } })),
    [ask],
  );
  const setWay = useCallback(
    (id: string, stays: Stay[]) =>
      ask((before) => ({ ways: before.ways.map((way) => (way.id === id ? { ...way, stays } : way)) })),
    [ask],
  );
  const each = width < NARROW ? width : Math.min(width / Math.max(shown.length, 1) - 24, 420);
  return (
    <div className="grid min-h-full lg:grid-cols-[260px_1fr]">
      <CastInputs
        cast={cast}
        onChange={change}
        groups={groups}
        pieces={pieces}
        pouredAt={current?.of.pour_degc ?? null}
        problem={problem}
      />
      <section className="min-w-0 px-7 py-6" aria-label="Ways">
        <div className="flex flex-wrap items-baseline justify-between gap-4">
          <h1 className="text-3xl">Heat</h1>
          <Link to="/kitchen/materials" className="font-bold text-glass hover:underline">
            Materials and their values
          </Link>
        </div>
        <p className="mt-2 mb-4 min-h-7 text-xl" role="status">
          {problem ? mendWords(problem) : difference(shown)}
        </p>
        <div ref={ref}>
          {ways.map(({ id, stays }, i) => {
            const way = shown.find((row) => row.i === i);
            return (
              <div
                key={id}
                className={`mb-4 border-l-4 pl-3 ${i === chosen ? "border-glass" : "border-transparent"}`}
              >
                <div className="mb-2 flex flex-wrap items-end justify-between gap-3">
                  <Path id={id} stays={stays} places={kitchen.places} onWay={setWay} />
                  <span className="flex gap-4">
                    {i !== chosen && (
                      <Button kind="quiet" label={`More of way ${i + 1}`} onClick={() => setChosen(i)}>
                        more
                      </Button>
                    )}
                    {ways.length > 1 && (
                      <Button
                        kind="quiet"
                        label={`Remove way ${i + 1}`}
                        onClick={() => {
                          ask((before) => ({ ways: before.ways.filter((way) => way.id !== id) }));
                          setChosen(0);
                        }}
                      >
                        remove
                      </Button>
                    )}
                  </span>
                </div>
                {way && (
                  <div className={asked.old ? "opacity-60" : ""}>
                    <WayRibbon
                      of={way.of}
                      to={to}
                      now={now}
                      width={width - 16}
                      label={`Way ${i + 1}, ${way.name}`}
                    />
                  </div>
                )}
              </div>
            );
          })}
          <div className="pl-4">
            <Ticks to={to} width={width - 16} />
            <input
              type="range"
              aria-label="Moment shown"
              aria-valuetext={duration(now)}
              className="block h-8 w-full"
              min={0}
              max={1}
              step={0.002}
              value={at}
              onChange={(event) => setAt(Number(event.target.value))}
            />
            <div className="flex items-baseline justify-between gap-4">
              <span>
                <strong className="text-2xl">{duration(now)}</strong> after the pour
              </span>
              {ways.length < MOST_WAYS && (
                <Button
                  kind="quiet"
                  onClick={() =>
                    ask((before) => ({
                      ways: [
                        ...before.ways,
                        { id: crypto.randomUUID(), stays: before.ways.at(-1)?.stays ?? [] },
                      ],
                    }))
                  }
                >
                  Add a way
                </Button>
              )}
            </div>
          </div>
          <div className="mt-3 flex flex-wrap gap-6">
            {shown.map((way) => (
              <WaySection
                key={way.i}
                of={way.of}
                now={now}
                low={low}
                high={high}
                width={each}
                number={way.i + 1}
              />
            ))}
          </div>
        </div>
        {current && (
          <>
            <div className="mt-4 flex flex-wrap items-baseline gap-6">
              <h2 className="text-xl">{current.name}</h2>
              <TakeIntoPiece
                pieces={pieces}
                chosen={cast.piece_id}
                stays={ways[current.i]?.stays ?? []}
                onTaken={() => void queryClient.invalidateQueries({ queryKey: ["piece"] })}
              />
            </div>
            <Details of={current.of} bend={cast.bend} onFirst={cast.first !== null} />
          </>
        )}
      </section>
    </div>
  );
}

interface Shown {
  of: Explored;
  now: number;
  width: number;
}

const WayRibbon = memo(function WayRibbon(given: Shown & { to: number; label: string }) {
  const { of, to } = given;
  return (
    <HeatRibbon
      bands={drawnTo(of.bands, to)}
      from={0}
      to={to}
      now={given.now}
      width={given.width}
      height={56}
      words={BAND_WORDS}
      label={given.label}
    />
  );
});

const WaySection = memo(function WaySection(given: Shown & { low: number; high: number; number: number }) {
  const { of, now, width } = given;
  const units = useUnits();
  const frame = frameAt(of, now);
  return (
    <figure style={{ width }}>
      <figcaption className="text-quiet">{placeAt(of, now)}</figcaption>
      <Profile
        layers={of.layers[frame.stay] ?? []}
        frame={frame}
        low={given.low}
        high={given.high}
        marks={marksOf(of)}
        firm={(degc, set) => firm(of, degc, set)}
        word={(degc) => amount(degc, "temperature", units)}
        length={(si) => amount(si, "length", units)}
        width={width}
        label={`Section of way ${given.number} at ${duration(now)}`}
      />
    </figure>
  );
});

/** Fridge, freezer and where it was poured: what a decorator weighs against each other. */
function firstWays(places: Schemas["Place"][]): Way[] {
  const poured = places[0]?.id ?? "";
  const cold = places.filter((p) => p.kind !== "room" && !p.fan).slice(0, 2);
  const first: Stay = { from_s: 0, place_id: poured, care: "none" };
  const ways = cold.map((p): Stay[] => [first, { from_s: POURING_S, place_id: p.id, care: "none" }]);
  return (ways.length > 0 ? ways : [[first]]).map((stays, i) => ({ id: String(i), stays }));
}

/** Ways by where they end, told apart by their number where they end alike. */
function named<W extends { i: number; of: Explored }>(ways: W[]): (W & { name: string })[] {
  const ends = ways.map(({ of }) => of.places.at(-1) ?? "");
  return ways.map((way, k) => {
    const end = ends[k] ?? "";
    return { ...way, name: ends.filter((name) => name === end).length > 1 ? `${end} (${way.i + 1})` : end };
  });
}

function placeAt(of: Explored, now: number): string {
  const i = of.moved_s.filter((from) => from <= now).length - 1;
  return of.places[Math.max(i, 0)] ?? "";
}

function frameAt(of: Explored, now: number): Schemas["Frame"] {
  const frames = of.frames;
  const next = frames.findIndex((frame) => frame.at_s >= now);
  return frames[next === -1 ? frames.length - 1 : next] as Schemas["Frame"];
}

/** One scale for all ways: from the coldest they come to up to the pour. */
function scaleOf(ways: Explored[]): [number, number] {
  const temps = ways.flatMap((of) => of.frames.flatMap((frame) => frame.temps));
  if (temps.length === 0) return [0, 50];
  return [Math.min(...temps) - 3, Math.max(...temps) + 3];
}

function marksOf({ marks }: Explored): { degc: number; word: string }[] {
  return marks.of === "setting"
    ? [{ degc: marks.unmould, word: "unmould" }]
    : [
        { degc: marks.bend_opens, word: "bends" },
        { degc: marks.glass, word: "glass" },
      ];
}

/** How firm a cell is: a glass by its temperature, a fat by what has set of it. */
const firm = ({ marks }: Explored, degc: number, set: number): number =>
  marks.of === "setting" ? set : (marks.bend_opens - degc) / (marks.bend_opens - marks.glass);

const TICK_APART_PX = 70;
const EDGE_PX = 30;

/** Minutes since the pour, under the ribbons. */
function Ticks({ to, width }: { to: number; width: number }) {
  const every = markEvery(to, width / TICK_APART_PX);
  const marks = marksTo(to, every).filter((s) => (s / to) * width < width - EDGE_PX);
  return (
    <div className="relative h-6" aria-hidden="true">
      {marks.map((s) => (
        <span
          key={s}
          className={`absolute whitespace-nowrap text-[0.95rem] text-quiet ${s === 0 ? "" : "-translate-x-1/2"}`}
          style={{ left: (s / to) * width }}
        >
          {s === 0 ? "0" : every < 60 ? duration(s) : `${s / 60} min`}
        </span>
      ))}
    </div>
  );
}
