import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";
import { deviceName } from "../../shared/person";

export type Order = Schemas["Order"];
export type Plan = Schemas["PlanReply"];

export const planQuery = (order: Order) =>
  queryOptions({
    queryKey: ["figures", "plan", order],
    queryFn: () => call(client.POST("/api/figures/plan", { body: order })),
    retry: false,
    placeholderData: (before) => before,
  });

export const waysQuery = queryOptions({
  queryKey: ["ways"],
  queryFn: () => call(client.GET("/api/ways")),
});

export const createOrder = (id: string, doc: Order) =>
  call(client.POST("/api/orders", { body: { id, doc } }));

export const removeOrder = (id: string, version: number) =>
  call(client.DELETE("/api/orders/{id}", { params: { path: { id } }, body: { version } }));

export const startRun = (order_id: string, actor: string) =>
  call(
    client.POST("/api/runs", { body: { id: crypto.randomUUID(), order_id, actor, device: deviceName() } }),
  );
