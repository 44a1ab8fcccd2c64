import type { Schemas } from "../../api/client";
import { actShort } from "../../shared/actWords";
import type { SendEvent } from "../../shared/events";
import { clock } from "../../shared/format/units";
import { keyOf } from "../../shared/subject";
import { Timers } from "./Side";
import { Stick } from "./Stick";

/** What follows, with how long it can wait; below it the selected pot or round on its temperature scale. */
export function Then({
  actor,
  acts,
  view,
  elapsed,
  selected,
  send,
  onSide,
  onOnward,
}: {
  actor: string;
  acts: Schemas["ActView"][];
  view: Schemas["BenchView"];
  elapsed: number;
  selected: Schemas["Ribbon"] | undefined;
  send: SendEvent;
  onSide: () => void;
  onOnward: () => void;
}) {
  return (
    <section aria-label="Then" className="flex flex-col gap-2 border-line bg-ground px-6 py-4 lg:border-l-2">
      <Timers view={view} elapsed={elapsed} send={send} />
      <div>
        <div className="mb-1 flex items-center justify-between gap-3">
          <h2 className="text-xl text-quiet">Then</h2>
          <button
            type="button"
            onClick={onOnward}
            title="How to go on: when it ends, another order, who is there"
            className="ml-auto min-h-11 px-2 text-lg text-glass hover:underline"
          >
            G go on
          </button>
          <button
            type="button"
            onClick={onSide}
            title="A note of this moment, or a timer"
            className="min-h-11 px-2 text-lg text-glass hover:underline"
          >
            N note, timer
          </button>
        </div>
        {acts.length === 0 && <p className="text-lg">Nothing else waits.</p>}
        <ol>
          {acts.map((act) => {
            const open = act.opens_s <= elapsed;
            const left = act.closes_s === null ? null : act.closes_s - elapsed;
            return (
              <li
                key={`${act.what.kind} ${keyOf(act.subject)}`}
                className="flex gap-3 border-t border-line py-2"
              >
                <span
                  className={`w-[4.5rem] shrink-0 text-2xl font-bold ${open && left !== null ? "text-heat" : ""}`}
                >
                  {open ? (left === null ? "now" : clock(left)) : clock(act.opens_s - elapsed)}
                </span>
                <span className="text-xl">
                  {act.who !== "" && act.who !== actor && <b>{act.who}: </b>}
                  {actShort(act, view)}
                  <span className="block text-base text-quiet">
                    {act.forecast
                      ? "likely"
                      : open
                        ? left === null
                          ? "can wait"
                          : "until it closes"
                        : left === null
                          ? "then it can wait"
                          : `${clock(left - (act.opens_s - elapsed))} to do it`}
                  </span>
                </span>
              </li>
            );
          })}
        </ol>
      </div>
      {selected && <Stick ribbon={selected} elapsed={elapsed} room={view.room_degc} />}
    </section>
  );
}
