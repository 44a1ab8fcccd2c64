/**
 * What is typed, on its way to the server. It is stored after a short pause, at once when the page is left or hidden, and sent again
 * until the server answers; until it is stored it lies in IndexedDB, so that it outlives a reload, a refusal and a conflict.
 */
import { hashKey } from "@tanstack/react-query";
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { type Problem, problemOf } from "../api/client";
import { type Docs, type Kind, type Stored, saveThing } from "../api/things";
import { goesAgain } from "./outbox";
import { type Steps, stepsOf } from "./steps";

export type SaveState = "saved" | "waiting" | "saving" | "unsent" | "refused" | "conflict";

/** What was typed, the version it was typed into, what stood there, and what was sent last without an answer. */
interface Draft {
  kind: Kind;
  id: string;
  version: number;
  base: unknown;
  doc: unknown;
  sent: unknown;
}

interface Drafts extends DBSchema {
  drafts: { key: string; value: Draft };
}

const PAUSE_MS = 500;
const AGAIN_MS = 2000;
const NOT_STORED: SaveState[] = ["unsent", "refused", "conflict"];

let opened: Promise<IDBPDatabase<Drafts>> | undefined;
const store = () => {
  opened ??= openDB<Drafts>("umber-pebble-drafts", 1, { upgrade: (db) => db.createObjectStore("drafts") });
  return opened;
};

/** A browser that keeps nothing still has what is on the page. */
async function write(key: string, draft: Draft | null): Promise<void> {
  try {
    const db = await store();
    if (draft) await db.put("drafts", draft, key);
    else await db.delete("drafts", key);
  } catch {}
}

/** What is changed of a thing; what adds to a list is told from how the thing stands now, not from how it was drawn. */
export type Edit<T> = Partial<T> | ((doc: T) => Partial<T>);

export interface Now<T> {
  doc: T;
  version: number;
  state: SaveState;
  problem: Problem | null;
  /** So many changes can be taken back. */
  steps: number;
}

export class Saving<K extends Kind = Kind> {
  now: Now<Docs[K]>;
  private base: Docs[K];
  private sent: Docs[K] | null = null;
  private timer: number | undefined;
  private sending = false;
  private readonly listeners = new Set<() => void>();
  private readonly steps: Steps<Docs[K]>;

  constructor(
    readonly kind: K,
    readonly id: string,
    version: number,
    doc: Docs[K],
  ) {
    this.base = doc;
    this.steps = stepsOf(`${kind} ${id}`);
    this.now = { doc, version, state: "saved", problem: null, steps: this.steps.count };
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    savings.set(this.key, this as unknown as Saving);
    look();
    return () => {
      this.listeners.delete(listener);
      this.settle();
      look();
    };
  };

  /** Not stored, or on its way again after that, and on no screen that says so. */
  get unseen(): boolean {
    const { state, problem } = this.now;
    return (NOT_STORED.includes(state) || problem !== null) && this.listeners.size === 0;
  }

  private get key(): string {
    return `${this.kind} ${this.id}`;
  }

  /** Known while it is looked at or not stored. */
  private settle(): void {
    if (this.listeners.size === 0 && this.now.state === "saved") savings.delete(this.key);
  }

  private set(now: Partial<Now<Docs[K]>>): void {
    this.now = { ...this.now, ...now };
    this.settle();
    look();
    for (const listener of this.listeners) listener();
  }

  private keep(): Promise<void> {
    const { kind, id, base, sent } = this;
    const { doc, version, state } = this.now;
    return write(this.key, state === "saved" ? null : { kind, id, version, base, doc, sent });
  }

  private later(ms: number): void {
    window.clearTimeout(this.timer);
    this.timer = window.setTimeout(() => void this.send(), ms);
  }

  change(change: Edit<Docs[K]>): void {
    const { doc } = this.now;
    this.steps.noted(doc);
    this.put({ ...doc, ...(typeof change === "function" ? change(doc) : change) });
  }

  /** The last change taken back. */
  undo(): void {
    const before = this.steps.back();
    if (before !== undefined) this.put(before);
  }

  private put(doc: Docs[K]): void {
    this.set({ doc, state: "waiting", steps: this.steps.count });
    void this.keep();
    this.later(PAUSE_MS);
  }

  /** Somebody else's save: taken over unless something of one's own is under way. */
  heard(stored: Stored<Docs[K]>): void {
    if (this.now.state === "saved" && stored.version > this.now.version)
      this.take(stored.version, stored.doc);
  }

  /** What was not sent yet goes out now. */
  flush(leaving: boolean): void {
    if (this.timer !== undefined) void this.send(leaving);
  }

  /** From before the page was closed: what was typed, and what may have been stored without an answer. */
  resume(doc: Docs[K], sent: Docs[K] | null): void {
    this.sent = sent;
    this.set({ doc, state: "waiting" });
    void this.send();
  }

  async send(leaving = false): Promise<void> {
    if (this.sending) return;
    window.clearTimeout(this.timer);
    this.timer = undefined;
    this.sending = true;
    const { doc, version } = this.now;
    const before = this.sent;
    this.sent = doc;
    this.set({ state: "saving" });
    void this.keep();
    try {
      const answer = await saveThing(this.kind, this.id, version, doc, leaving);
      this.stored(answer.version, answer.doc, this.now.doc === doc ? "saved" : "waiting");
    } catch (error) {
      const problem = problemOf(error);
      const { stored, stored_version } = problem.params;
      if (problem.code === "stale" && before && same(stored, before))
        this.stored(Number(stored_version), stored as Docs[K], "waiting");
      else this.refused(problem);
    }
    this.sending = false;
    if (this.now.state === "unsent") this.later(AGAIN_MS);
    else if (this.now.state === "waiting" || this.now.doc !== doc) this.later(PAUSE_MS);
  }

  private stored(version: number, base: Docs[K], state: SaveState): void {
    this.base = base;
    this.sent = null;
    this.set({ version, state, problem: null });
    void this.keep();
  }

  private refused(problem: Problem): void {
    const state = goesAgain(problem) ? "unsent" : problem.code === "stale" ? "conflict" : "refused";
    this.set({ problem, state });
    // it is gone, and nobody looks at it any more
    if (problem.status === 404 && this.listeners.size === 0) this.take(this.now.version, this.base);
  }

  /** What somebody else has changed since, and keeping mine would undo: paths, what they have and what I have. */
  undone(): Difference[] {
    const theirs = this.now.problem?.params.stored;
    return theirs ? differences(this.base, theirs, this.now.doc) : [];
  }

  keepMine(): void {
    const { stored, stored_version } = this.now.problem?.params ?? {};
    if (stored) this.base = stored as Docs[K];
    this.set({ version: Number(stored_version) });
    void this.send();
  }

  /** What is stored, instead of what was typed. */
  takeTheirs(): void {
    const { stored, stored_version } = this.now.problem?.params ?? {};
    if (stored) this.take(Number(stored_version), stored as Docs[K]);
    else this.take(this.now.version, this.base);
  }

  private take(version: number, doc: Docs[K]): void {
    window.clearTimeout(this.timer);
    this.timer = undefined;
    // what another did since is not taken back by an undo here
    this.steps.forget();
    this.set({ doc, steps: 0 });
    this.stored(version, doc, "saved");
  }
}

const savings = new Map<string, Saving>();
const anywhere = new Set<() => void>();
let unseen: readonly Saving[] = [];

/** The way of one thing to the server, the same wherever it is edited. */
export function savingOf<K extends Kind>(kind: K, stored: Stored<Docs[K]>): Saving<K> {
  const known = savings.get(`${kind} ${stored.id}`);
  return known ? (known as unknown as Saving<K>) : new Saving(kind, stored.id, stored.version, stored.doc);
}

function look(): void {
  const found = [...savings.values()].filter((of) => of.unseen);
  if (found.length === unseen.length && found.every((of, i) => of === unseen[i])) return;
  unseen = found;
  for (const listener of anywhere) listener();
}

/** What could not be stored so far and is on another screen than this one. */
export const notSaved = (): readonly Saving[] => unseen;

export function onSaving(listener: () => void): () => void {
  anywhere.add(listener);
  return () => void anywhere.delete(listener);
}

/** What was typed before the page was closed goes on its way. */
export async function recallDrafts(): Promise<void> {
  try {
    for (const { kind, id, version, base, doc, sent } of await (await store()).getAll("drafts")) {
      const saving = new Saving(kind, id, version, base as Docs[Kind]);
      savings.set(`${kind} ${id}`, saving);
      saving.resume(doc as Docs[Kind], sent as Docs[Kind] | null);
    }
  } catch {
    // a browser that keeps nothing
  }
}

const flushAll = (leaving: boolean) => {
  for (const saving of savings.values()) saving.flush(leaving);
};
document.addEventListener("visibilitychange", () => document.hidden && flushAll(true));
window.addEventListener("pagehide", () => flushAll(true));
window.addEventListener("online", () => flushAll(false));

export interface Difference {
  path: string;
  theirs: unknown;
  mine: unknown;
}

/** Leaves that they changed against the base and that stand otherwise in mine. */
export function differences(base: unknown, theirs: unknown, mine: unknown, path = ""): Difference[] {
  if (same(base, theirs) || same(theirs, mine)) return [];
  const below = [base, theirs, mine];
  if (!below.every(isTree)) return [{ path, theirs, mine }];
  const keys = new Set(below.flatMap((of) => Object.keys(of as object)));
  return [...keys].flatMap((key) => {
    const [b, t, m] = below.map((of) => (of as Record<string, unknown>)[key]);
    return differences(b, t, m, path ? `${path}.${key}` : key);
  });
}

const isTree = (value: unknown) => typeof value === "object" && value !== null;
const same = (a: unknown, b: unknown) => hashKey([a]) === hashKey([b]);
