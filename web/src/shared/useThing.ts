import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { type Problem, problemOf } from "../api/client";

export interface Stored<T> {
  id: string;
  version: number;
  doc: T;
}

export type SaveState = "saved" | "waiting" | "saving" | "refused" | "conflict";

const PAUSE_MS = 500;

/**
 * A thing being edited: changes show at once and are saved after a short pause. A refusal keeps what was typed;
 * a save against an older version keeps both and asks.
 */
export function useThing<T>(
  stored: Stored<T>,
  kind: string,
  save: (id: string, version: number, doc: T) => Promise<Stored<T>>,
) {
  const queryClient = useQueryClient();
  const [doc, setDoc] = useState(stored.doc);
  const [state, setState] = useState<SaveState>("saved");
  const [problem, setProblem] = useState<Problem | null>(null);
  const version = useRef(stored.version);
  const latest = useRef(stored.doc);
  const timer = useRef<number | undefined>(undefined);
  const saving = useRef(false);

  const push = useCallback(async () => {
    if (saving.current) return;
    saving.current = true;
    setState("saving");
    const sent = latest.current;
    try {
      const answer = await save(stored.id, version.current, sent);
      version.current = answer.version;
      setProblem(null);
      setState("saved");
      void queryClient.invalidateQueries({ queryKey: [kind] });
    } catch (error) {
      const refused = problemOf(error);
      setProblem(refused);
      setState(refused.code === "stale" ? "conflict" : "refused");
    }
    saving.current = false;
    if (latest.current !== sent) timer.current = window.setTimeout(push, PAUSE_MS);
  }, [kind, queryClient, save, stored.id]);

  // somebody else's save: taken over unless this page has changes of its own
  useEffect(() => {
    if (stored.version > version.current && state === "saved") {
      version.current = stored.version;
      latest.current = stored.doc;
      setDoc(stored.doc);
    }
  }, [stored, state]);

  useEffect(
    () => () => {
      if (timer.current !== undefined) {
        window.clearTimeout(timer.current);
        void push();
      }
    },
    [push],
  );

  const change = useCallback(
    (patch: Partial<T>) => {
      latest.current = { ...latest.current, ...patch };
      setDoc(latest.current);
      setState("waiting");
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => {
        timer.current = undefined;
        void push();
      }, PAUSE_MS);
    },
    [push],
  );

  const keepMine = () => {
    version.current = Number(problem?.params.stored_version);
    void push();
  };
  const takeTheirs = () => {
    version.current = Number(problem?.params.stored_version);
    latest.current = problem?.params.stored as T;
    setDoc(latest.current);
    setProblem(null);
    setState("saved");
  };
  return { doc, change, state, problem, version: version.current, keepMine, takeTheirs };
}
