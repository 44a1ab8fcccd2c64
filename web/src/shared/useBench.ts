import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { call, client } from "../api/client";
import { movedOn } from "./ahead";
import { railQuery } from "./kitchen";
import type { Item } from "./outbox";
import { useOutbox } from "./runEvents";

/** The acts to the end are asked for when this long nothing has happened: they are reckoned anew each time. */
const QUIET_MS = 3000;

/** The live run as the bench shows it: as the server last said, moved on by what could not be sent yet. */
export function useBench(actor: string, enabled: boolean) {
  const queryClient = useQueryClient();
  const bench = useQuery({ ...railQuery(actor), enabled });
  const view = bench.data?.view ?? null;
  const run = view && !view.ended && !view.unread ? view.run_id : null;
  const key = useMemo(() => ["ahead", run, actor], [run, actor]);
  const ahead = useQuery({
    queryKey: key,
    queryFn: async () =>
      (
        await call(
          client.GET("/api/runs/{id}/ahead", { params: { path: { id: run ?? "" }, query: { actor } } }),
        )
      ).ahead,
    enabled: run !== null,
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
    // the rest of a long one comes in parts
    refetchInterval: ({ state }) => state.data?.whole === false && QUIET_MS,
  }).data;
  const old = ahead !== undefined && ahead.seq !== view?.seq;
  useEffect(() => {
    if (!old || view?.seq === undefined) return;
    const timer = window.setTimeout(() => void queryClient.invalidateQueries({ queryKey: key }), QUIET_MS);
    return () => window.clearTimeout(timer);
  }, [old, view?.seq, key, queryClient]);
  const noted = useNoted(view?.seq);
  const moved = useMemo(() => view && movedOn(view, ahead, noted), [view, ahead, noted]);
  return { pending: bench.isPending, view: moved };
}

/** What is in the box, and what has just left it and is not in the view yet: nothing shown jumps back in between. */
function useNoted(seq: number | undefined): readonly Item[] {
  const box = useOutbox();
  const before = useRef(box);
  const [left, setLeft] = useState<{ seq: number | undefined; items: Item[] }>({ seq, items: [] });
  useEffect(() => {
    const gone = before.current.filter((of) => of.refused === null && !box.some(({ n }) => n === of.n));
    before.current = box;
    if (gone.length > 0) setLeft((was) => ({ seq, items: was.seq === seq ? [...was.items, ...gone] : gone }));
  }, [box, seq]);
  return useMemo(() => (left.seq === seq ? [...left.items, ...box] : box), [left, seq, box]);
}
