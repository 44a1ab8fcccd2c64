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
  lines: Schemas["Ordered"][];
  orders: Schemas["OfOrder"][];
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
      const { planned_at, ...parts } = glance;
      return { asked: { order, planned_at }, ...parts };
    },
  });

const PART_OF = ["figures", "plan", "part"] as const;
const ALTERNATIVES = "alternatives";
/** The parts that a view of the plan shows, as a filter of queries. */
export const PARTS_SHOWN = {
  queryKey: PART_OF,
  predicate: ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey[PART_OF.length] !== ALTERNATIVES,
};

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

export const atHandQuery = (asked: Asked) =>
  queryOptions({
    ...OF_A_PLAN,
    queryKey: [...PART_OF, "at-hand", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/plan/at-hand", { body: asked, signal }))).at_hand,
  });

export const alternativesQuery = (asked: Asked) =>
  queryOptions({
    ...OF_A_PLAN,
    queryKey: [...PART_OF, ALTERNATIVES, asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/plan/alternatives", { body: asked, signal }))).alternatives,
  });

export const shorterOf = async (asked: Asked) =>
  (await call(client.POST("/api/figures/plan/shorter", { body: asked }))).shorter;

export const removeOrder = (id: string, version: number) =>
  call(client.DELETE("/api/orders/{id}", { params: { path: { id } }, body: { version } }));

export const startRun = (order_id: string, actor: string) =>
  call(
    client.POST("/api/runs", { body: { id: crypto.randomUUID(), order_id, actor, device: deviceName() } }),
  );
