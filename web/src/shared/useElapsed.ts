import { useEffect, useState } from "react";
import type { Schemas } from "../api/client";

const TICK_MS = 250;
/** A view and when this device heard it. */
type Heard = Schemas["BenchView"] & { heard_ms?: number };

/** This device's time, which no step moves while a page stands, and which goes on over a reload [ms]. */
export const nowMs = (): number => performance.timeOrigin + performance.now();

/** Seconds since the run started, by the server's clock carried on between its answers. */
export function elapsedNow(view: Heard): number {
  return view.elapsed_s + (view.rate * (nowMs() - (view.heard_ms ?? nowMs()))) / 1000;
}

/** The server's time of day, by the same carrying on. */
export function serverNow(view: Schemas["BenchView"]): Date {
  return new Date(new Date(view.started_at).getTime() + elapsedNow(view) * 1000);
}

export function useElapsed(view: Schemas["BenchView"] | null | undefined): number {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = window.setInterval(() => tick((n) => n + 1), TICK_MS);
    return () => window.clearInterval(timer);
  }, []);
  return view ? elapsedNow(view) : 0;
}
