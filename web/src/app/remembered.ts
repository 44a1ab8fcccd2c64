/**
 * What a page needs to stand without the server: the kitchen, the units and the live run as they were last answered, kept in
 * IndexedDB and shown again after a reload until the server answers anew.
 */
import { dehydrate, hydrate, type QueryClient } from "@tanstack/react-query";
import { openDB } from "idb";

const NAME = "umber-pebble-remembered";
const KINDS = ["kitchen", "units", "bench", "choices"];
const LONGEST_MS = 24 * 3600 * 1000;
const AFTER_MS = 1000;

interface Kept {
  at: number;
  state: ReturnType<typeof dehydrate>;
}

const store = () => openDB(NAME, 1, { upgrade: (db) => db.createObjectStore("last") });

/** Puts back what was remembered; anything that fails leaves the page as it would be without. */
export async function recall(client: QueryClient): Promise<void> {
  const kept: Kept | undefined = await (await store()).get("last", "queries").catch(() => undefined);
  if (!kept || Date.now() - kept.at > LONGEST_MS) return;
  hydrate(client, kept.state);
  // shown at once, and asked anew
  await client.invalidateQueries({ refetchType: "none" });
}

/** Keeps what is known, a moment after it has changed. */
export function remember(client: QueryClient): void {
  let timer: number | undefined;
  client.getQueryCache().subscribe((event) => {
    if (event.type !== "updated" || !KINDS.includes(String(event.query.queryKey[0]))) return;
    window.clearTimeout(timer);
    timer = window.setTimeout(() => void keep(client), AFTER_MS);
  });
}

async function keep(client: QueryClient): Promise<void> {
  const state = dehydrate(client, {
    shouldDehydrateQuery: (query) =>
      query.state.status === "success" && KINDS.includes(String(query.queryKey[0])),
    shouldDehydrateMutation: () => false,
  });
  await (await store())
    .put("last", { at: Date.now(), state } satisfies Kept, "queries")
    .catch(() => undefined);
}
