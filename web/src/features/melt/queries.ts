import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

const KEPT = { retry: false, placeholderData: keepPreviousData } as const;

export const burstsQuery = (body: Schemas["BurstsRequest"]) =>
  queryOptions({
    queryKey: ["figures", "bursts", body],
    queryFn: async () => await call(client.POST("/api/figures/bursts", { body })),
    ...KEPT,
  });

export const cookQuery = (body: Schemas["CookRequest"]) =>
  queryOptions({
    queryKey: ["figures", "cook", body],
    queryFn: async () => (await call(client.POST("/api/figures/cook", { body }))).cooked,
    ...KEPT,
  });

export const caramelQuery = (body: Schemas["CaramelRequest"]) =>
  queryOptions({
    queryKey: ["figures", "caramel", body],
    queryFn: async () => (await call(client.POST("/api/figures/caramel", { body }))).caramel,
    ...KEPT,
  });

export const fluidQuery = (body: Schemas["FluidRequest"]) =>
  queryOptions({
    queryKey: ["figures", "fluid", body],
    queryFn: async () => (await call(client.POST("/api/figures/fluid", { body }))).fluid,
    retry: false,
    placeholderData: (before) => before,
  });

/** A tested wafer kept as a material of one's own. */
export const keepWafer = (id: string, doc: Schemas["OwnMaterial"]) =>
  call(client.POST("/api/materials", { body: { id, doc } }));

export const dipQuery = (body: Schemas["DipRequest"]) =>
  queryOptions({
    queryKey: ["figures", "dip", body],
    queryFn: async () => (await call(client.POST("/api/figures/dip", { body }))).bath,
    ...KEPT,
  });

export const powerQuery = (body: Schemas["PowerRequest"]) =>
  queryOptions({
    queryKey: ["figures", "power", body],
    queryFn: async () => (await call(client.POST("/api/figures/power", { body }))).power_w,
    ...KEPT,
  });
