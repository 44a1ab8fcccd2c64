import { useState } from "react";
import type { Schemas } from "../../api/client";
import { fromLocalField, timeOfDay, toLocalField } from "../../shared/format/zone";
import { TASK_WORDS } from "../../shared/laneWords";
import { wholeName } from "../../shared/named";
import { Button } from "../../shared/ui/plain";
import { TimeField } from "../../shared/ui/TimeField";
import type { OfThing, Wish } from "./wishWords";

interface Props {
  span: Schemas["Span"];
  thing: OfThing;
  /** When it begins and ends. */
  from: Date;
  to: Date;
  zone: string;
  /** Whose hands are at it, and whose may be. */
  who: string;
  people: string[];
  onWish: (wish: Wish) => void;
  onClose: () => void;
}

/** One thing that hands do, and what may be wished of it. */
export function Picked({ span, thing, from, to, zone, who, people, onWish, onClose }: Props) {
  const [time, setTime] = useState(timeOfDay(from, zone));
  const at = fromLocalField(`${toLocalField(from, zone).slice(0, 10)}T${time}`, zone)?.toISOString();
  const others = people.filter((name) => name !== who);
  return (
    <section aria-label="Chosen" className="my-3 border-l-4 border-glass bg-panel px-5 py-3">
      <p className="flex flex-wrap items-baseline gap-x-4">
        <strong className="text-lg">
          {span.named ? wholeName(span.named) : ""}: {span.what && TASK_WORDS[span.what]}
        </strong>
        <span className="text-quiet">
          {timeOfDay(from, zone)} to {timeOfDay(to, zone)}
          {who && `, ${who}`}
        </span>
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <TimeField label="Time" value={time} onChange={setTime} onNone={() => setTime("")} />
        <Button disabled={!at} onClick={() => at && onWish({ wish: "begins_at", of: thing, at })}>
          Hold it at {time}
        </Button>
        <Button
          kind="quiet"
          disabled={!at}
          onClick={() => at && onWish({ wish: "not_before", of: thing, at })}
        >
          Not before {time}
        </Button>
        <Button kind="quiet" disabled={!at} onClick={() => at && onWish({ wish: "over_by", of: thing, at })}>
          Done by {time}
        </Button>
        {who !== "" && people.length > 1 && (
          <>
            <Button kind="quiet" onClick={() => onWish({ wish: "only_by", of: thing, person: who })}>
              {who} keeps it
            </Button>
            {others.map((name) => (
              <Button
                key={name}
                kind="quiet"
                onClick={() => onWish({ wish: "only_by", of: thing, person: name })}
              >
                Give it to {name}
              </Button>
            ))}
          </>
        )}
        <Button kind="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
}
