import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { dayAndTime, timeOfDay } from "../../shared/format/zone";
import { usePerson } from "../../shared/person";
import { Button, Notice, TextField } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { FileLink } from "../../shared/ui/files";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useDebounced } from "../../shared/useDebounced";
import { useThing } from "../../shared/useThing";
import { Inputs } from "./Inputs";
import { cookWord, Melts } from "./Melts";
import { PourCards } from "./PourCards";
import { type Plan, planQuery, type Summary, startRun } from "./queries";
import { remarkWords } from "./remarks";
import { Timetable } from "./Timetable";
import { Windows } from "./Windows";

const PAUSE_MS = 60;

interface Props {
  stored: Schemas["StoredOrder"];
  pieces: Schemas["StoredPiece"][];
  kitchen: Schemas["Kitchen"];
  onRemove: (id: string, version: number) => void;
}

export function PlanEditor({ stored, pieces, kitchen, onRemove }: Props) {
  const units = useUnits();
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const actor = usePerson(kitchen.people);
  const thing = useThing("order", stored);
  const { doc } = thing;
  const query = useQuery(planQuery(useDebounced(doc, PAUSE_MS)));
  const [refused, setRefused] = useState<Problem | null>(null);
  const problem = query.error ? problemOf(query.error) : null;
  // while something typed cannot be, the last plan that could stays to be seen, dimmed
  const good = useRef<Plan | undefined>(undefined);
  if (query.data) good.current = query.data;
  const plan = good.current;
  const stale = query.isPlaceholderData || problem !== null;

  const start = async () => {
    try {
      await startRun(stored.id, actor);
      await queryClient.invalidateQueries({ queryKey: ["bench"] });
      navigate("/bench");
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  return (
    <div className="px-7 py-6">
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
        <div className="min-w-64 flex-1">
          <TextField
            large
            label="Name of the order"
            value={doc.name}
            onChange={(name) => thing.change({ name })}
          />
          <SaveMark thing={thing} />
        </div>
        {plan && (
          <div className={`flex flex-wrap gap-x-8 gap-y-2 ${stale ? "opacity-50" : ""}`}>
            <Headline plan={plan} zone={kitchen.zone} />
            <Button
              kind="main"
              onClick={() => void start()}
              disabled={thing.state !== "saved" || problem !== null}
            >
              Start the run
            </Button>
          </div>
        )}
      </div>
      {refused && <Notice tone="hot">{wordProblem(refused, units)}</Notice>}
      {problem && !thing.problem && (
        <div className="my-4">
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        </div>
      )}
      {!stale &&
        plan?.summary.warnings.map((warning) => (
          <div key={"work" in warning ? warning.work : warning.code} className="my-3">
            <Notice
              tone={warning.code === "window_narrow" || warning.code === "sticky_room" ? "plain" : "hot"}
            >
              {remarkWords(warning, units, Object.fromEntries(kitchen.places.map((p) => [p.id, p.name])))}
            </Notice>
          </div>
        ))}
      <div className="mt-4 grid gap-x-10 gap-y-8 2xl:grid-cols-[300px_1fr] lg:grid-cols-[250px_1fr]">
        <Inputs
          thing={thing}
          pieces={pieces}
          kitchen={kitchen}
          problem={problem}
          onRemove={() => onRemove(stored.id, thing.version)}
        />
        {!plan && !problem && <p className="text-xl text-quiet">Reckoning the order…</p>}
        {plan && (
          <div className={`min-w-0 space-y-9 ${stale ? "opacity-50" : ""}`}>
            <Melts plan={plan} kitchen={kitchen} />
            <Windows asked={plan.asked} kitchen={kitchen} />
            <PourCards asked={plan.asked} kitchen={kitchen} />
            <Timetable asked={plan.asked} zone={kitchen.zone} />
            <p className="flex flex-wrap gap-x-7 gap-y-2">
              <span className="text-quiet">For the wall and the calendar:</span>
              <FileLink href={`/api/orders/${stored.id}/melt-list.pdf`}>melt list, PDF</FileLink>
              <FileLink href={`/api/orders/${stored.id}/pour-list.pdf`}>pour list, PDF</FileLink>
              <FileLink href={`/api/orders/${stored.id}/timetable.ics`}>timetable, iCalendar</FileLink>
            </p>
          </div>
        )}
      </div>
    </div>
  );
}

function Headline({ plan, zone }: { plan: Plan; zone: string }) {
  const units = useUnits();
  const { melts, casts, cook_count, start: starts, quantity, lasts_s } = plan.summary;
  const start = new Date(new Date(plan.asked.planned_at).getTime() + starts.value.likely * 1000);
  const melted = melts.reduce((sum, melt) => sum + melt.fresh.value.likely, 0);
  const [only] = melts.length === 1 ? melts : [];
  return (
    <>
      <Item name={`castings for ${quantity}`}>
        <Figure of={casts} name="Castings" className="text-2xl" />
      </Item>
      <Item name={cooksWord(plan.summary)}>
        <Figure of={cook_count} name="Cooks" className="text-2xl" />
      </Item>
      {only ? (
        <Item name={`${only.name.toLowerCase()} in all`}>
          <Figure of={only.fresh} name={`${only.name} to weigh out`} className="text-2xl" />
        </Item>
      ) : (
        <Item name={`melted in all, ${melts.length} kinds`}>
          <strong className="text-2xl">{amount(melted, "mass", units)}</strong>
        </Item>
      )}
      <Item name={`start at the latest, ${duration(lasts_s)} in all`}>
        <Figure
          of={starts}
          name="Start at the latest"
          text={`${dayAndTime(start, zone).replace(timeOfDay(start, zone), "")}${timeOfDay(start, zone)}`}
          className="text-2xl"
        />
      </Item>
    </>
  );
}

const cooksWord = ({ melts, cook_count }: Summary) => {
  const word = melts.map((melt) => cookWord(melt.wording)).find((of) => of !== "melt") ?? "melt";
  return cook_count.value.likely === 1 ? word : `${word}s`;
};

function Item({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex flex-col">
      {children}
      <span className="text-sm text-quiet">{name}</span>
    </div>
  );
}
