import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useSyncExternalStore } from "react";
import type { EventBody } from "./events";
import { dismissRefused, known, put, subscribe } from "./outbox";
import { deviceName } from "./person";

/** What is in this browser's outbox, whichever tab put it there. */
export const useOutbox = () => useSyncExternalStore(subscribe, known);

/** Sends events of a run, and what became of them; each is kept in this browser until the server has taken it. */
export function useRunEvents(actor: string) {
  const queryClient = useQueryClient();
  const box = useOutbox();
  const unsent = box.filter((item) => item.refused === null).length;
  const before = useRef(unsent);
  useEffect(() => {
    if (unsent < before.current)
      for (const key of ["bench", "log"]) void queryClient.invalidateQueries({ queryKey: [key] });
    before.current = unsent;
  }, [unsent, queryClient]);
  const send = useCallback(
    (run: string, told: EventBody, done: Date | null = null) => {
      const event = {
        ...told,
        id: crypto.randomUUID(),
        actor,
        device: deviceName(),
        happened_at: null,
        schema_version: 1,
      };
      void put({ run, event, done: done?.toISOString() ?? null, refused: null });
    },
    [actor],
  );
  const refused = box.find((item) => item.refused !== null)?.refused ?? null;
  return { send, unsent, refused, clearRefused: () => void dismissRefused() };
}
