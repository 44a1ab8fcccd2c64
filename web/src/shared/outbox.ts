/**
 * What was noted on this device and is not acknowledged yet: one box for all tabs, in IndexedDB, so that it outlives closing.
 * One tab at a time sends, under a lock, one item after another; each has an id of its own, so sending again counts once.
 */
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { call, client, type Problem, problemOf, type Schemas } from "../api/client";

export interface Item {
  /** Its place in the row. */
  n?: number;
  run: string;
  event: Schemas["EventIn"];
  /** The server's time when it was done, as far as this page knows: told only when it could not be sent at once. */
  done: string | null;
  /** Why the server refuses it for good; kept until somebody has read it. */
  refused: Problem | null;
}

interface Box extends DBSchema {
  items: { key: number; value: Item };
}

const NAME = "umber-pebble-outbox";
const OF_BEFORE = "umber-pebble-unsent";
/** What was noted and is not in the box yet: a page may be gone before it is. */
const NOTED = "umber-pebble-noted-";
const AGAIN_MS = 1000;
const LONGEST_MS = 15_000;
/** What is not answered by then goes on being sent, and the bench goes on without the answer. */
const AT_ONCE_MS = 1000;
/** Not refused for good: a lost pairing, a wall in between, too many at once. */
const NOT_FOR_GOOD = [0, 401, 403, 408, 425, 429];

export const goesAgain = (problem: Problem): boolean =>
  NOT_FOR_GOOD.includes(problem.status) || problem.status >= 500;

let opened: Promise<IDBPDatabase<Box>> | undefined;
const box = () => {
  opened ??= openDB<Box>(NAME, 1, {
    upgrade: (db) => db.createObjectStore("items", { keyPath: "n", autoIncrement: true }),
  }).then(async (db) => {
    await bringOver(db);
    await bringNoted(db);
    return db;
  });
  return opened;
};

/** What a version before this one kept. */
async function bringOver(db: IDBPDatabase<Box>): Promise<void> {
  const text = localStorage.getItem(OF_BEFORE);
  if (text === null) return;
  for (const { run, event, done } of JSON.parse(text) as Item[])
    await db.add("items", { run, event, done, refused: null });
  localStorage.removeItem(OF_BEFORE);
}

/** What a page noted that was gone before it was in the box. */
async function bringNoted(db: IDBPDatabase<Box>): Promise<void> {
  const there = new Set((await db.getAll("items")).map((item) => item.event.id));
  for (const key of Object.keys(localStorage).filter((of) => of.startsWith(NOTED))) {
    const item: Item | null = JSON.parse(localStorage.getItem(key) ?? "null");
    if (item && !there.has(item.event.id)) await db.add("items", late(item));
    localStorage.removeItem(key);
  }
}

const channel = new BroadcastChannel(NAME);
const listeners = new Set<() => void>();
let items: readonly Item[] = [];

/** All items, the oldest first, as this tab knows them. */
export const known = (): readonly Item[] => items;

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

async function look(): Promise<void> {
  items = await (await box()).getAll("items");
  for (const listener of listeners) listener();
}

async function changed(): Promise<void> {
  channel.postMessage(null);
  await look();
}

channel.onmessage = () => void look();

/** One that could not be sent at once is placed by when it was done. */
const late = (item: Item): Item => ({
  ...item,
  event: { ...item.event, happened_at: item.event.happened_at ?? item.done },
});

/** What waits could not be sent at once. */
async function isLate(): Promise<void> {
  const all = (await box()).transaction("items", "readwrite");
  for (const item of await all.store.getAll()) if (!item.refused) await all.store.put(late(item));
  await all.done;
  await changed();
}

export async function put(item: Item): Promise<void> {
  // only behind one that could not be sent at once is it late itself
  const waits = items.some((of) => of.refused === null && of.event.happened_at !== null);
  const noted = NOTED + item.event.id;
  localStorage.setItem(noted, JSON.stringify(item));
  await (await box()).add("items", waits ? late(item) : item);
  localStorage.removeItem(noted);
  await changed();
  void send();
}

/** Somebody has read why these were refused. */
export async function dismissRefused(): Promise<void> {
  const db = await box();
  for (const item of await db.getAll("items"))
    if (item.refused && item.n !== undefined) await db.delete("items", item.n);
  await changed();
}

/** Sends what waits, in whichever tab gets the lock first. */
export async function send(): Promise<void> {
  await navigator.locks.request(NAME, { ifAvailable: true }, async (lock) => {
    if (!lock) return;
    const db = await box();
    for (;;) {
      const first = (await db.getAll("items")).find((item) => item.refused === null);
      if (!first || first.n === undefined) break;
      const slow = window.setTimeout(() => void isLate(), AT_ONCE_MS);
      const problem = await post(first);
      window.clearTimeout(slow);
      if (problem === null) {
        await db.delete("items", first.n);
      } else if (goesAgain(problem)) {
        await isLate();
        window.setTimeout(() => void send(), AGAIN_MS);
        break;
      } else await db.put("items", { ...first, refused: problem });
      await changed();
    }
  });
  await look();
}

async function post(item: Item): Promise<Problem | null> {
  try {
    await call(
      client.POST("/api/runs/{id}/events", {
        params: { path: { id: item.run } },
        body: item.event,
        signal: AbortSignal.timeout(LONGEST_MS),
      }),
    );
    return null;
  } catch (error) {
    return problemOf(error);
  }
}

// another tab that held the lock may have been closed with something in the box
window.setInterval(() => {
  if (items.some((item) => item.refused === null)) void send();
}, 5 * AGAIN_MS);
window.addEventListener("online", () => void send());
void send();
