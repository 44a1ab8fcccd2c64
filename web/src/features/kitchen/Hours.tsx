import type { Schemas } from "../../api/client";
import { Button } from "../../shared/ui/plain";
import { TimeField } from "../../shared/ui/TimeField";

type Opening = Schemas["Opening"];

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
/** What a day begins with, to be changed. */
const USUAL = { opens: "08:00", closes: "22:00" };

interface Props {
  hours: Opening[];
  onChange: (hours: Opening[]) => void;
}

/** What is said of a week without hours, of a day without any, and to give it some. */
interface WeekWords {
  always: string;
  shut: string;
  open: string;
}

const KITCHEN: WeekWords = { always: "At any time, day and night.", shut: "closed", open: "Open" };

/** When hands may be at work in a week: opening hours of a rented kitchen, or when nobody sleeps. */
export function Hours({ hours, onChange }: Props) {
  return (
    <section aria-label="Hours" className="space-y-3">
      <h2 className="border-b border-line pb-1 text-xl">When hands are there</h2>
      {hours.length > 0 && (
        <p className="text-quiet">
          Plans put work of hands in these hours only; what sets, dries or rests goes on by itself.
        </p>
      )}
      <Week words={KITCHEN} hours={hours} onChange={onChange} />
    </section>
  );
}

/** The hours of a week, or always. */
export function Week({ words, hours, onChange }: Props & { words: WeekWords }) {
  const patch = (of: Opening, change: Partial<Opening>) =>
    onChange(hours.map((row) => (row === of ? { ...row, ...change } : row)));
  const add = (day: number) =>
    onChange([...hours, { day, ...USUAL }].sort((a, b) => a.day - b.day || a.opens.localeCompare(b.opens)));
  return (
    <>
      {hours.length === 0 ? (
        <p className="flex flex-wrap items-center gap-x-5">
          {words.always}
          <Button kind="quiet" onClick={() => onChange(DAYS.map((_, day) => ({ day, ...USUAL })))}>
            Set hours
          </Button>
        </p>
      ) : (
        <>
          <ul className="grid gap-x-14 lg:grid-cols-2">
            {DAYS.map((name, day) => {
              const spans = hours.filter((of) => of.day === day);
              return (
                <li key={name} className="border-b border-line py-2">
                  <fieldset
                    aria-label={name}
                    className={`flex flex-wrap gap-x-6 gap-y-2 ${spans.length === 0 ? "items-center" : "items-end"}`}
                  >
                    <strong className="w-24 self-center">{name}</strong>
                    {spans.length === 0 && <span className="text-quiet">{words.shut}</span>}
                    {spans.map((of, n) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: an opening is its place in the day
                      <span key={n} className="flex items-end gap-3">
                        <TimeField label="from" value={of.opens} onChange={(opens) => patch(of, { opens })} />
                        <TimeField
                          label="to"
                          value={of.closes}
                          onChange={(closes) => patch(of, { closes })}
                        />
                        <Button
                          kind="quiet"
                          label={`Remove ${name} ${of.opens} to ${of.closes}`}
                          onClick={() => onChange(hours.filter((row) => row !== of))}
                        >
                          ×
                        </Button>
                      </span>
                    ))}
                    <Button kind="quiet" label={`${words.open} on ${name}`} onClick={() => add(day)}>
                      {spans.length === 0 ? words.open : "And again"}
                    </Button>
                  </fieldset>
                </li>
              );
            })}
          </ul>
          <Button kind="quiet" onClick={() => onChange([])}>
            At any time
          </Button>
        </>
      )}
    </>
  );
}
