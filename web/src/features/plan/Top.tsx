import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { amount, daysWords, duration, roughly } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { day, timeOfDay } from "../../shared/format/zone";
import { paletteListQuery } from "../../shared/kitchen";
import { meltName, tonesOf } from "../../shared/melts";
import { wholeName } from "../../shared/named";
import { Figure } from "../../shared/ui/Figure";
import { Whose } from "../../shared/Whose";
import { cookWord } from "./melting";
import type { Plan, Summary } from "./queries";

/** The order in one look: how many, what is melted, from when to when, how sure, what is tight. */
export function Top({ plan, zone }: { plan: Plan; zone: string }) {
  const units = useUnits();
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const { summary, asked, lines } = plan;
  const { melts, casts, start, lasts_s, hands_s, spare_s, in_time_frac, sure_frac, tightest } = summary;
  const melted = melts.reduce((sum, melt) => sum + melt.fresh.value.likely, 0);
  const [only] = melts.length === 1 ? melts : [];
  const pieces = lines.reduce((sum, line) => sum + line.quantity, 0);
  const begins = new Date(new Date(asked.planned_at).getTime() + start.value.likely * 1000);
  const ends = new Date(begins.getTime() + lasts_s * 1000);
  const over = day(begins, zone) !== day(ends, zone);
  return (
    <>
      <dl className="flex flex-wrap gap-x-9 gap-y-3">
        <Item
          name={
            <>
              {pieces === 1 ? "piece" : "pieces"},{" "}
              {melts.length > 0 ? (
                <>
                  <Figure of={casts} name="Castings" /> cast
                </>
              ) : (
                "nothing melted"
              )}
            </>
          }
        >
          {pieces}
        </Item>
        {melts.length > 0 && (
          <Item
            name={
              <>
                in <Figure of={summary.cook_count} name="Melts" /> {cooksWord(summary)},{" "}
                {only ? only.name.toLowerCase() : `${melts.length} kinds`}
              </>
            }
          >
            {only ? (
              <Figure of={only.fresh} name={`${only.name} to weigh out`} />
            ) : (
              amount(melted, "mass", units)
            )}
          </Item>
        )}
        <Item
          name={`${over ? "" : `${day(begins, zone)}, `}${duration(lasts_s)}, hands busy ${duration(hands_s)}; ${roughly(spare_s)} to spare, in time on ${daysWords(in_time_frac)}`}
        >
          <Figure
            of={start}
            name="Start at the latest"
            text={over ? `${day(begins, zone)} ${timeOfDay(begins, zone)}` : timeOfDay(begins, zone)}
          />{" "}
          to {over ? `${day(ends, zone)} ` : ""}
          {timeOfDay(ends, zone)}
        </Item>
        {melts.length > 0 && (
          <Item name={summary.castings.length > 1 ? "each part enough" : "sure that it is enough"}>
            {amount(sure_frac, "share", units)}
          </Item>
        )}
        {tightest && (
          <Item
            name={`tightest pour, ${wholeName(tightest.named).toLowerCase()}; at worst ${tightest.open_s.low < 1 ? "none" : duration(tightest.open_s.low)}`}
          >
            {duration(tightest.takes_s)} of {duration(tightest.open_s.likely)}
          </Item>
        )}
      </dl>
      <Whose orders={plan.orders} zone={zone} />
      {melts.length > 1 && (
        <ul aria-label="By melt" className="mt-3 flex flex-wrap gap-x-6 gap-y-1">
          {melts.map((melt) => (
            <li key={melt.melt} className="flex items-baseline gap-2">
              <span
                aria-hidden
                className="inline-block h-3.5 w-3.5 border border-ink"
                style={{ background: tonesOf(melt).tone }}
              />
              <strong>{amount((melt.divided_off ?? melt.fresh).value.likely, "mass", units)}</strong>
              {meltName(melt, palettes).toLowerCase()}
              {melt.divided_off && <span className="text-quiet">off one pot</span>}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

const cooksWord = ({ melts, cook_count }: Summary) => {
  const [word = "melt", ...other] = new Set(melts.map((melt) => cookWord(melt.wording)));
  if (other.length > 0) return "melts";
  return cook_count.value.likely === 1 ? word : `${word}s`;
};

function Item({ name, children }: { name: ReactNode; children: ReactNode }) {
  return (
    <div className="flex max-w-68 flex-col-reverse justify-end">
      <dt className="leading-tight text-quiet">{name}</dt>
      <dd className="font-head text-2xl font-bold">{children}</dd>
    </div>
  );
}
