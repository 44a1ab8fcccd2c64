/** What a thing was before each change of it on this page, so that changes can be taken back one by one. */

const MOST = 60;
/** Changes that follow each other closer than this are one: a drag, a word being typed. */
const ONE_STEP_MS = 900;

export class Steps<T> {
  private readonly before: T[] = [];
  private last = Number.NEGATIVE_INFINITY;

  /** A change is made to what stood there. */
  noted(stood: T): void {
    const now = performance.now();
    if (now - this.last > ONE_STEP_MS || this.before.length === 0) this.before.push(stood);
    if (this.before.length > MOST) this.before.shift();
    this.last = now;
  }

  /** What stood there before the last step; undefined: there is none. */
  back(): T | undefined {
    this.last = Number.NEGATIVE_INFINITY;
    return this.before.pop();
  }

  forget(): void {
    this.before.length = 0;
  }

  get count(): number {
    return this.before.length;
  }
}

const known = new Map<string, Steps<unknown>>();

/** The steps of a thing, kept while this page stands. */
export function stepsOf<T>(key: string): Steps<T> {
  const steps = known.get(key) ?? new Steps<unknown>();
  known.set(key, steps);
  return steps as Steps<T>;
}
