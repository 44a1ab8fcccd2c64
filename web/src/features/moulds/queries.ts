import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";
import { type Cavity, SHAPES } from "../../shared/shapes";

export type Mould = Schemas["Mould"];
export type Sheet = NonNullable<Mould["sheet"]>;

/** What is cut out of a sheet, as it stands in the editor. */
export const sheetQuery = (mould: Mould, wanted: number[]) =>
  queryOptions({
    queryKey: ["figures", "sheet", mould, wanted],
    queryFn: async () => (await call(client.POST("/api/figures/sheet", { body: { mould, wanted } }))).figures,
    retry: false,
    placeholderData: keepPreviousData,
  });

export const FIRST_SHEET: Sheet = {
  length_m: 0.3,
  width_m: 0.2,
  web_m: 0.004,
  margin_m: 0.006,
  turned: true,
};

export const cavityFiguresQuery = (cavity: Cavity, wall_m: number, cut_frac: number) =>
  queryOptions({
    queryKey: ["figures", "cavity", cavity, wall_m, cut_frac],
    queryFn: async () =>
      (await call(client.POST("/api/figures/cavity", { body: { cavity, wall_m, cut_frac } }))).figures,
    retry: false,
    placeholderData: keepPreviousData,
  });

export const removeMould = (id: string, version: number) =>
  call(client.DELETE("/api/moulds/{id}", { params: { path: { id } }, body: { version } }));

export const freshCavity = (name: string): Cavity => ({
  name,
  count: 6,
  shape: SHAPES[0]?.fresh as Cavity["shape"],
  water_kg: null,
});

export const FIRST_MOULD: Mould = {
  name: "New mould",
  material: "silicone",
  wall_m: 0.003,
  bears_degc: 230,
  owned: 1,
  cavities: [freshCavity("Disc")],
  mat: null,
  detail_m: null,
  oiled: false,
  sheet: null,
  base: null,
};

/** A frame of a drag is of no use once the next has come. */
const FRAME_MS = 5_000;

/** Whether a drawing holds, as it stands under the hand. */
export const filigreeQuery = (asked: Schemas["FiligreeRequest"]) =>
  queryOptions({
    queryKey: ["figures", "filigree", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/filigree", { body: asked, signal }))).figures,
    retry: false,
    gcTime: FRAME_MS,
    placeholderData: keepPreviousData,
  });

/** What would make it hold. */
export const mendsQuery = (asked: Schemas["FiligreeRequest"]) =>
  queryOptions({
    queryKey: ["figures", "mends", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/filigree/mends", { body: asked, signal }))).mends,
    retry: false,
  });

export const readLines = (svg: string, width_m: number | null) =>
  call(client.POST("/api/figures/lines", { body: { svg, width_m } }));
