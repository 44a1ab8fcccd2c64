import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type Asked = Schemas["HeatAsked"];
export type Explored = Schemas["Explored"];
export type Stay = Schemas["Stay"];
/** What is cast, apart from the path it takes. */
export type Cast = Omit<Asked, "stays">;

export const exploredQuery = (cast: Cast, stays: Stay[]) =>
  queryOptions({
    queryKey: ["figures", "heat", cast, stays],
    queryFn: async () =>
      (await call(client.POST("/api/figures/heat", { body: { ...cast, stays } }))).explored,
    retry: false,
    placeholderData: (before) => before,
  });

export const materialListQuery = queryOptions({
  queryKey: ["material", "all"],
  queryFn: () => call(client.GET("/api/materials")),
});

export const saveMaterial = (id: string, version: number, doc: Schemas["OwnMaterial"]) =>
  call(client.PUT("/api/materials/{id}", { params: { path: { id } }, body: { version, doc } }));

export const createMaterial = (id: string, doc: Schemas["OwnMaterial"]) =>
  call(client.POST("/api/materials", { body: { id, doc } }));

export const removeMaterial = (id: string, version: number) =>
  call(client.DELETE("/api/materials/{id}", { params: { path: { id } }, body: { version } }));
