import { queryOptions, useQuery } from "@tanstack/react-query";
import { call, client } from "../api/client";
import { nowMs } from "./useElapsed";

export const kitchenQuery = queryOptions({
  queryKey: ["kitchen"],
  queryFn: () => call(client.GET("/api/kitchen")),
});

export const choicesQuery = queryOptions({
  queryKey: ["choices"],
  queryFn: () => call(client.GET("/api/choices")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const waysQuery = queryOptions({
  queryKey: ["ways"],
  queryFn: () => call(client.GET("/api/ways")),
});

export const sourcesQuery = queryOptions({
  queryKey: ["sources"],
  queryFn: () => call(client.GET("/api/sources")),
  staleTime: Number.POSITIVE_INFINITY,
});

/** Every material with its values. */
export const propertiesQuery = queryOptions({
  queryKey: ["material", "properties"],
  queryFn: () => call(client.GET("/api/properties")),
});

export const pieceListQuery = queryOptions({
  queryKey: ["piece", "all"],
  queryFn: () => call(client.GET("/api/pieces")),
});

export const mouldListQuery = queryOptions({
  queryKey: ["mould", "all"],
  queryFn: () => call(client.GET("/api/moulds")),
});

export const paletteListQuery = queryOptions({
  queryKey: ["palette", "all"],
  queryFn: () => call(client.GET("/api/palettes")),
});

export const orderListQuery = queryOptions({
  queryKey: ["order", "all"],
  queryFn: () => call(client.GET("/api/orders")),
});

/** Things that this version cannot read. */
export const unreadQuery = queryOptions({
  queryKey: ["unread"],
  queryFn: () => call(client.GET("/api/unread")),
});

/** Where everything lies, and how old its newest backup is. */
export const keptQuery = queryOptions({
  queryKey: ["kept"],
  queryFn: () => call(client.GET("/api/kept")),
  staleTime: 3_600_000,
});

export const railQuery = (actor: string) =>
  queryOptions({
    queryKey: ["bench", "live", actor],
    queryFn: async () => {
      const answer = await call(client.GET("/api/bench", { params: { query: { actor } } }));
      return { ...answer, view: answer.view && { ...answer.view, heard_ms: nowMs() } };
    },
  });

/** Zone of the kitchen, for every time on the screens. */
export function useZone(): string {
  return useQuery(kitchenQuery).data?.doc.zone ?? "UTC";
}
