import { useState } from "react";
import type { Schemas } from "../../api/client";
import { dayAndTime, day as dayOf, fromLocalField, timeOfDay, toLocalField } from "../../shared/format/zone";
import { Pick } from "../../shared/ui/controls";
import { Button, Notice } from "../../shared/ui/plain";
import { TimeField } from "../../shared/ui/TimeField";
import type { Asked } from "./queries";
import {
  costWords,
  isSameWish,
  type OfThing,
  type OnWishes,
  outcomeWords,
  type Wish,
  type WishNames,
  wishWords,
  without,
} from "./wishWords";

type Kind = Wish["wish"];

interface Props {
  asked: Asked;
  kept: Schemas["WishesKept"] | null;
  names: WishNames;
  people: string[];
  /** When the plan begins and ends. */
  span: [Date, Date];
  /** As they stand now; what came of them is of those that were asked. */
  wishes: Wish[];
  onChange: OnWishes;
}

/** What was asked of the timetable, what came of it and what it costs; and asking for more. */
export function Wishes({ asked, wishes, kept, names, people, span, onChange }: Props) {
  const [open, setOpen] = useState(false);
  const { wishes: before, due_at } = asked.order;
  const isGone = (wish: Wish) => kept?.gone.some((n) => isSameWish(before[n], wish)) ?? false;
  return (
    <section aria-label="Wishes" className="mb-4 space-y-2">
      {kept &&
        outcomeWords(kept, before, names, dayAndTime(new Date(due_at), names.zone)).map((words) => (
          <Notice key={words} tone="hot">
            {words}
          </Notice>
        ))}
      {wishes.length > 0 && (
        <ul aria-label="Asked for" className="flex flex-wrap gap-x-8">
          {wishes.map((wish, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a wish is its place in the order
            <li key={n} className="flex min-h-11 items-center gap-3">
              <span>
                {wishWords(wish, names)}
                {isGone(wish) && <strong className="text-heat"> (not in this order any more)</strong>}
              </span>
              <Button
                kind="quiet"
                label={`Lift: ${wishWords(wish, names)}`}
                onClick={() => onChange((now) => without(now, wish))}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <p className="flex flex-wrap items-center gap-x-5 text-quiet">
        {kept && kept.clashes.length + kept.unfound.length === 0 && <span>{costWords(kept)}</span>}
        <span>Press what hands do to hold it at a time, or drag it there.</span>
        <Button kind="quiet" expanded={open} onClick={() => setOpen(!open)}>
          Ask for more
        </Button>
      </p>
      {open && (
        <Ask
          pieces={Object.entries(names.pieces).map(([key, name]) => ({ key, name }))}
          people={people}
          zone={names.zone}
          span={span}
          onAsk={(wish) => onChange((now) => [...now, wish])}
        />
      )}
    </section>
  );
}

const KINDS: Record<Kind, string> = {
  begins_at: "at",
  not_before: "not before",
  over_by: "ready by",
  only_by: "by one of you only",
  not_by: "not by one of you",
  there_from: "is there",
  away_from: "is away",
};
const OF_PIECE: Kind[] = ["not_before", "over_by", "only_by", "not_by"];
const OF_PERSON: Kind[] = ["there_from", "away_from"];
const DAY_MS = 24 * 3600_000;

interface AskProps {
  pieces: { key: string; name: string }[];
  people: string[];
  zone: string;
  span: [Date, Date];
  onAsk: (wish: Wish) => void;
}

/** A wish for a whole piece, or for one of the people. */
function Ask({ pieces, people, zone, span: [begins, ends], onAsk }: AskProps) {
  const [of, setOf] = useState(pieces[0]?.key ?? "");
  const [kind, setKind] = useState<Kind>("not_before");
  const [day, setDay] = useState(toLocalField(begins, zone).slice(0, 10));
  const [from, setFrom] = useState(timeOfDay(begins, zone));
  const [to, setTo] = useState(timeOfDay(ends, zone));
  const [who, setWho] = useState(people[0] ?? "");
  const isPerson = people.includes(of);
  const kinds = isPerson ? OF_PERSON : people.length > 1 ? OF_PIECE : OF_PIECE.slice(0, 2);
  const chosen = kinds.includes(kind) ? kind : (kinds[0] ?? kind);
  const moment = (time: string, onDay = day) => fromLocalField(`${onDay}T${time}`, zone);
  const made = (): Wish | null => {
    const thing: OfThing = { piece_id: of, step: null, what: null, nth: null };
    const [at, until] = [moment(from), moment(to)];
    switch (chosen) {
      case "begins_at":
      case "not_before":
      case "over_by":
        return at && { wish: chosen, of: thing, at: at.toISOString() };
      case "only_by":
      case "not_by":
        return { wish: chosen, of: thing, person: who };
      case "there_from":
      case "away_from": {
        // to a time no later than from: over the night
        const over = at && until && until <= at ? new Date(until.getTime() + DAY_MS) : until;
        return at && over && { wish: chosen, person: of, at: at.toISOString(), until: over.toISOString() };
      }
    }
  };
  const days = Array.from(
    { length: Math.max(Math.ceil((ends.getTime() - begins.getTime()) / DAY_MS), 0) + 2 },
    (_, i) => new Date(begins.getTime() + i * DAY_MS),
  ).map((moment) => ({ key: toLocalField(moment, zone).slice(0, 10), name: dayOf(moment, zone) }));
  const byWhom = chosen === "only_by" || chosen === "not_by";
  const wish = made();
  return (
    <div className="flex flex-wrap items-end gap-x-5 gap-y-3 border-l-4 border-glass bg-panel px-5 py-4">
      <div className="w-60">
        <Pick
          label="What, or who"
          value={of}
          options={[...pieces, ...people.map((name) => ({ key: name, name }))]}
          onChange={setOf}
        />
      </div>
      <div className="w-48">
        <Pick
          label="How"
          value={chosen}
          options={kinds.map((key) => ({ key, name: KINDS[key] }))}
          onChange={setKind}
        />
      </div>
      {byWhom ? (
        <div className="w-40">
          <Pick
            label="Whom"
            value={who}
            options={people.map((name) => ({ key: name, name }))}
            onChange={setWho}
          />
        </div>
      ) : (
        <>
          <div className="w-40">
            <Pick label="Day" value={day} options={days} onChange={setDay} />
          </div>
          <TimeField
            label={isPerson ? "from" : "Time"}
            value={from}
            onChange={setFrom}
            onNone={() => setFrom("")}
          />
          {isPerson && <TimeField label="to" value={to} onChange={setTo} onNone={() => setTo("")} />}
        </>
      )}
      <Button disabled={!wish} onClick={() => wish && onAsk(wish)}>
        Ask for it
      </Button>
    </div>
  );
}
