/**
 * What a page needs to stand without the server: the kitchen, the units and the live run as they were last answered, each kept by
 * itself in IndexedDB (so that no failed answer, and no other page of this browser, takes one away) and shown again after a reload
 * until the server answers anew.
 */
import type { Query, QueryClient, QueryKey } from "@tanstack/react-query";
import { type IDBPDatabase, openDB } from "idb";

const NAME = "umber-pebble-answers";
const STORE = "answers";
const KINDS = ["kitchen", "units", "bench", "ahead", "choices"];
const LONGEST_MS = 24 * 3600 * 1000;

interface Kept {
  at: number;
  key: QueryKey;
  data: unknown;
}

let opened: Promise<IDBPDatabase> | undefined;
const store = () => {
  opened ??= openDB(NAME, 1, { upgrade: (db) => db.createObjectStore(STORE) });
  return opened;
};

/** Puts back what was remembered; anything that fails leaves the page as it would be without. */
export async function recall(client: QueryClient): Promise<void> {
  try {
    const db = await store();
    for (const hash of await db.getAllKeys(STORE)) {
      const kept: Kept = await db.get(STORE, hash);
      if (Date.now() - kept.at > LONGEST_MS) await db.delete(STORE, hash);
      else client.setQueryData(kept.key, kept.data, { updatedAt: kept.at });
    }
    // shown at once, and asked anew
    await client.invalidateQueries({ refetchType: "none" });
  } catch {
    // a browser that keeps nothing
  }
}

/** Keeps each answer as it comes. */
export function remember(client: QueryClient): void {
  client.getQueryCache().subscribe((event) => {
    if (event.type !== "updated" || event.action.type !== "success") return;
    if (KINDS.includes(String(event.query.queryKey[0]))) void keep(event.query);
  });
}

async function keep(query: Query): Promise<void> {
  const kept: Kept = { at: query.state.dataUpdatedAt, key: query.queryKey, data: query.state.data };
  try {
    await (await store()).put(STORE, kept, query.queryHash);
  } catch {
    // a browser that keeps nothing
  }
}
