import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";
import { deviceName } from "../../shared/person";

export type Order = Schemas["Order"];
export type Summary = Schemas["Summary"];
/** An order as it was planned, and when: the plan's parts are asked for by it. */
export type Asked = Schemas["PlanRequest"];
/** A plan at a glance. */
export interface Plan {
  asked: Asked;
  summary: Summary;
}

/** A frame of a quantity that runs on is of no use once the next has come. */
const OF_A_PLAN = {
  retry: false,
  gcTime: 5_000,
  placeholderData: <T>(before: T) => before,
} as const;

export const planQuery = (order: Order) =>
  queryOptions({
    ...OF_A_PLAN,
    queryKey: ["figures", "plan", order],
    queryFn: async ({ signal }): Promise<Plan> => {
      const { glance } = await call(client.POST("/api/figures/plan", { body: order, signal }));
      return { asked: { order, planned_at: glance.planned_at }, summary: glance.summary };
    },
  });

const PART_OF = ["figures", "plan", "part"] as const;

export const meltQuery = (asked: Asked, melt: string) =>
  queryOptions({
    ...OF_A_PLAN,
    queryKey: [...PART_OF, "melt", melt, asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/plan/melt", { body: { ...asked, melt }, signal }))).part,
  });

export const windowsQuery = (asked: Asked) =>
  queryOptions({
    ...OF_A_PLAN,
    queryKey: [...PART_OF, "windows", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/plan/windows", { body: asked, signal }))).rows,
  });

export const cardsQuery = (asked: Asked) =>
  queryOptions({
    ...OF_A_PLAN,
    queryKey: [...PART_OF, "cards", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/plan/cards", { body: asked, signal }))).cards,
  });

export const timetableQuery = (asked: Asked) =>
  queryOptions({
    ...OF_A_PLAN,
    queryKey: [...PART_OF, "timetable", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/plan/timetable", { body: asked, signal }))).timetable,
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
