import { useQuery } from "@tanstack/react-query";
import { Link, useLocation, useNavigate, useSearchParams } from "react-router";
import { type Problem, problemOf } from "../../api/client";
import {
  type Ask,
  answerQuery,
  askAddress,
  askOf,
  blankAsk,
  FIND,
  QUESTIONS,
  type Question,
} from "../../shared/ask";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { kitchenQuery, pieceListQuery, propertiesQuery } from "../../shared/kitchen";
import { Notice } from "../../shared/ui/plain";
import { useDebounced } from "../../shared/useDebounced";
import { meltsIn } from "../../shared/wording";
import { Answered } from "./Answers";
import { Finder } from "./Finder";
import { Leads } from "./Leads";
import { Sentence } from "./Sentence";

const PAUSE_MS = 60;
const ORDER = Object.keys(QUESTIONS) as Question[];

/** Questions as they are asked at the bench, each answered where it stands from one or two entries. */
export function WorkOutView() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const finds = useLocation().state === FIND;
  const asked = askOf(params);
  return (
    <div className="px-7 py-5">
      <h1 className="sr-only">Work out</h1>
      <Finder
        autoFocus={finds}
        className="w-full border-b-[3px] border-ink bg-transparent py-2 font-head text-2xl font-bold placeholder:text-quiet sm:text-3xl"
      />
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-[21rem_minmax(0,1fr)]">
        <nav aria-label="Questions" className={asked ? "hidden lg:block" : ""}>
          {ORDER.map((question) => (
            <Link
              key={question}
              to={askAddress(blankAsk(question))}
              aria-current={asked?.question === question ? "page" : undefined}
              className={`block border-b border-l-4 border-b-line px-4 py-3 ${asked?.question === question ? "border-l-glass bg-raised" : "border-l-transparent hover:bg-panel"}`}
            >
              <strong className="block text-lg leading-tight">{QUESTIONS[question].title}</strong>
              <span className="leading-tight text-quiet">{QUESTIONS[question].note}</span>
            </Link>
          ))}
        </nav>
        {asked ? (
          <div>
            <Link
              to="/work-out"
              className="mb-2 inline-flex min-h-11 items-center gap-2 font-bold text-glass lg:hidden"
            >
              <span aria-hidden>‹</span>Questions
            </Link>
            <One asked={asked} onChange={(next) => navigate(askAddress(next), { replace: true })} />
          </div>
        ) : (
          <div className="hidden lg:block">
            <One asked={blankAsk("unmould")} onChange={(next) => navigate(askAddress(next))} />
          </div>
        )}
      </div>
    </div>
  );
}

function One({ asked, onChange }: { asked: Ask; onChange: (asked: Ask) => void }) {
  const units = useUnits();
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const groups = useQuery(propertiesQuery).data?.groups;
  const pieces = useQuery(pieceListQuery).data?.items;
  const query = useQuery(answerQuery(useDebounced(asked, PAUSE_MS)));
  const problem: Problem | null = query.error ? problemOf(query.error) : null;
  if (!kitchen || !groups || !pieces) return null;
  const names = {
    kitchen,
    melts: meltsIn(groups),
    pieces,
    moulds: groups.find((g) => g.name === "moulds")?.rows ?? [],
  };
  const answer = query.data?.question === asked.question ? query.data : undefined;
  return (
    <section
      aria-label={QUESTIONS[asked.question].title}
      aria-busy={query.isFetching}
      className="min-h-[26rem]"
    >
      <Sentence
        asked={answer ? shown(asked, answer.asked) : asked}
        names={names}
        onChange={(patch) => onChange({ ...asked, ...patch } as Ask)}
      />
      {problem && (
        <div className="mt-4">
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        </div>
      )}
      {answer && !problem && (
        <div className={query.isPlaceholderData ? "opacity-60" : ""}>
          <Answered answer={answer} names={names} />
          <Leads answer={answer} />
        </div>
      )}
    </section>
  );
}

/** What somebody said, and for the rest what was assumed. */
const shown = (asked: Ask, filled: Ask): Ask =>
  ({ ...filled, ...Object.fromEntries(Object.entries(asked).filter(([, of]) => of !== null)) }) as Ask;
