import { useState } from "react";
import { dayAndTime, fromLocalField, otherMoment, timesMeant, toLocalField } from "../../shared/format/zone";
import { Button, Notice, TextField } from "../../shared/ui/controls";

/** When an order is due, in the kitchen's zone; a time that summer time skips or repeats is asked about. */
export function Due({
  due,
  zone,
  error,
  onChange,
}: {
  due: string;
  zone: string;
  error: string | undefined;
  onChange: (due: string) => void;
}) {
  const [asks, setAsks] = useState<{ text: string; meant: "never" | "twice" } | null>(null);
  const shown = toLocalField(new Date(due), zone);
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
      <TextField
        label={`Due, ${zone.replaceAll("_", " ")}`}
        type="datetime-local"
        value={asks?.meant === "never" ? asks.text : shown}
        onChange={take}
        error={error}
      />
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
