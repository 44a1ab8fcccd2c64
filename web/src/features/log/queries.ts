import { queryOptions } from "@tanstack/react-query";
import { call, client } from "../../api/client";
import { deviceName } from "../../shared/person";

export const logListQuery = queryOptions({
  queryKey: ["log", "all"],
  queryFn: () => call(client.GET("/api/log")),
});

export const eventsQuery = (id: string) =>
  queryOptions({
    queryKey: ["log", id, "events"],
    queryFn: () => call(client.GET("/api/runs/{id}/events", { params: { path: { id } } })),
  });

export const addReadings = (id: string, csv: string, actor: string) =>
  call(
    client.POST("/api/runs/{id}/readings", {
      params: { path: { id } },
      body: { csv, actor, device: deviceName() },
    }),
  );

export const planRest = (id: string, order_id: string) =>
  call(client.POST("/api/log/{id}/rest", { params: { path: { id } }, body: { order_id } }));

export const logQuery = (id: string) =>
  queryOptions({
    queryKey: ["log", id],
    queryFn: () => call(client.GET("/api/log/{id}", { params: { path: { id } } })),
  });
