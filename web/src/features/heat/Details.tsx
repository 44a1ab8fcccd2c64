import { memo, type ReactNode } from "react";
import type { Schemas, Spread } from "../../api/client";
import { capital } from "../../shared/format/capital";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import type { Cast, Explored } from "./queries";
import {
  inputWords,
  LEVEL_WORDS,
  MARK_WORDS,
  minutes,
  onFirstWords,
  RISKS,
  riskWords,
  sweats,
  TAKE_WORDS,
  takeWords,
} from "./words";

const LIMITS: Record<string, string> = { heat: "heat", setting: "how fast the fat sets" };

/** What one way comes to: what the piece takes when, what limits it, what it rests on, what it risks. */
export const Details = memo(function Details({
  of,
  bend,
  onFirst,
}: {
  of: Explored;
  bend: Cast["bend"];
  onFirst: boolean;
}) {
  const units = useUnits();
  const degc = (value: number) => amount(value, "temperature", units);
  const unmould = of.windows.unmould;
  return (
    <div className="mt-6 gap-x-10 xl:columns-2">
      <Block title="What it takes, when">
        <dl className="grid grid-cols-[auto_auto] items-baseline justify-start gap-x-5 gap-y-1 sm:grid-cols-[auto_auto_auto]">
          {of.takes.map((take) => (
            <Time
              key={take.what}
              name={TAKE_WORDS[take.what] ?? take.what}
              time={takeWords(take, of.horizon_s)}
              of={take.opens ?? take.closes}
              by={take.limited_by}
              horizon={of.horizon_s}
            />
          ))}
          {of.windows.skin && !of.never.includes("skin") && (
            <Time
              name="skins over"
              time={`from ${duration(of.windows.skin.likely)}`}
              of={of.windows.skin}
              by={of.limited_by.skin ?? "heat"}
              horizon={of.horizon_s}
            />
          )}
          <Time
            name="unmould"
            time={
              unmould && !of.never.includes("unmould")
                ? `from ${duration(unmould.likely)}`
                : "does not set here"
            }
            of={unmould ?? null}
            by={of.limited_by.unmould ?? "heat"}
            horizon={of.horizon_s}
          />
          {of.uneven && (
            <Time
              name="thin and thick places"
              time={`${duration(of.uneven.thin_s)} and ${duration(of.uneven.thick_s)}`}
              of={null}
              by=""
              horizon={of.horizon_s}
            />
          )}
        </dl>
      </Block>
      {of.on_first && onFirst && (
        <Block title="On the first pass">
          <p className={of.on_first.does.verdict === "dissolves" ? "border-l-4 border-heat pl-3" : ""}>
            {onFirstWords(of.on_first, of.family, units)}
          </p>
        </Block>
      )}
      {of.bend && bend && of.windows.bend_opens && (
        <Bend of={of.bend} bend={bend} opens={of.windows.bend_opens.likely} />
      )}
      <Block title="What limits it">
        <p>
          Unmoulding waits for <strong>{LIMITS[of.limited_by.unmould ?? "heat"]}</strong>.
        </p>
        {of.helps.length > 0 ? (
          <ul className="mt-1 space-y-0.5">
            {of.helps.map((help) => (
              <li key={help.change}>
                {help.change}: <strong>{minutes(help.sooner_s)}</strong> sooner
              </li>
            ))}
          </ul>
        ) : (
          <p>Nothing simple would make it quicker.</p>
        )}
        {of.rests_on.map((rests) => (
          <p key={rests.mark} className="mt-2">
            <strong>{capital(MARK_WORDS[rests.mark] ?? rests.mark)}</strong> is unsure for{" "}
            {rests.shares
              .filter((share) => share.frac > 0.05)
              .map((share) => `${inputWords(share.input)} (${Math.round(share.frac * 100)} %)`)
              .join(", ")}
            .{" "}
            {rests.reading &&
              `One reading of ${rests.reading} would take away ${Math.round(rests.narrows_frac * 100)} %.`}
          </p>
        ))}
      </Block>
      <Block title="What may go wrong">
        {of.warm_room && (
          <p className="mb-2 border-l-4 border-heat pl-3">
            So near to where its fat melts, how fast it sets is the least sure of all here: it may take twice
            as long. Somewhere cooler is surer.
          </p>
        )}
        <dl className="space-y-2">
          {of.risks.map((risk) => (
            <div key={risk.kind} className={risk.level === "low" ? "" : "border-l-4 border-heat pl-3"}>
              <dt className="font-bold">
                {RISKS[risk.kind]}: {LEVEL_WORDS[risk.level]}
              </dt>
              <dd>
                {capital(riskWords(risk, units))}.{" "}
                <span className="text-quiet">{risk.sources.map(plain).join(", ")}</span>
              </dd>
            </div>
          ))}
          {of.sweat && (
            <div className={sweats(of.sweat) ? "border-l-4 border-heat pl-3" : ""}>
              <dt className="font-bold">
                sweats:{" "}
                {sweats(of.sweat)
                  ? of.sweat.sweats_s === null
                    ? "on and on"
                    : minutes(of.sweat.sweats_s)
                  : "no"}
              </dt>
              <dd>
                {sweats(of.sweat)
                  ? `Up to ${(of.sweat.water_kg_m2 * 1000).toFixed(1)} g of water on a square metre, ${of.sweat.dry_s === null ? "not dry in three hours" : `dry after ${minutes(of.sweat.dry_s)}`}. Warm it up closed, or in two steps.`
                  : `The room's dew point is ${degc(of.sweat.dew_degc)}.`}
              </dd>
            </div>
          )}
        </dl>
      </Block>
      {of.glass.length > 0 && <GlassWords glass={of.glass} />}
      {of.reheats.length > 0 && (
        <Block title="Softening one place again">
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            {of.reheats.map((heat) => (
              <Row key={heat.means} name={heat.means}>
                {heat.soft_s === null
                  ? "does not get through"
                  : heat.spoils_s !== null && heat.spoils_s < heat.soft_s
                    ? `face browns after ${minutes(heat.spoils_s)}: in touches, it needs ${minutes(heat.soft_s)}`
                    : `bends after ${minutes(heat.soft_s)}`}
              </Row>
            ))}
          </dl>
        </Block>
      )}
    </div>
  );
});

/** A time, how far it may be off, and what limits it. */
function Time({
  name,
  time,
  of,
  by,
  horizon,
}: {
  name: string;
  time: string;
  of: Spread | null;
  by: string;
  horizon: number;
}) {
  return (
    <>
      <dt>{name}</dt>
      <dd className="font-bold">{time}</dd>
      <dd className="col-span-2 text-sm text-quiet sm:col-span-1">
        {of && of.likely < horizon && of.likely >= 5
          ? `${duration(of.low)} to ${duration(of.high)}, by ${by}`
          : ""}
      </dd>
    </>
  );
}

function Bend({ of, bend, opens }: { of: Schemas["Bent"]; bend: NonNullable<Cast["bend"]>; opens: number }) {
  const units = useUnits();
  const length = (si: number) => amount(si, "length", units);
  const seconds = (s: number) => (s < 1 ? "less than 1 s" : minutes(s));
  return (
    <Block title="The bend">
      <p>
        {of.until_s !== null && of.until_s > opens ? (
          <>
            To {length(bend.radius_m)} in {seconds(bend.over_s)}: from <strong>{duration(opens)}</strong>{" "}
            until <strong>{duration(of.until_s)}</strong>.
          </>
        ) : (
          "So tight and so quick it cracks: more slowly, or wider."
        )}
      </p>
      <p className="mt-1 text-quiet">
        In the middle of the window, at {amount(of.at_degc, "temperature", units)}, it takes{" "}
        {seconds(of.limits.fastest_s)} at least, or {length(of.limits.tightest_m)} of radius. Its outside
        stretches {(of.limits.strain_frac * 100).toFixed(1)} %.
      </p>
    </Block>
  );
}

/** What a mark is called at the bench, and by who works glass. */
const GLASS: Record<Schemas["GlassAt"]["mark"], [string, string]> = {
  pour_closes: ["pours above", ""],
  thread_closes: ["pulls threads above", "working point"],
  bend_opens: ["bends, is pulled, below", ""],
  holds: ["holds its shape below", ""],
  softening: ["", "softening point"],
  pull_closes: ["is pulled above", ""],
  bend_closes: ["bends above", ""],
  brittle: ["snaps below", ""],
  unmould: ["unmould below", "annealing point"],
  strain: ["stack, keep, below", "strain point"],
};

function GlassWords({ glass }: { glass: Schemas["GlassAt"][] }) {
  const units = useUnits();
  return (
    <Block title="Its temperatures">
      <dl className="grid grid-cols-[auto_auto_1fr] gap-x-4 gap-y-1">
        {glass.map(({ mark, degc }) => (
          <div key={mark} className="contents">
            <dt>{GLASS[mark][0]}</dt>
            <dd className="text-right font-bold">{amount(degc, "temperature", units)}</dd>
            <dd className="text-quiet">{GLASS[mark][1]}</dd>
          </div>
        ))}
      </dl>
    </Block>
  );
}

function Block({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mb-6 break-inside-avoid">
      <h3 className="mb-2 border-b border-line pb-1 text-lg">{title}</h3>
      {children}
    </section>
  );
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd className="font-bold">{children}</dd>
    </>
  );
}

const plain = (source: string) => source.replaceAll("-", " ");
