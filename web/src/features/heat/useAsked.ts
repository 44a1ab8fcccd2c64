import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { type Explored, exploredQuery, HEAT, type Want } from "./queries";

/**
 * What is wanted, and the answer to it. Asks before anything is drawn, and while an answer is on its way only for the
 * newest after it; each way keeps what it showed until then.
 */
export function useAsked(first: () => Want): {
  want: Want;
  change: (patch: (before: Want) => Partial<Want>) => void;
  answers: Map<string, Explored> | undefined;
  error: Error | null;
  old: boolean;
} {
  const queryClient = useQueryClient();
  const [want, setWant] = useState(first);
  const [asked, setAsked] = useState(want);
  const newest = useRef(want);
  const { data, error, isFetching, isPlaceholderData } = useQuery(exploredQuery(asked));
  const change = useCallback(
    (patch: (before: Want) => Partial<Want>) => {
      const next = { ...newest.current, ...patch(newest.current) };
      newest.current = next;
      setWant(next);
      if (queryClient.isFetching({ queryKey: HEAT }) > 0) return;
      void queryClient.prefetchQuery(exploredQuery(next));
      setAsked(next);
    },
    [queryClient],
  );
  useEffect(() => {
    if (!isFetching) setAsked(want);
  }, [want, isFetching]);
  return { want, change, answers: data, error, old: isPlaceholderData };
}
