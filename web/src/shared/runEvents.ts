import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { call, client, type Problem, problemOf, type Schemas } from "../api/client";
import { deviceName } from "./person";

export interface Pending {
  run: string;
  event: Schemas["EventIn"];
  /** The server's time when it was done, as far as this page knows: told only when it could not be sent at once. */
  done: string | null;
}

/** One that could not be sent at once is placed by when it was done. */
const late = (pending: Pending): Pending => ({
  ...pending,
  event: { ...pending.event, happened_at: pending.event.happened_at ?? pending.done },
});

const KEY = "umber-pebble-unsent";
const AGAIN_MS = 1000;

const readUnsent = (): Pending[] => JSON.parse(localStorage.getItem(KEY) ?? "[]") as Pending[];

/**
 * Sends events one after another, each under an id of its own, so that sending again counts once. One that does not
 * get through is kept in this browser and sent again until the server answers.
 */
export function useRunEvents(actor: string) {
  const queryClient = useQueryClient();
  const [unsent, setUnsent] = useState<Pending[]>(readUnsent);
  const [refused, setRefused] = useState<Problem | null>(null);
  const queue = useRef(unsent);
  const busy = useRef(false);

  const keep = useCallback((next: Pending[]) => {
    queue.current = next;
    localStorage.setItem(KEY, JSON.stringify(next));
    setUnsent(next);
  }, []);

  const push = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    while (queue.current.length > 0) {
      const [first] = queue.current;
      if (!first) break;
      try {
        const params = { path: { id: first.run } };
        await call(client.POST("/api/runs/{id}/events", { params, body: first.event }));
      } catch (error) {
        const problem = problemOf(error);
        if (problem.status === 0 || problem.status >= 500) {
          keep(queue.current.map(late));
          window.setTimeout(() => void push(), AGAIN_MS);
          break;
        }
        setRefused(problem);
      }
      keep(queue.current.slice(1));
    }
    busy.current = false;
    await queryClient.invalidateQueries({ queryKey: ["bench"] });
    void queryClient.invalidateQueries({ queryKey: ["log"] });
  }, [keep, queryClient]);

  useEffect(() => void push(), [push]);

  const send = useCallback(
    (run: string, kind: string, payload: Record<string, unknown>, done: Date | null = null) => {
      setRefused(null);
      const event = {
        id: crypto.randomUUID(),
        kind,
        payload,
        actor,
        device: deviceName(),
        happened_at: null,
        schema_version: 1,
      };
      const pending = { run, event, done: done?.toISOString() ?? null };
      const waits = queue.current[0]?.event.happened_at != null;
      keep([...queue.current, waits ? late(pending) : pending]);
      void push();
    },
    [actor, keep, push],
  );
  return { send, unsent: unsent.length, refused, clearRefused: () => setRefused(null) };
}
