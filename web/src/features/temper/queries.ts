import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type SeedAsked = Schemas["SeedRequest"];

export const seedQuery = (asked: SeedAsked) =>
  queryOptions({
    queryKey: ["figures", "seed", asked],
    queryFn: async () => (await call(client.POST("/api/figures/seed", { body: asked }))).seeded,
    retry: false,
    placeholderData: (before) => before,
  });

/** The cup a cooling curve is taken of. */
export const SAMPLE: Schemas["ProbedIn"] = { of: "sample", number: 0 };
const EVERY_MS = 2000;

export const curveQuery = (asked: Schemas["CurveRequest"]) =>
  queryOptions({
    queryKey: ["figures", "curve", asked],
    queryFn: async () => (await call(client.POST("/api/figures/curve", { body: asked }))).read,
    enabled: asked.csv !== null || asked.probe_id !== null,
    retry: false,
    refetchInterval: asked.csv === null ? EVERY_MS : false,
  });
