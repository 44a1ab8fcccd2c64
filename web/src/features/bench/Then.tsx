import type { Schemas } from "../../api/client";
import { actShort } from "../../shared/actWords";
import { clock } from "../../shared/format/units";
import { keyOf } from "../../shared/subject";
import { Stick } from "./Stick";

/** What follows, with how long it can wait; below it the selected pot or round on its temperature scale. */
export function Then({
  acts,
  view,
  elapsed,
  selected,
}: {
  acts: Schemas["ActView"][];
  view: Schemas["BenchView"];
  elapsed: number;
  selected: Schemas["Ribbon"] | undefined;
}) {
  return (
    <section aria-label="Then" className="flex flex-col gap-2 border-line bg-ground px-6 py-4 lg:border-l-2">
      <div>
        <h2 className="mb-2 text-xl text-quiet">Then</h2>
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
                          : `open for ${clock(left - (act.opens_s - elapsed))}`}
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
