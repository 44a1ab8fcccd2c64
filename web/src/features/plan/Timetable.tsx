import type { Schemas } from "../../api/client";
import { duration } from "../../shared/format/units";
import { timeOfDay } from "../../shared/format/zone";
import { markEvery, marksTo } from "../../shared/marks";
import { wholeName } from "../../shared/named";
import { useWidth } from "../../shared/useWidth";
import { Part } from "./Part";
import { type Asked, timetableQuery } from "./queries";

type Task = Schemas["Task"];

const WORDS: Record<Task["kind"], string> = {
  weigh: "weigh",
  cook: "cook",
  rest: "rest",
  pour: "pour",
  bend: "bend",
  stick: "sticks",
  sprinkle: "put on",
  groove: "groove",
  put_in: "fill",
  turn: "turn",
  set: "sets",
  unmould: "unmould",
  firm: "firms on its form",
  clean: "clean",
  dry: "dries",
  swirl: "swirl in",
  press: "press",
  join: "join",
};
/** What cannot wait. */
const SOFT_WORK: ReadonlySet<Task["kind"]> = new Set<Task["kind"]>([
  "pour",
  "turn",
  "bend",
  "stick",
  "sprinkle",
  "groove",
]);
const ROW_PX = 34;
/** So that two clock times do not meet, the last one written before its mark. */
const APART_PX = 75;

/** Back from the due time: what needs the hands above, what happens by itself below, a row a cook. */
export function Timetable({ asked, zone }: { asked: Asked; zone: string }) {
  return (
    <section aria-label="Timetable">
      <h2 className="border-b border-line pb-1 text-xl">Timetable, for one pair of hands</h2>
      <Part query={timetableQuery(asked)} place="mt-3 min-h-64">
        {(of) => <Rows of={of} zone={zone} />}
      </Part>
    </section>
  );
}

function Rows({ of, zone }: { of: Schemas["TimetablePart"]; zone: string }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const from = Math.min(...of.tasks.map((t) => t.start_s));
  const to = Math.max(...of.tasks.map((t) => t.end_s));
  const x = (s: number) => ((s - from) / (to - from)) * width;
  const zero = new Date(of.planned_at).getTime();
  const clock = (s: number) => timeOfDay(new Date(zero + s * 1000), zone);
  const rows = of.cooks + of.steps.length;
  const rowOf = (task: Task) => task.cook ?? of.cooks + (task.step ?? 0);
  const hands = of.tasks.filter((t) => t.hands);
  return (
    <>
      <div ref={ref} className="mt-3 overflow-hidden">
        <svg
          width={width}
          height={rows * (ROW_PX + 10)}
          role="img"
          aria-label={`From ${clock(from)} to ${clock(to)}`}
        >
          {of.tasks.map((task) => {
            const y = rowOf(task) * (ROW_PX + 10);
            const w = Math.max(x(task.end_s) - x(task.start_s), 1);
            const word = WORDS[task.kind];
            const fits = w > word.length * 9 + 8;
            return (
              <g key={`${task.kind}${task.cook}-${task.round}-${task.step}`}>
                <rect
                  x={x(task.start_s)}
                  y={task.hands ? y : y + ROW_PX / 2 - 3}
                  width={w}
                  height={task.hands ? ROW_PX : 6}
                  fill={
                    task.hands ? (SOFT_WORK.has(task.kind) ? "var(--glass)" : "var(--ink)") : "var(--line)"
                  }
                  stroke="var(--ground)"
                />
                {task.hands && fits && (
                  <text
                    x={x(task.start_s) + 7}
                    y={y + ROW_PX / 2 + 5}
                    fontSize="15"
                    fill={SOFT_WORK.has(task.kind) ? "var(--on-glass)" : "var(--ground)"}
                  >
                    {word}
                  </text>
                )}
              </g>
            );
          })}
        </svg>
        <Clocks from={from} to={to} x={x} clock={clock} />
      </div>
      <ol className="mt-3 columns-[11.5rem] gap-6">
        {hands.map((task) => (
          <li
            key={`${task.kind}${task.cook}-${task.round}-${task.step}`}
            title={`takes ${duration(task.end_s - task.start_s)}`}
            className="flex break-inside-avoid gap-3 whitespace-nowrap"
          >
            <b className="w-12">{clock(task.start_s)}</b>
            {WORDS[task.kind]}{" "}
            <span className="text-quiet">
              {task.step !== null
                ? stepName(of.steps, task.step)
                : task.round === null
                  ? `cook ${(task.cook ?? 0) + 1}`
                  : `round ${task.round + 1}`}
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}

function stepName(steps: readonly Schemas["Named"][], step: number): string {
  const named = steps[step];
  return named ? wholeName(named).toLowerCase() : "";
}

/** Clock times under the rows, at round minutes. */
function Clocks({
  from,
  to,
  x,
  clock,
}: {
  from: number;
  to: number;
  x: (s: number) => number;
  clock: (s: number) => string;
}) {
  // the last mark is the end, the due time; the others count back from it
  const marks = marksTo(to - from, markEvery(to - from, Math.min(9, x(to) / APART_PX))).map((s) => to - s);
  return (
    <div className="relative h-6" aria-hidden="true">
      {marks.map((s) => (
        <span
          key={s}
          className={`absolute text-sm text-quiet ${s === to ? "-translate-x-full" : x(s) < 20 ? "" : "-translate-x-1/2"}`}
          style={{ left: x(s) }}
        >
          {clock(s)}
        </span>
      ))}
    </div>
  );
}
