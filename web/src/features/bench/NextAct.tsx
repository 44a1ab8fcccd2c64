import type { Schemas } from "../../api/client";
import { type Act, lineName, type View, wordingOf } from "../../shared/acts";
import { actWords } from "../../shared/actWords";
import type { Left, SendEvent } from "../../shared/events";
import { eventWords } from "../../shared/eventWords";
import { clock } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Outcomes } from "../../shared/Outcomes";
import { isSame } from "../../shared/subject";
import { NumberField } from "../../shared/ui/NumberField";
import { Whose } from "../../shared/Whose";
import { Caution } from "./Caution";
import { HeldActions } from "./HeldActions";
import { InBowl } from "./InBowl";
import { InPour } from "./InPour";
import { InTemper } from "./InTemper";
import { METHOD_WORDS, type Method } from "./Reading";
import { CountAgain } from "./Side";

interface Props {
  actor: string;
  zone: string;
  act: Act;
  view: View;
  elapsed: number;
  onAct: () => void;
  onUndo: () => void;
  onRead: () => void;
  onMove: () => void;
  onSight: () => void;
  onDecant: () => void;
  selected: Schemas["Ribbon"] | undefined;
  method: Method;
  onMethod: () => void;
  send: SendEvent;
  left: Left;
  onLeft: (left: Left) => void;
}

/** Of what an act is, where several of a kind are on. */
function whereWords(act: Act, ribbon: Schemas["Ribbon"] | undefined, view: View): string {
  const { what, subject } = act;
  const number = subject.number + 1;
  switch (subject.of) {
    case "round":
      return "line" in what ? `${lineName(view, what.line)}, round ${number}` : view.name;
    case "pot":
      return {
        sugar: `${ribbon?.name ?? "Pot"}, cook ${number}`,
        fat: `${ribbon?.name ?? "Bowl"}, melt ${number}`,
      }[wordingOf(act)];
    case "batch":
      return "name" in what ? what.name : view.name;
    case "run":
    case "hand":
    case "sample":
    case "timer":
      return view.name;
  }
}

/** One obvious next act, readable across the room. */
export function NextAct(p: Props) {
  const units = useUnits();
  const { act, view, elapsed } = p;
  const words = actWords(act, view, units);
  const { what, subject } = act;
  const ribbon = view.ribbons.find((r) => isSame(r.subject, subject));
  const ended = what.kind === "end" || what.kind === "again";
  const selected = p.selected?.subject;
  return (
    <section aria-label="Next" className="flex flex-col gap-4 px-6 py-5 md:flex-row md:gap-8">
      <div className="min-w-0 flex-1">
        <p className="text-lg font-bold text-glass">
          {act.melt?.colour && (
            <span
              aria-hidden
              className="mr-3 inline-block h-6 w-10 border border-ink align-middle"
              style={{ backgroundColor: act.melt.colour }}
            />
          )}
          {whereWords(act, ribbon, view)}
          {act.who !== "" && act.who !== p.actor && (
            <span className="ml-3 font-normal text-ink">planned for {act.who}</span>
          )}
        </p>
        <h2 className="my-2 text-4xl text-balance md:text-5xl xl:text-6xl" data-testid="act">
          {words.title}
        </h2>
        {words.detail.map((line) => (
          <p key={line} className="text-xl leading-snug 2xl:text-2xl">
            {line}
          </p>
        ))}
        {what.kind === "acknowledge" && <Caution />}
        {(what.kind === "burst" || what.kind === "stir" || what.kind === "out") && ribbon && (
          <InBowl cook={subject.number} what={what} sights={ribbon.sights} elapsed={elapsed} send={p.send} />
        )}
        {what.kind === "pour" && <InPour what={what} round={subject.number} view={view} send={p.send} />}
        {what.kind === "temper" && (
          <InTemper what={what} cook={subject.number} isOpen={elapsed >= act.opens_s} send={p.send} />
        )}
        {what.kind === "outcomes" && ribbon && (
          <div className="mt-4">
            <Outcomes round={subject.number} casts={ribbon.casts} outcomes={ribbon.outcomes} send={p.send} />
          </div>
        )}
        {ended && <Whose orders={view.orders} zone={p.zone} />}
        {ended && <CountAgain view={view} send={p.send} />}
        {ended && (
          <div className="mt-4 flex flex-wrap gap-6">
            {Object.entries(view.vessels).map(([id, name]) => (
              <div key={id} className="w-60">
                <NumberField
                  label={`Left in the ${name.toLowerCase()}, if weighed`}
                  quantity="mass"
                  value={p.left[id] ?? null}
                  onChange={(kg) => p.onLeft({ ...p.left, [id]: kg })}
                  onClear={() =>
                    p.onLeft(Object.fromEntries(Object.entries(p.left).filter(([v]) => v !== id)))
                  }
                  large
                />
              </div>
            ))}
          </div>
        )}
        <div className="mt-4 flex flex-wrap gap-x-2 gap-y-2">
          {view.last && (
            <Small onClick={p.onUndo} label={`Undo ${eventWords(view.last.told.kind)}`}>
              ← undo “{eventWords(view.last.told.kind)}”
            </Small>
          )}
          {p.selected && (
            <>
              <Small onClick={p.onRead} label={`Reading for ${p.selected.name}`}>
                0–9 reading
              </Small>
              <Small onClick={p.onMethod} label={`Taken by ${METHOD_WORDS[p.method]}. Change`}>
                M {METHOD_WORDS[p.method]}
              </Small>
            </>
          )}
          {p.selected && selected?.of === "pot" && p.selected.phase === "resting" && (
            <Small onClick={p.onDecant} label={`Out of the ${p.selected.name} into bags, bowls or jugs`}>
              D into bags
            </Small>
          )}
          {p.selected && selected?.of === "batch" && (
            <HeldActions of={p.selected} send={p.send} onDecant={p.onDecant} />
          )}
          {p.selected && selected?.of === "pot" && (
            <Small
              onClick={() => p.send("discarded", { cook: selected.number })}
              label={`Throw away what is in the ${p.selected.name}`}
            >
              throw it away
            </Small>
          )}
          {p.selected && selected?.of === "round" && p.selected.phase !== "set" && (
            <>
              <Small onClick={p.onSight} label={`Say what you see of ${p.selected.name}`}>
                W what I see
              </Small>
              <Small onClick={p.onMove} label="Move the selected round to the next place">
                V move it
              </Small>
            </>
          )}
        </div>
      </div>
      <div className="sticky bottom-0 -mx-6 flex shrink-0 items-end gap-4 border-t border-line bg-panel px-6 py-3 md:static md:mx-0 md:w-60 md:flex-col md:items-stretch md:gap-3 md:border-0 md:p-0 xl:w-64">
        <Countdown act={act} elapsed={elapsed} before={words.before} during={words.during} />
        {words.button && (
          <button
            type="button"
            onClick={p.onAct}
            className="min-h-20 flex-1 rounded-sm md:flex-none bg-glass px-4 py-2 text-2xl md:min-h-24 md:text-3xl font-bold text-on-glass"
          >
            {words.button}
            <span className="hidden text-lg font-normal md:block">space</span>
          </button>
        )}
      </div>
    </section>
  );
}

function Countdown({
  act,
  elapsed,
  before,
  during,
}: {
  act: Act;
  elapsed: number;
  before: string;
  during: string;
}) {
  const wait = act.opens_s - elapsed;
  if (wait > 0)
    return (
      <div>
        <div className="text-lg">{before}</div>
        <div className="text-5xl font-bold text-quiet md:text-7xl">{clock(wait)}</div>
      </div>
    );
  if (act.closes_s === null) return during ? <div className="text-2xl font-bold">{during}</div> : null;
  const left = act.closes_s - elapsed;
  return left > 0 ? (
    <div>
      <div className="text-lg">{during}</div>
      <div className="text-5xl font-bold md:text-7xl">{clock(left)}</div>
    </div>
  ) : (
    <div>
      <div className="text-lg">the sure time is over by</div>
      <div className="text-5xl font-bold text-heat md:text-7xl">{clock(-left)}</div>
    </div>
  );
}

function Small({
  children,
  onClick,
  label,
}: {
  children: React.ReactNode;
  onClick: () => void;
  label: string;
}) {
  return (
    <button
      type="button"
      title={label}
      onClick={onClick}
      className="min-h-16 rounded-sm border border-line px-4 text-lg hover:border-glass"
    >
      {children}
    </button>
  );
}
