import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Lanes } from "../../drawings/Lanes";
import { duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { day, dayAndTime, timeOfDay } from "../../shared/format/zone";
import { paletteListQuery } from "../../shared/kitchen";
import { laneRows, meltsByCook, type Names, ofWhat, TASK_WORDS } from "../../shared/laneWords";
import { Fold } from "../../shared/ui/Fold";
import { Part } from "./Part";
import { type Asked, timetableQuery } from "./queries";

/** Back from the due time: who and what is busy with what, and what waits, each in its row. */
export function Timetable({ asked, kitchen }: { asked: Asked; kitchen: Schemas["Kitchen"] }) {
  return (
    <Part query={timetableQuery(asked)} place="min-h-[36rem]">
      {(of) => <Rows of={of} kitchen={kitchen} />}
    </Part>
  );
}

function Rows({ of, kitchen }: { of: Schemas["TimetablePart"]; kitchen: Schemas["Kitchen"] }) {
  const units = useUnits();
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const names: Names = { kitchen, palettes, units };
  const zero = new Date(of.planned_at).getTime();
  const at = (s: number) => new Date(zero + s * 1000);
  const spans = of.lanes.flatMap((lane) => lane.spans);
  const from = Math.min(...spans.map((span) => span.start_s));
  const to = Math.max(...spans.map((span) => span.end_s.likely));
  // over a night, times have their day
  const over = day(at(from), kitchen.zone) !== day(at(to), kitchen.zone);
  const clock = (s: number) => timeOfDay(at(s), kitchen.zone);
  const dated = (s: number) => (over ? dayAndTime : timeOfDay)(at(s), kitchen.zone);
  const hands = of.lanes.filter((lane) => lane.kind === "hands");
  const away = (hands[0]?.spans ?? [])
    .filter((span) => span.role === "away")
    .map((span): [number, number] => [span.start_s, span.end_s.likely]);
  const melts = meltsByCook(of.lanes, names);
  return (
    <>
      <Lanes
        lanes={laneRows(of.lanes, names, dated)}
        from={from}
        to={to}
        away={away}
        now={(Date.now() - zero) / 1000}
        clock={clock}
        label={`Timetable from ${clock(from)} to ${clock(to)}`}
      />
      <div className="mt-5">
        {hands.map(({ id, name, spans: all }) => {
          const tasks = all.filter((span) => span.role !== "away");
          return (
            <Fold
              key={id}
              title={`What ${name || "the hands"} ${name ? "does" : "do"}, one after the other`}
              note={`${tasks.length} tasks`}
            >
              <ol
                aria-label={`Tasks of ${name || "the hands"}`}
                className="columns-[17rem] gap-8 text-[0.95rem]"
              >
                {tasks.map((task) => (
                  <li
                    key={`${task.what} ${task.cook} ${task.round} ${task.start_s}`}
                    title={`takes ${duration(task.end_s.likely - task.start_s)}`}
                    className="flex break-inside-avoid gap-3"
                  >
                    <b className={`${over ? "w-36" : "w-12"} shrink-0`}>{dated(task.start_s)}</b>
                    <span className="min-w-0 truncate">
                      {task.what && TASK_WORDS[task.what]}{" "}
                      <span className="text-quiet">{ofWhat(task, melts).toLowerCase()}</span>
                    </span>
                  </li>
                ))}
              </ol>
            </Fold>
          );
        })}
      </div>
    </>
  );
}
