import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

/** The pour cards of a run. */
export const cardsQuery = (id: string) =>
  queryOptions({
    queryKey: ["bench", "cards", id],
    queryFn: () => call(client.GET("/api/runs/{id}/cards", { params: { path: { id } } })),
  });

/** What can still be finished of a round that runs short. */
export const shortQuery = (id: string, body: Schemas["ShortRequest"]) =>
  queryOptions({
    queryKey: ["bench", "short", id, body],
    queryFn: async () =>
      (await call(client.POST("/api/runs/{id}/short", { params: { path: { id } }, body }))).short,
    retry: false,
    placeholderData: (before) => before,
  });
