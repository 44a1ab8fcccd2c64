import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type Asked = Schemas["HeatRequest"];
export type Explored = Schemas["Explored"];
export type Stay = Schemas["StayDoc"];
/** What is cast, apart from the ways it takes. */
export type Cast = Omit<Asked, "ways">;

/** A path through places, known by its id while it is changed. */
export interface Way {
  id: string;
  stays: Stay[];
}

export interface Want {
  cast: Cast;
  ways: Way[];
}

export const HEAT = ["figures", "heat"];

export const exploredQuery = ({ cast, ways }: Want) =>
  queryOptions({
    queryKey: [...HEAT, cast, ways],
    queryFn: async () => {
      const body = { ...cast, ways: ways.map(({ stays }) => stays) };
      const { items } = await call(client.POST("/api/figures/heat", { body }));
      return new Map(items.map((of, i) => [ways[i]?.id ?? "", of]));
    },
    retry: false,
    placeholderData: (before) => before,
  });

export const materialListQuery = queryOptions({
  queryKey: ["material", "all"],
  queryFn: () => call(client.GET("/api/materials")),
});

export const removeMaterial = (id: string, version: number) =>
  call(client.DELETE("/api/materials/{id}", { params: { path: { id } }, body: { version } }));
