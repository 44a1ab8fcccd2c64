import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import type { View } from "../../shared/acts";
import type { SendEvent } from "../../shared/events";
import { roughly } from "../../shared/format/units";
import { timeOfDay } from "../../shared/format/zone";
import { TASK_WORDS } from "../../shared/laneWords";
import { wholeName } from "../../shared/named";
import { Dialog } from "../../shared/ui/controls";
import { useDebounced } from "../../shared/useDebounced";
import { onwardQuery } from "./queries";

type WayOn = Schemas["WayOn"];

/** Less is as good as in time, and as soon [s]. */
const MINUTE_S = 60;
const QUIET_MS = 4_000;

interface Props {
  view: View;
  zone: string;
}

/** When all will be ready as it is going, where that is late, could be sooner, or something is about to be lost; and the way to choose. */
export function OnwardLine({ view, zone, onOpen }: Props & { onOpen: () => void }) {
  // asked anew once nothing has been told for a moment: hands come first
  const data = useQuery(onwardQuery(view.run_id, useDebounced(view.seq, QUIET_MS))).data;
  const [now] = data?.ways ?? [];
  if (!data || !now || view.paused) return null;
  const { late_s: late, sooner_s: sooner } = data;
  if (late < MINUTE_S && sooner === 0 && now.lost.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-5 px-6 py-1 text-xl">
      {late >= MINUTE_S ? (
        <strong className="text-heat">
          Ready about {clockOf(view, now.ends_s, zone)}, {roughly(late)} late.
        </strong>
      ) : (
        <span>Ready about {clockOf(view, now.ends_s, zone)}.</span>
      )}
      {now.lost[0] && (
        <strong className="text-heat">
          {wholeName(now.lost[0].named)}: {TASK_WORDS[now.lost[0].kind]} will be too late.
        </strong>
      )}
      {sooner > 0 && <span>{roughly(sooner)} sooner in another order.</span>}
      <button type="button" onClick={onOpen} className="min-h-11 font-bold text-glass hover:underline">
        How to go on
      </button>
    </p>
  );
}

interface DialogProps extends Props {
  people: string[];
  onClose: () => void;
  send: SendEvent;
}

/** The ways to go on, each with when it ends and what it loses; and who leaves or is back. */
export function OnwardDialog({ view, zone, people, onClose, send }: DialogProps) {
  const { data } = useQuery(onwardQuery(view.run_id, view.seq));
  const [now] = data?.ways ?? [];
  const take = ({ pours, whose }: WayOn) => {
    send("rearranged", { pours, whose });
    onClose();
  };
  return (
    <Dialog open onClose={onClose} title="How to go on" bench wide>
      {data && !now && (
        <p className="text-xl">
          What is left of this run cannot be arranged anew: it goes on by what may be done next.
        </p>
      )}
      <ul className="space-y-3" aria-label="Ways to go on" aria-busy={!data}>
        {now &&
          data?.ways.map((way) => (
            <li
              key={way.how}
              className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-line py-3"
            >
              <div className="min-w-64 flex-1">
                <strong className="block text-2xl">{HOW_WORDS[way.how]}</strong>
                <span className="text-lg text-quiet">
                  {[priceWords(now, way, data.due_s), ...way.lost.map(lostWords)].join("; ")}
                </span>
              </div>
              <span className="font-head text-3xl font-bold">{clockOf(view, way.ends_s, zone)}</span>
              {way.how === "rearranged" && (
                <button
                  type="button"
                  onClick={() => take(way)}
                  className="min-h-16 rounded-sm bg-glass px-6 text-xl font-bold text-on-glass"
                >
                  Go by this
                </button>
              )}
            </li>
          ))}
      </ul>
      <fieldset className="mt-5 flex flex-wrap items-center gap-x-6">
        <legend className="text-lg text-quiet">Who is there</legend>
        {people.map((name) => (
          <label key={name} className="flex min-h-12 items-center gap-3 text-xl">
            <input
              type="checkbox"
              className="size-6 accent-glass"
              checked={!view.gone.includes(name)}
              onChange={(e) => send("went", { person: name, away: !e.target.checked })}
            />
            {name}
          </label>
        ))}
      </fieldset>
      <button
        type="button"
        onClick={onClose}
        className="mt-6 min-h-16 rounded-sm border-2 border-ink px-8 text-2xl font-bold"
      >
        Close
      </button>
    </Dialog>
  );
}

const HOW_WORDS: Record<WayOn["how"], string> = {
  as_it_goes: "As it is going",
  rearranged: "In another order",
  help: "With another pair of hands from now on",
};

/** What a way brings against going on as it is. */
function priceWords(now: WayOn, way: WayOn, due_s: number): string {
  const late = way.ends_s - due_s;
  const inTime = late >= MINUTE_S ? `${roughly(late)} late` : "in time";
  const by = now.ends_s - way.ends_s;
  if (way.how === "as_it_goes") return inTime;
  return `${inTime}; ${by >= MINUTE_S ? `${roughly(by)} sooner` : by <= -MINUTE_S ? `${roughly(-by)} later` : "no sooner"}`;
}

const lostWords = ({ named, kind }: Schemas["LostShown"]) =>
  `${wholeName(named).toLowerCase()}: ${TASK_WORDS[kind]} too late`;

const clockOf = (view: View, s: number, zone: string) =>
  timeOfDay(new Date(new Date(view.started_at).getTime() + s * 1000), zone);
