import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import type { Problem } from "../api/client";
import type { Docs, Kind, Stored } from "../api/things";
import { type Edit, type SaveState, type Saving, savingOf } from "./saving";

/** How the way to the server stands. */
export interface Thing {
  state: SaveState;
  problem: Problem | null;
  steps: number;
  saving: Pick<Saving, "undone" | "keepMine" | "takeTheirs" | "undo">;
}

/** A thing being edited: changes show at once and are on their way to the server, whatever comes between. */
export function useThing<K extends Kind>(kind: K, stored: Stored<Docs[K]>) {
  const queryClient = useQueryClient();
  // one way a thing, by its id alone: a newer version is only heard of
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  const saving = useMemo(() => savingOf(kind, stored), [kind, stored.id]);
  const now = useSyncExternalStore(saving.subscribe, () => saving.now);
  useEffect(() => saving.heard(stored), [saving, stored]);
  useEffect(() => {
    if (now.state === "saved" && now.version > stored.version)
      void queryClient.invalidateQueries({ queryKey: [kind] });
  }, [now, stored.version, kind, queryClient]);
  // leaving the editor is a pause long enough
  useEffect(() => () => saving.flush(false), [saving]);
  return useMemo(
    () => ({ ...now, saving, change: (change: Edit<Docs[K]>) => saving.change(change) }),
    [now, saving],
  );
}
