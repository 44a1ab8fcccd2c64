import { queryOptions } from "@tanstack/react-query";
import { call, client } from "../../api/client";

export const logListQuery = queryOptions({
  queryKey: ["log", "all"],
  queryFn: () => call(client.GET("/api/log")),
});

export const logQuery = (id: string) =>
  queryOptions({
    queryKey: ["log", id],
    queryFn: () => call(client.GET("/api/log/{id}", { params: { path: { id } } })),
  });
