import { type DefaultError, type UseQueryOptions, useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { problemOf } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { InTurn } from "../../shared/ui/InTurn";
import { Notice } from "../../shared/ui/plain";
import { useSeen } from "../../shared/useSeen";

interface Props<T, K extends readonly unknown[]> {
  query: UseQueryOptions<T, DefaultError, T, K>;
  /** A class that keeps its place until it is known. */
  place: string;
  children: (part: T) => ReactNode;
}

/** A part of the plan: asked for when it comes into view; until the next is known, the last one, dimmed. */
export function Part<T, K extends readonly unknown[]>({ query, place, children }: Props<T, K>) {
  const units = useUnits();
  const [ref, seen] = useSeen<HTMLDivElement>();
  const { data, error, isPlaceholderData } = useQuery({ ...query, enabled: seen });
  return (
    <div ref={ref} aria-busy={seen && !error && (data === undefined || isPlaceholderData)}>
      {error && <Notice tone="hot">{wordProblem(problemOf(error), units)}</Notice>}
      {data === undefined ? (
        <p className={`text-quiet ${place}`}>{!error && "Reckoning…"}</p>
      ) : (
        <div className={`${place} ${isPlaceholderData ? "opacity-50" : ""}`}>
          <InTurn>{children(data)}</InTurn>
        </div>
      )}
    </div>
  );
}
