import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { type CallKind, play } from "./sound";

export interface Called {
  kind: CallKind;
  text: string;
  at: number;
}

const SHOWN_S = 8;
const WINDOW: Record<string, string> = {
  pour: "Pour",
  bend: "Bend",
  unmould: "Unmould",
  off: "Off the heat",
};
const TEXT: Record<CallKind, string> = { opens: "opens soon", closes: "closes soon", closed: "is over" };

/** Calls that fall due are sounded and shown for a few seconds; those that fell due before this page came are not. */
export function useCalls(view: Schemas["BenchView"] | null, elapsed: number): Called | null {
  const before = useRef<{ run: string; at: number } | null>(null);
  const [called, setCalled] = useState<Called | null>(null);
  useEffect(() => {
    if (!view) return;
    const last = before.current;
    before.current = { run: view.run_id, at: elapsed };
    if (!last || last.run !== view.run_id) return;
    for (const call of view.calls) {
      if (call.at_s > last.at && call.at_s <= elapsed) {
        const kind = call.kind as CallKind;
        play(kind);
        setCalled({ kind, text: `${WINDOW[call.window] ?? call.window} ${TEXT[kind]}`, at: elapsed });
      }
    }
  }, [view, elapsed]);
  return called && elapsed - called.at < SHOWN_S && elapsed >= called.at ? called : null;
}
