import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { keyOf } from "../../shared/subject";
import { type CallKind, play } from "./sound";

export interface Called {
  kind: CallKind;
  text: string;
  at: number;
}

const SHOWN_S = 8;
/** A call that has sounded and is due this much later after all sounds again. */
const MOVED_S = 30;
type Call = Schemas["Call"];
const WINDOW: Record<Call["window"], string> = {
  pour: "Pour",
  turn: "Turn the ball",
  bend: "Bend",
  stick: "Sticks",
  sprinkle: "What goes on the wet melt",
  film: "Press it on",
  comb: "Comb",
  groove: "Groove",
  cut: "Cut the sheet",
  shape: "Bend it on its film",
  unmould: "Unmould",
  off: "Off the heat",
  out: "Off the heat",
  keep: "Keep it fluid",
  too_warm: "Soon too hot where it lies: take it out",
  timer: "Timer",
};
const TEXT: Record<CallKind, string> = { opens: "opens soon", closes: "closes soon", closed: "is over" };

const called = ({ subject, window, kind }: Call) => `${keyOf(subject)} ${window} ${kind}`;

/** What lies in the warmth too long, and a timer, say all by themselves. */
const callWords = ({ window, kind, subject }: Call, { timers }: Schemas["BenchView"]) => {
  if (window === "timer")
    return `${timers.find((of) => of.number === subject.number)?.name ?? WINDOW.timer}: time is up`;
  return window === "too_warm" ? WINDOW[window] : `${WINDOW[window]} ${TEXT[kind]}`;
};

/** Which calls sound now. Each sounds once, also where a reading moves its time into the past; those due before a page came are not. */
export function due(calls: Call[], elapsed: number, sounded: Map<string, number>): Call[] {
  const now: Call[] = [];
  for (const call of calls) {
    const key = called(call);
    const before = sounded.get(key);
    if (before !== undefined && call.at_s > Math.max(before, elapsed) + MOVED_S) sounded.delete(key);
    if (call.at_s <= elapsed && !sounded.has(key)) {
      sounded.set(key, elapsed);
      now.push(call);
    }
  }
  return now;
}

/** Calls that fall due are sounded and shown for a few seconds. */
export function useCalls(view: Schemas["BenchView"] | null, elapsed: number): Called | null {
  const heard = useRef<{ run: string; sounded: Map<string, number> } | null>(null);
  const [shown, setShown] = useState<Called | null>(null);
  useEffect(() => {
    if (!view) return;
    const fresh = heard.current?.run !== view.run_id;
    if (fresh) heard.current = { run: view.run_id, sounded: new Map() };
    const now = due(view.calls, elapsed, heard.current?.sounded ?? new Map());
    const last = now.at(-1);
    if (fresh || !last) return;
    const text = callWords(last, view);
    play(last.kind, text);
    setShown({ kind: last.kind, text, at: elapsed });
  }, [view, elapsed]);
  return shown && elapsed - shown.at < SHOWN_S && elapsed >= shown.at ? shown : null;
}
