import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

const KEPT = { retry: false, placeholderData: keepPreviousData } as const;

export const burstsQuery = (body: Schemas["BurstsAsked"]) =>
  queryOptions({
    queryKey: ["figures", "bursts", body],
    queryFn: async () => (await call(client.POST("/api/figures/bursts", { body }))).plan,
    ...KEPT,
  });

export const cookQuery = (body: Schemas["CookAsked"]) =>
  queryOptions({
    queryKey: ["figures", "cook", body],
    queryFn: async () => (await call(client.POST("/api/figures/cook", { body }))).cooked,
    ...KEPT,
  });

export const caramelQuery = (body: Schemas["CaramelAsked"]) =>
  queryOptions({
    queryKey: ["figures", "caramel", body],
    queryFn: async () => (await call(client.POST("/api/figures/caramel", { body }))).caramel,
    ...KEPT,
  });

export const dipQuery = (body: Schemas["DipAsked"]) =>
  queryOptions({
    queryKey: ["figures", "dip", body],
    queryFn: async () => (await call(client.POST("/api/figures/dip", { body }))).bath,
    ...KEPT,
  });

export const powerQuery = (body: Schemas["PowerAsked"]) =>
  queryOptions({
    queryKey: ["figures", "power", body],
    queryFn: async () => (await call(client.POST("/api/figures/power", { body }))).power_w,
    ...KEPT,
  });
