import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, NavLink, useNavigate, useParams, useSearchParams } from "react-router";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { usePerson } from "../../shared/person";
import type { Edit } from "../../shared/saving";
import { InTurn } from "../../shared/ui/InTurn";
import { Button, Notice, TextField } from "../../shared/ui/plain";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useDebounced } from "../../shared/useDebounced";
import { useThing } from "../../shared/useThing";
import { Alternatives } from "./Alternatives";
import { ByHand } from "./ByHand";
import { OrderFold } from "./Inputs";
import { Lists } from "./Lists";
import { Melts } from "./Melts";
import { PourCards } from "./PourCards";
import { type Order, type Plan, planQuery, startRun } from "./queries";
import { Remarks } from "./Remarks";
import { Shorter } from "./Shorter";
import { Timetable } from "./Timetable";
import { Top } from "./Top";
import { Windows } from "./Windows";
import type { Wish } from "./wishWords";

const PAUSE_MS = 60;

const VIEWS = {
  melts: "Melts",
  windows: "Windows",
  cards: "Cards",
  timetable: "Timetable",
  "by-hand": "By hand",
  lists: "Lists",
} as const;
type View = keyof typeof VIEWS;
const isView = (view: string | undefined): view is View => view !== undefined && view in VIEWS;

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
  const isNew = useSearchParams()[0].has("new");
  const { doc } = thing;
  const query = useQuery(planQuery(useDebounced(doc, PAUSE_MS)));
  const [starting, setStarting] = useState(false);
  const [refused, setRefused] = useState<Problem | null>(null);
  const problem = query.error ? problemOf(query.error) : null;
  // while something typed cannot be, the last plan that could stays to be seen, dimmed
  const good = useRef<Plan | undefined>(undefined);
  if (query.data) good.current = query.data;
  const plan = good.current;
  const stale = query.isPlaceholderData || problem !== null;

  const start = async () => {
    setStarting(true);
    try {
      await startRun(stored.id, actor);
      await queryClient.invalidateQueries({ queryKey: ["bench"] });
      navigate("/bench");
    } catch (error) {
      setRefused(problemOf(error));
      setStarting(false);
    }
  };
  return (
    <div className="px-7 pb-8">
      <div className="mb-2 flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
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
          <Button
            kind="main"
            onClick={() => void start()}
            disabled={thing.state !== "saved" || problem !== null || stale || starting}
          >
            {starting ? "Starting…" : "Start at the bench"}
          </Button>
        )}
      </div>
      {refused && <Notice tone="hot">{wordProblem(refused, units)}</Notice>}
      {problem && !thing.problem && (
        <div className="my-4">
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        </div>
      )}
      <OrderFold
        key={stored.id}
        id={stored.id}
        open={isNew}
        thing={thing}
        pieces={pieces}
        kitchen={kitchen}
        problem={problem}
        onRemove={() => onRemove(stored.id, thing.version)}
      />
      <div className={`mt-3 min-h-[4.25rem] ${stale && plan ? "opacity-50" : ""}`}>
        {plan ? (
          <Top plan={plan} zone={kitchen.zone} />
        ) : (
          !problem && <p className="text-xl text-quiet">Reckoning the order…</p>
        )}
      </div>
      {plan && (
        <InTurn>
          <div className={stale ? "opacity-50" : ""}>
            <NotKept of={plan.summary.wishes} to={`/orders/${stored.id}/timetable`} />
            <Remarks of={plan.summary.warnings} kitchen={kitchen} />
            <Alternatives
              asked={plan.asked}
              kitchen={kitchen}
              pieces={Object.fromEntries(pieces.map((piece) => [piece.id, piece.doc.name]))}
              onChange={thing.change}
            />
            <Shorter
              key={JSON.stringify([plan.asked.order.lines, plan.asked.order.people])}
              asked={plan.asked}
              onChange={thing.change}
            />
            <Views base={`/orders/${stored.id}`} first={firstView(plan)} />
            <Shown
              plan={plan}
              kitchen={kitchen}
              pieces={pieces}
              orderId={stored.id}
              wishes={doc.wishes}
              onChange={thing.change}
            />
          </div>
        </InTurn>
      )}
    </div>
  );
}

/** Whatever view is open: that something asked for is not kept, or makes it late. */
function NotKept({ of, to }: { of: Schemas["WishesKept"] | null; to: string }) {
  if (!of || of.clashes.length + of.unfound.length + of.late.length === 0) return null;
  return (
    <div className="mt-3">
      <Notice tone="hot">
        {of.clashes.length + of.unfound.length > 0
          ? "Some of what you asked of the timetable is left out: it cannot be kept. "
          : "What you asked of the timetable makes it late. "}
        <Link to={to} replace preventScrollReset className="text-glass underline-offset-4 hover:underline">
          See the timetable
        </Link>
      </Notice>
    </div>
  );
}

/** What is melted is seen first, where anything is. */
const firstView = (plan: Plan): View => (plan.summary.melts.length > 0 ? "melts" : "by-hand");

/** The plan's views, one of them open. */
function Views({ base, first }: { base: string; first: View }) {
  const { view } = useParams();
  return (
    <nav aria-label="Views of the plan" className="mb-4 flex flex-wrap gap-x-7 border-b border-line">
      {(Object.keys(VIEWS) as View[]).map((key) => {
        const here = key === (isView(view) ? view : first);
        return (
          <NavLink
            key={key}
            to={`${base}/${key}`}
            replace
            preventScrollReset
            aria-current={here ? "page" : undefined}
            className={`-mb-px flex min-h-12 items-center border-b-4 text-lg font-bold ${here ? "border-glass text-ink" : "border-transparent text-glass hover:border-line"}`}
          >
            {VIEWS[key]}
          </NavLink>
        );
      })}
    </nav>
  );
}

interface ShownProps {
  plan: Plan;
  kitchen: Schemas["Kitchen"];
  pieces: Schemas["StoredPiece"][];
  orderId: string;
  wishes: Wish[];
  onChange: (change: Edit<Order>) => void;
}

function Shown({ plan, kitchen, pieces, orderId, wishes, onChange }: ShownProps) {
  const { view } = useParams();
  switch (isView(view) ? view : firstView(plan)) {
    case "melts":
      return <Melts plan={plan} kitchen={kitchen} />;
    case "windows":
      return <Windows asked={plan.asked} kitchen={kitchen} />;
    case "cards":
      return <PourCards plan={plan} kitchen={kitchen} />;
    case "timetable":
      return (
        <Timetable
          asked={plan.asked}
          kept={plan.summary.wishes}
          kitchen={kitchen}
          pieces={pieces}
          wishes={wishes}
          onChange={(change) => onChange((order) => ({ wishes: change(order.wishes) }))}
        />
      );
    case "by-hand":
      return <ByHand rows={plan.summary.by_hand} asked={plan.asked} />;
    case "lists":
      return <Lists asked={plan.asked} orderId={orderId} kitchen={kitchen} pieces={pieces} />;
  }
}
