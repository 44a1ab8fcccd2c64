import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type Piece = Schemas["Piece"];

/** A cast by its level; the weight or volume typed instead is turned into a level once, by measure(). */
export const pieceFiguresQuery = ({ mould_id, cavity, material, stick, stays }: Piece, fill_m: number) =>
  queryOptions({
    queryKey: ["figures", "piece", mould_id, cavity, material, stick, stays, fill_m],
    queryFn: () => measure({ mould_id, cavity, material, stick, stays, fill_m }),
    retry: false,
    placeholderData: (before) => before,
  });

export const measure = async (body: Schemas["PieceMeasure"]) =>
  (await call(client.POST("/api/figures/piece", { body }))).figures;

export const createPiece = (id: string, doc: Piece) =>
  call(client.POST("/api/pieces", { body: { id, doc } }));

export const removePiece = (id: string, version: number) =>
  call(client.DELETE("/api/pieces/{id}", { params: { path: { id } }, body: { version } }));
