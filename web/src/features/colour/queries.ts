import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";
import { makeThing } from "../../api/things";

export type Asked = Schemas["RecipeRequest"];
export type Colour = Schemas["Colour"];

export const colourListQuery = queryOptions({
  queryKey: ["colour", "all"],
  queryFn: () => call(client.GET("/api/colours")),
});

export const recipeQuery = (asked: Asked) =>
  queryOptions({
    queryKey: ["figures", "colour", asked],
    queryFn: async () => (await call(client.POST("/api/figures/colour", { body: asked }))).coloured,
    retry: false,
    placeholderData: (before) => before,
  });

export const patchesQuery = (base: string, colour_id: string, thickness_m: number) =>
  queryOptions({
    queryKey: ["figures", "patches", base, colour_id, thickness_m],
    queryFn: async () =>
      (await call(client.POST("/api/figures/patches", { body: { base, colour_id, thickness_m } }))).items,
    retry: false,
  });

/** A new colour at hand, its strength not known yet. */
export const addColour = (kind: Colour["kind"]): Promise<string> =>
  makeThing("colour", { name: "New colour", dye: "e129", kind, mg_per_g: null });

export const removeColour = (id: string, version: number) =>
  call(client.DELETE("/api/colours/{id}", { params: { path: { id } }, body: { version } }));

export const paletteLookQuery = (body: Schemas["Palette"]) =>
  queryOptions({
    queryKey: ["figures", "palette", body],
    queryFn: async () => (await call(client.POST("/api/figures/palette", { body }))).look,
    placeholderData: (before) => before,
  });
