import type { ReactNode } from "react";
import { problemOf } from "../../api/client";
import { useUnits } from "../format/useUnits";
import { mendWords, wordProblem } from "../format/words";
import { Notice } from "./plain";

/** What is given at the left, what comes of it at the right, and what cannot be where it is. */
export function Sheet({
  inputs,
  error,
  fields,
  old,
  children,
}: {
  inputs: (wrong: (path: string) => string | undefined) => ReactNode;
  error: Error | null;
  /** Paths of the fields that say themselves what is wrong with them. */
  fields: string[];
  old: boolean;
  children: ReactNode;
}) {
  const units = useUnits();
  const problem = error ? problemOf(error) : null;
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  return (
    <div className="mt-4 grid lg:grid-cols-[280px_1fr]">
      <section aria-label="Given" className="space-y-4 bg-panel px-7 py-6">
        {inputs(wrong)}
        {problem && !fields.includes(problem.path) && (
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        )}
      </section>
      <section aria-label="What comes of it" className={`min-w-0 px-7 py-6 ${old ? "opacity-60" : ""}`}>
        {problem ? <p className="text-xl">{mendWords(problem)}</p> : children}
      </section>
    </div>
  );
}

export function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-quiet">{name}</dt>
      <dd className="text-2xl font-bold">{children}</dd>
    </div>
  );
}
