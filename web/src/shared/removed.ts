import { useSyncExternalStore } from "react";
import { type Docs, type MadeKind, makeThing } from "../api/things";

/** What was removed last on this page; it can be put back while it is shown. */
export interface Removed {
  kind: MadeKind;
  name: string;
  putBack: () => Promise<string>;
}

let last: Removed | null = null;
const listeners = new Set<() => void>();

function set(next: Removed | null): void {
  last = next;
  for (const listener of listeners) listener();
}

/** A thing is gone: how to put it back is kept. */
export function removed<K extends MadeKind>(kind: K, doc: Docs[K]): void {
  const putBack = async () => {
    const id = await makeThing(kind, doc);
    set(null);
    return id;
  };
  set({ kind, name: doc.name, putBack });
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** What was removed last of a kind. */
export function useRemoved(kind: MadeKind): Removed | null {
  const now = useSyncExternalStore(subscribe, () => last);
  return now?.kind === kind ? now : null;
}
