import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import type { Act, View } from "../../shared/acts";
import { FIND } from "../../shared/ask";
import { curveAt } from "../../shared/curve";
import { type EventBody, type Left, sends } from "../../shared/events";
import { eventWords } from "../../shared/eventWords";
import { shownIn, toSi } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { restAreGood } from "../../shared/Outcomes";
import { useRunEvents } from "../../shared/runEvents";
import { SPOTS } from "../../shared/spots";
import { isSame, keyOf, readingOf, type Subject } from "../../shared/subject";
import { serverNow, useElapsed } from "../../shared/useElapsed";
import { useSlash } from "../../shared/useSlash";
import { BenchTimetable } from "./BenchTimetable";
import { DecantDialog } from "./Decant";
import { Doubtful } from "./Doubtful";
import { Head, KeyHelp } from "./Head";
import { NextAct } from "./NextAct";
import { OnwardDialog, OnwardLine } from "./Onward";
import { Probes } from "./Probes";
import { METHODS, type Method, ReadingDialog } from "./Reading";
import { Ribbons } from "./Ribbons";
import { SideDialog } from "./Side";
import { SightDialog } from "./Sight";
import { nextSound, soundNow, wakeSound } from "./sound";
import { Then } from "./Then";
import { useAwake } from "./useAwake";
import { useCalls } from "./useCalls";
import { useKeys } from "./useKeys";

/** What comes after the first act: the next two, and what the other hands are at next. */
function follows(acts: Act[], actor: string): Act[] {
  const [, ...rest] = acts;
  const theirs = rest.slice(2).find((act) => act.who !== "" && act.who !== actor && !act.forecast);
  return [...rest.slice(0, 2), ...(theirs ? [theirs] : [])];
}

/** Two presses closer than this are one: a glove bounces. */
const BOUNCE_MS = 700;

export function LiveBench({
  view,
  actor,
  kitchen,
}: {
  view: Schemas["BenchView"];
  actor: string;
  kitchen: Schemas["Kitchen"];
}) {
  const units = useUnits();
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const elapsed = useElapsed(view);
  const events = useRunEvents(actor);
  const called = useCalls(view, elapsed);
  useAwake(!view.ended);
  const [chosen, setChosen] = useState<Subject | null>(null);
  const [typed, setTyped] = useState("");
  const [methods, setMethods] = useState<Record<string, Method>>({});
  const [dialog, setDialog] = useState<
    "reading" | "help" | "sight" | "decant" | "timetable" | "side" | "onward" | null
  >(null);
  const [left, setLeft] = useState<Left>({});
  const [sound, setSound] = useState(soundNow);
  const pressed = useRef(Number.NEGATIVE_INFINITY);

  const active = view.ribbons.filter((r) => !r.done);
  const act = view.acts[0];
  const ribbonOf = (subject: Subject) => active.find((r) => isSame(r.subject, subject));
  const selected = (chosen && ribbonOf(chosen)) ?? (act && ribbonOf(act.subject)) ?? active[0];
  // what was noted without an answer has no ribbon yet, and can be read all the same
  const readOf = selected?.subject ?? act?.subject;
  const key = selected ? keyOf(selected.subject) : "";
  const usual: Method = selected?.subject.of === "round" ? "infrared" : "immersed_swirled";
  const method: Method = methods[key] ?? selected?.method ?? usual;
  useBoundaries(view, elapsed, () => void queryClient.invalidateQueries({ queryKey: ["bench"] }));

  const tell = (told: EventBody) => events.send(view.run_id, told, serverNow(view));
  const send = sends(tell);
  const doAct = () => {
    // the hand's own time: to wake the sound may take longer than a bounce
    const now = performance.now();
    wakeSound();
    if (!act || now - pressed.current < BOUNCE_MS) return;
    pressed.current = now;
    const { what, subject } = act;
    if (what.kind === "read" || (what.kind === "temper" && (what.step === "read" || what.step === "stir")))
      setDialog("reading");
    else if (what.kind === "outcomes") {
      const ribbon = view.ribbons.find((r) => isSame(r.subject, subject));
      restAreGood(subject.number, what.casts, ribbon?.outcomes ?? {}, send);
    } else if (what.kind === "end") send("ended", { left_kg: left });
    else if (act.tells) tell(fromNow(act.tells, act, view, elapsed));
  };
  const undo = () => {
    if (view.last && performance.now() - pressed.current > BOUNCE_MS / 2) {
      pressed.current = performance.now();
      send("cancels", { id: view.last.id });
    }
  };
  const read = (text: string) => {
    const degc = toSi(Number(text), shownIn("temperature", units));
    const reading = readOf && Number.isFinite(degc) ? readingOf(readOf, degc, method) : null;
    if (!reading) return;
    send("reading", reading);
    setTyped("");
  };
  const nextMethod = () => {
    const options: readonly Method[] =
      selected?.subject.of === "pot" ? METHODS : METHODS.filter((m) => m !== "immersed_unswirled");
    const next = options[(options.indexOf(method) + 1) % options.length] ?? "immersed_swirled";
    setMethods({ ...methods, [key]: next });
  };
  const move = () => {
    if (selected?.phase === "held") {
      const next = SPOTS[(SPOTS.findIndex(([spot]) => spot === selected.place) + 1) % SPOTS.length];
      if (next) send("moved", { batch: selected.subject.number, spot: next[0] });
      return;
    }
    if (selected?.subject.of !== "round" || selected.phase === "set") return;
    const ids = Object.keys(view.places);
    const here = ids.findIndex((id) => view.places[id] === selected.place);
    const place = ids[(here + 1) % ids.length];
    if (place !== undefined) send("moved", { round: selected.subject.number, place });
  };
  const watched = selected?.subject.of === "round" && selected.phase !== "set" ? selected : undefined;
  const decants =
    selected && (selected.phase === "held" || (selected.phase === "resting" && selected.subject.of === "pot"))
      ? selected
      : undefined;
  const toggleSound = () => {
    wakeSound();
    setSound(nextSound());
  };
  useKeys({
    act: doAct,
    undo,
    digit: (d) => setTyped((t) => (t.length < 5 ? t + d : t)),
    rubOut: () => {
      if (typed) setTyped(typed.slice(0, -1));
      else undo();
      return true;
    },
    enter: () => {
      if (typed) read(typed);
      return typed !== "";
    },
    clear: () => setTyped(""),
    select: (by) => {
      const i = selected ? active.indexOf(selected) : -1;
      setChosen(active[Math.min(Math.max(i + by, 0), active.length - 1)]?.subject ?? null);
    },
    method: nextMethod,
    move,
    sight: () => watched && setDialog("sight"),
    decant: () => decants && setDialog("decant"),
    pause: () => send(view.paused ? "resumed" : "paused", {}),
    sound: toggleSound,
    timetable: () => setDialog("timetable"),
    side: () => setDialog("side"),
    onward: () => setDialog("onward"),
    help: () => setDialog("help"),
  });
  // the rail keeps the stove in sight where questions are asked
  useSlash(useCallback(() => navigate("/work-out", { state: FIND }), [navigate]));
  useEffect(() => {
    window.addEventListener("pointerdown", wakeSound, { once: true });
    return () => window.removeEventListener("pointerdown", wakeSound);
  }, []);

  return (
    <div className="flex min-h-full flex-col text-ink lg:h-full">
      <Head
        view={view}
        elapsed={elapsed}
        kitchen={kitchen}
        sound={sound}
        onSound={toggleSound}
        onHelp={() => setDialog("help")}
        onPause={() => send(view.paused ? "resumed" : "paused", {})}
        onEnd={() => send("ended", { left_kg: left })}
        onTimetable={() => setDialog("timetable")}
        actor={actor}
      />
      <section
        aria-label="Pots and rounds"
        className="max-h-[46vh] min-h-28 overflow-y-auto px-3 pt-2 lg:max-h-none lg:min-h-38 lg:shrink"
      >
        {active.length === 0 ? (
          <p className="px-3 py-6 text-xl text-quiet">
            {events.unsent > 0 ? "What you noted is drawn here once it is sent." : "No pot is on yet."}
          </p>
        ) : (
          <Ribbons
            ribbons={active}
            elapsed={elapsed}
            selected={selected?.subject}
            onSelect={setChosen}
            room={view.room_degc}
            acts={view.acts}
          />
        )}
      </section>
      <Probes ribbons={active} selected={selected} />
      {selected && <Doubtful of={selected} send={send} />}
      {view.aside.length > 0 && (
        <p className="px-6 py-2 text-xl" role="status">
          <strong className="text-heat">
            {view.aside.length === 1 ? "One event is" : `${view.aside.length} events are`} set aside:
          </strong>{" "}
          {view.aside.map((a) => `${eventWords(a.kind)} (${a.why})`).join("; ")}. They are kept; the rest is
          shown as if they had not been.
        </p>
      )}
      {view.unread && (
        <p className="flex flex-wrap items-center gap-4 px-6 py-2 text-xl" role="alert">
          <span>
            <strong className="text-heat">This version cannot read this run.</strong> It is kept and goes out
            with the export. End it to start another.
          </span>
          <button
            type="button"
            className="rounded-sm border-2 border-line px-4 py-2 font-bold"
            onClick={() => send("ended", {})}
          >
            End it
          </button>
        </p>
      )}
      {(called || events.refused || events.unsent > 0 || typed) && (
        <div
          className={`flex flex-wrap items-center gap-6 px-6 py-2 text-xl ${called ? "act-flash" : ""}`}
          role="status"
        >
          {called && <strong className="text-heat">{called.text}</strong>}
          {typed && (
            <span>
              {selected && `${selected.name}: `}
              <strong className="text-3xl">{typed}</strong> {shownIn("temperature", units).label}, Enter
            </span>
          )}
          {events.unsent > 0 && (
            <span className="font-bold text-heat">{events.unsent} not sent yet, trying again</span>
          )}
          {events.refused && (
            <button
              type="button"
              className="border-l-4 border-heat pl-3 text-left font-bold"
              onClick={events.clearRefused}
            >
              {wordProblem(events.refused, units)}{" "}
              <span className="font-normal text-quiet underline">read, take it away</span>
            </button>
          )}
        </div>
      )}
      <OnwardLine view={view} zone={kitchen.zone} onOpen={() => setDialog("onward")} />
      <div className="grid flex-1 shrink-0 border-t-2 border-line bg-panel lg:grid-cols-[1fr_270px] xl:grid-cols-[1fr_340px]">
        {act && (
          <NextAct
            actor={actor}
            zone={kitchen.zone}
            act={act}
            view={view}
            elapsed={elapsed}
            onAct={doAct}
            onUndo={undo}
            onRead={() => setDialog("reading")}
            onMove={move}
            onSight={() => setDialog("sight")}
            onDecant={() => setDialog("decant")}
            selected={selected}
            method={method}
            onMethod={nextMethod}
            send={send}
            left={left}
            onLeft={setLeft}
          />
        )}
        <Then
          actor={actor}
          acts={follows(view.acts, actor)}
          view={view}
          elapsed={elapsed}
          selected={selected}
          send={send}
          onSide={() => setDialog("side")}
          onOnward={() => setDialog("onward")}
        />
      </div>
      <SideDialog open={dialog === "side"} onClose={() => setDialog(null)} run={view.run_id} send={send} />
      <ReadingDialog
        open={dialog === "reading"}
        onClose={() => setDialog(null)}
        subject={selected}
        method={method}
        onMethod={(m) => setMethods({ ...methods, [key]: m })}
        onSend={read}
        unit={shownIn("temperature", units).label}
      />
      {watched && (
        <SightDialog
          open={dialog === "sight"}
          onClose={() => setDialog(null)}
          subject={watched}
          onSeen={(what) => send("seen", { round: watched.subject.number, what })}
        />
      )}
      {decants && (
        <DecantDialog open={dialog === "decant"} onClose={() => setDialog(null)} from={decants} send={send} />
      )}
      {dialog === "timetable" && (
        <BenchTimetable view={view} elapsed={elapsed} kitchen={kitchen} onClose={() => setDialog(null)} />
      )}
      {dialog === "onward" && (
        <OnwardDialog
          view={view}
          zone={kitchen.zone}
          people={kitchen.people}
          send={send}
          onClose={() => setDialog(null)}
        />
      )}
      <KeyHelp open={dialog === "help"} onClose={() => setDialog(null)} />
    </div>
  );
}

/** A pot that goes back on the heat starts from where it is now. */
function fromNow(told: EventBody, act: Act, view: View, elapsed: number): EventBody {
  if (act.what.kind !== "warm") return told;
  const curve = view.ribbons.find((r) => isSame(r.subject, act.subject))?.curve;
  const degc = curve ? curveAt(curve, curve.likely_degc, elapsed) : null;
  if (told.kind === "burst") return { kind: "burst", payload: { ...told.payload, degc } };
  return told.kind === "heated" && "cook" in told.payload
    ? { kind: "heated", payload: { ...told.payload, degc } }
    : told;
}

/** Ask anew when an act opens or closes, since that may change what comes first. */
function useBoundaries(view: Schemas["BenchView"], elapsed: number, ask: () => void): void {
  const next = view.acts
    .flatMap((a) => [a.opens_s, a.closes_s ?? Number.POSITIVE_INFINITY])
    .filter((s) => s > view.elapsed_s)
    .reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  const passed = elapsed > next;
  const latest = useRef(ask);
  latest.current = ask;
  useEffect(() => {
    if (passed) latest.current();
  }, [passed]);
}
