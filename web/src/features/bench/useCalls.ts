import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { type CallKind, play } from "./sound";

export interface Called {
  kind: CallKind;
  text: string;
  at: number;
}

const SHOWN_S = 8;
/** A call that has sounded and is due this much later after all sounds again. */
const MOVED_S = 30;
const WINDOW: Record<string, string> = {
  pour: "Pour",
  turn: "Turn the ball",
  bend: "Bend",
  stick: "Sticks",
  sprinkle: "Sprinkle",
  unmould: "Unmould",
  off: "Off the heat",
  keep: "Keep it fluid",
};
/** Of a call that says all by itself. */
const ALONE: Record<string, string> = { too_warm: "Soon too hot where it lies: take it out" };
const TEXT: Record<CallKind, string> = { opens: "opens soon", closes: "closes soon", closed: "is over" };

const keyOf = (call: Schemas["Call"]) => `${call.subject} ${call.window} ${call.kind}`;

/** Which calls sound now. Each sounds once, also where a reading moves its time into the past; those due before a page came are not. */
export function due(
  calls: Schemas["Call"][],
  elapsed: number,
  sounded: Map<string, number>,
): Schemas["Call"][] {
  const now: Schemas["Call"][] = [];
  for (const call of calls) {
    const key = keyOf(call);
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
  const [called, setCalled] = useState<Called | null>(null);
  useEffect(() => {
    if (!view) return;
    const fresh = heard.current?.run !== view.run_id;
    if (fresh) heard.current = { run: view.run_id, sounded: new Map() };
    const now = due(view.calls, elapsed, heard.current?.sounded ?? new Map());
    const last = now.at(-1);
    if (fresh || !last) return;
    const kind = last.kind as CallKind;
    play(kind);
    setCalled({
      kind,
      text: ALONE[last.window] ?? `${WINDOW[last.window] ?? last.window} ${TEXT[kind]}`,
      at: elapsed,
    });
  }, [view, elapsed]);
  return called && elapsed - called.at < SHOWN_S && elapsed >= called.at ? called : null;
}
