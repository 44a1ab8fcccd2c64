import { useEffect, useState } from "react";
import type { Schemas } from "../api/client";

const TICK_MS = 250;
const received = new WeakMap<object, number>();

/** Seconds since the run started, by the server's clock carried on between its answers. */
export function elapsedNow(view: Schemas["BenchView"]): number {
  if (!received.has(view)) received.set(view, performance.now());
  return view.elapsed_s + (view.rate * (performance.now() - (received.get(view) ?? 0))) / 1000;
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
