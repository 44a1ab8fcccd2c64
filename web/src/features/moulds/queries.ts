import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type Mould = Schemas["Mould"];

export const mouldFiguresQuery = (mould: Mould) =>
  queryOptions({
    queryKey: ["figures", "mould", mould],
    queryFn: async () => (await call(client.POST("/api/figures/mould", { body: mould }))).figures,
    retry: false,
    placeholderData: (before) => before,
  });

export const saveMould = (id: string, version: number, doc: Mould) =>
  call(client.PUT("/api/moulds/{id}", { params: { path: { id } }, body: { version, doc } }));

export const createMould = (id: string, doc: Mould) =>
  call(client.POST("/api/moulds", { body: { id, doc } }));

export const removeMould = (id: string, version: number) =>
  call(client.DELETE("/api/moulds/{id}", { params: { path: { id } }, body: { version } }));

export const FIRST_MOULD: Mould = {
  name: "New disc mould",
  material: "silicone",
  wall_m: 0.003,
  bears_degc: 230,
  cavities: 6,
  owned: 1,
  diameter_m: 0.06,
  depth_m: 0.006,
  draft_rad: 0.0873,
  water_kg: null,
};
