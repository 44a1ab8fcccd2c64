/** Moments are UTC inside; screens show the kitchen's zone. */

const TIME = { hour: "2-digit", minute: "2-digit" } as const;
const FORMS = {
  time: TIME,
  seconds: { ...TIME, second: "2-digit" },
  day: { weekday: "short", day: "numeric", month: "short" },
  field: { ...TIME, year: "numeric", month: "2-digit", day: "2-digit", hourCycle: "h23" },
} as const;

const made = new Map<string, Intl.DateTimeFormat>();
/** A writer of moments: each is costly to make, and made once. */
function writer(form: keyof typeof FORMS, zone: string): Intl.DateTimeFormat {
  const key = `${form} ${zone}`;
  const known = made.get(key) ?? new Intl.DateTimeFormat("en-GB", { timeZone: zone, ...FORMS[form] });
  made.set(key, known);
  return known;
}

export const timeOfDay = (moment: Date, zone: string, seconds = false): string =>
  writer(seconds ? "seconds" : "time", zone).format(moment);

export const dayAndTime = (moment: Date, zone: string): string =>
  `${day(moment, zone)} ${timeOfDay(moment, zone)}`;

export const day = (moment: Date, zone: string): string => writer("day", zone).format(moment);

/** For a datetime-local field: the moment as written in the zone. */
export function toLocalField(moment: Date, zone: string): string {
  const parts = writer("field", zone).formatToParts(moment);
  const part = (type: string) => parts.find((p) => p.type === type)?.value ?? "00";
  return `${part("year")}-${part("month")}-${part("day")}T${part("hour")}:${part("minute")}`;
}

export type Meant = "once" | "never" | "twice";

/** Whether a datetime-local text is a time of the zone: not at all in the hour that is skipped, twice in the one that is repeated. */
export function timesMeant(text: string, zone: string): Meant {
  const moment = fromLocalField(text, zone);
  if (moment === null || toLocalField(moment, zone) !== text) return "never";
  return otherMoment(text, zone) === null ? "once" : "twice";
}

const HOUR_MS = 3_600_000;

/** The other moment of a time that comes twice, an hour on or back; null where it comes once. */
export function otherMoment(text: string, zone: string): Date | null {
  const moment = fromLocalField(text, zone);
  if (moment === null) return null;
  const others = [HOUR_MS, -HOUR_MS].map((ms) => new Date(moment.getTime() + ms));
  return others.find((other) => toLocalField(other, zone) === text) ?? null;
}

/** The moment that a datetime-local text means in the zone. */
export function fromLocalField(text: string, zone: string): Date | null {
  const guess = new Date(`${text}:00Z`);
  if (!/^\d{4,}-\d\d-\d\dT\d\d:\d\d$/.test(text) || Number.isNaN(guess.getTime())) return null;
  let moment = guess;
  // twice: the offset at the guess may be another than at the moment itself
  for (let i = 0; i < 2; i++) {
    const written = new Date(`${toLocalField(moment, zone)}:00Z`);
    moment = new Date(moment.getTime() + (guess.getTime() - written.getTime()));
  }
  return moment;
}

/** How long after its midnight a moment is, by the clock there [s]. */
export function sinceMidnight_s(moment: Date, zone: string): number {
  const time = timeOfDay(moment, zone);
  return Number(time.slice(0, 2)) * 3600 + Number(time.slice(3)) * 60 + moment.getUTCSeconds();
}
