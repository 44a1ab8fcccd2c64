import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type SeedAsked = Schemas["SeedAsked"];

export const seedQuery = (asked: SeedAsked) =>
  queryOptions({
    queryKey: ["figures", "seed", asked],
    queryFn: async () => (await call(client.POST("/api/figures/seed", { body: asked }))).seeded,
    retry: false,
    placeholderData: (before) => before,
  });

export const readCurve = async (body: Schemas["CurveAsked"]) =>
  (await call(client.POST("/api/figures/curve", { body }))).read;
