import { useState } from "react";
import {
  dayAndTime,
  day as dayOf,
  fromLocalField,
  otherMoment,
  timesMeant,
  toLocalField,
} from "../../shared/format/zone";
import { Pick } from "../../shared/ui/controls";
import { Button, Notice } from "../../shared/ui/plain";
import { TimeField } from "../../shared/ui/TimeField";

/** So far ahead a day can be chosen [days]. */
const AHEAD_DAYS = 180;
const DAY_MS = 24 * 3600 * 1000;

interface Props {
  due: string;
  zone: string;
  error: string | undefined;
  onChange: (due: string) => void;
}

/** When an order is due, in the kitchen's zone and as days and times are written here; a time that summer time skips or repeats is
 * asked about. */
export function Due({ due, zone, error, onChange }: Props) {
  const [asks, setAsks] = useState<{ text: string; meant: "never" | "twice" } | null>(null);
  const [day = "", time = ""] = (
    asks?.meant === "never" ? asks.text : toLocalField(new Date(due), zone)
  ).split("T");
  const take = (text: string) => {
    const moment = fromLocalField(text, zone);
    if (moment === null) return;
    const meant = timesMeant(text, zone);
    setAsks(meant === "once" ? null : { text, meant });
    if (meant !== "never") onChange(moment.toISOString());
  };
  const choose = (moment: Date | null) => {
    if (moment) onChange(moment.toISOString());
    setAsks(null);
  };
  const nearest = asks && fromLocalField(asks.text, zone);
  const both =
    asks?.meant === "twice"
      ? [fromLocalField(asks.text, zone), otherMoment(asks.text, zone)]
          .filter((m) => m !== null)
          .sort((a, b) => a.getTime() - b.getTime())
      : [];
  return (
    <div>
      <div className="flex items-end gap-4">
        <div className="w-40">
          <Pick
            label="Due"
            value={day}
            options={daysFrom(day, zone)}
            onChange={(next) => take(`${next}T${time}`)}
          />
        </div>
        <TimeField label="Time" value={time} onChange={(next) => take(`${day}T${next}`)} />
        <span className="pb-2 text-quiet">{zone.replaceAll("_", " ")}</span>
      </div>
      {error && (
        <p role="alert" className="mt-1 text-sm font-semibold text-heat">
          {error}
        </p>
      )}
      {asks?.meant === "never" && nearest && (
        <Notice tone="hot">
          The clock skips this hour. Did you mean {dayAndTime(nearest, zone)}?{" "}
          <Button kind="quiet" onClick={() => choose(nearest)}>
            Yes, {toLocalField(nearest, zone).slice(-5)}
          </Button>
        </Notice>
      )}
      {both.length === 2 && (
        <Notice tone="hot">
          This hour comes twice. Which one?{" "}
          <Button kind="quiet" onClick={() => choose(both[0] ?? null)}>
            The first, summer time
          </Button>{" "}
          <Button kind="quiet" onClick={() => choose(both[1] ?? null)}>
            The second
          </Button>
        </Notice>
      )}
    </div>
  );
}

/** The days from today on, and the chosen one where it is none of them. */
function daysFrom(chosen: string, zone: string) {
  const today = new Date();
  const days = Array.from({ length: AHEAD_DAYS }, (_, i) => new Date(today.getTime() + i * DAY_MS));
  const options = days.map((moment) => ({
    key: toLocalField(moment, zone).slice(0, 10),
    name: dayOf(moment, zone),
  }));
  if (options.some(({ key }) => key === chosen)) return options;
  const moment = fromLocalField(`${chosen}T12:00`, zone);
  return moment ? [...options, { key: chosen, name: dayOf(moment, zone) }] : options;
}
