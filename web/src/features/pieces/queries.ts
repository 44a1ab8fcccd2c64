import { queryOptions, useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { call, client, type Schemas } from "../../api/client";
import { fieldsQuery } from "../../shared/pieces";
import { useDebounced } from "../../shared/useDebounced";

export type Piece = Schemas["Piece"];
export type PartFigures = Omit<Schemas["PartFigures"], "rows"> &
  Schemas["PartBase"] & { rows: PartRow[]; setting: Schemas["PartSets"] | undefined };

/** A frame of a drag is of no use once the next has come. */
const FRAME_MS = 5_000;

/** What a part is cast in or made on, cut open: while its passes are dragged it stays as it is. */
const baseQuery = (asked: Schemas["BaseRequest"]) =>
  queryOptions({
    queryKey: ["figures", "base", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/base", { body: asked, signal }))).base,
    retry: false,
    gcTime: FRAME_MS,
    placeholderData: (before) => before,
  });

/** A part laid pass by pass and cut open. */
const partQuery = (asked: Schemas["PartRequest"]) =>
  queryOptions({
    queryKey: ["figures", "part", asked],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/part", { body: asked, signal }))).figures,
    retry: false,
    gcTime: FRAME_MS,
    placeholderData: (before) => before,
  });

/** How its passes set. */
const setsQuery = (part: Schemas["Part"]) =>
  queryOptions({
    queryKey: ["figures", "sets", part],
    queryFn: async ({ signal }) =>
      (await call(client.POST("/api/figures/sets", { body: { part }, signal }))).sets,
    retry: false,
    gcTime: FRAME_MS,
    placeholderData: (before) => before,
  });

/** While an edge is dragged the handle follows at once, the figures this often; how it sets once it stands still. */
const DRAG_MS = 16;
const STILL_MS = 150;

export type PartRow = Schemas["PassRow"] & { setting: Schemas["PassSets"] | undefined };

/** A part as it stands in the editor, worked out: what it is in, its passes, and how they set; each as soon as it is known. */
export function usePart(part: Schemas["Part"], cut_frac: number) {
  const asked = useDebounced(part, DRAG_MS);
  const cut = useDebounced(cut_frac, DRAG_MS);
  const { mould_id, cavity, body } = asked;
  const base = useQuery(baseQuery({ mould_id, cavity, body, cut_frac: cut }));
  const build = useQuery(partQuery({ part: asked, cut_frac: cut }));
  const sets = useQuery(setsQuery(useDebounced(asked, STILL_MS)));
  const error = base.error ?? build.error ?? sets.error;
  const setting = sets.data;
  const known: PartFigures | undefined = base.data &&
    build.data && {
      ...base.data,
      ...build.data,
      rows: build.data.rows.map((row) => ({
        ...row,
        setting: setting?.rows.find((of) => of.index === row.index),
      })),
      setting,
    };
  // what is refused leaves what was known before it
  const last = useRef<{ figures: PartFigures; asked: Schemas["Part"] } | undefined>(undefined);
  if (known) last.current = { figures: known, asked };
  return {
    figures: last.current?.figures,
    asked: last.current?.asked ?? asked,
    error,
    dim: build.isPlaceholderData || !known,
    dimSets: sets.isPlaceholderData || setting === undefined,
    usual: build.isPlaceholderData || !known ? [] : (build.data?.usual ?? []),
  };
}

export const kindsQuery = { ...fieldsQuery, select: (of: Schemas["PassKinds"]) => of.kinds };
export const bodyQuery = { ...fieldsQuery, select: (of: Schemas["PassKinds"]) => of.body };
export const joinQuery = { ...fieldsQuery, select: (of: Schemas["PassKinds"]) => of.join };

export const addPass = async (body: Schemas["AdditionRequest"]) =>
  (await call(client.POST("/api/figures/addition", { body }))).added;

export const firstJoin = async (piece: Piece) =>
  (await call(client.POST("/api/figures/join", { body: { piece } }))).join;

/** Pieces to start from, in the moulds there are. */
export const startsQuery = queryOptions({
  queryKey: ["starts"],
  queryFn: async () => (await call(client.GET("/api/starts"))).items,
});

export const solvePass = async (body: Schemas["WeightRequest"]) =>
  (await call(client.POST("/api/figures/pass", { body }))).value;

export const removePiece = (id: string, version: number) =>
  call(client.DELETE("/api/pieces/{id}", { params: { path: { id } }, body: { version } }));

export const handQuery = (body: Schemas["HandRequest"]) =>
  queryOptions({
    queryKey: ["figures", "hand", body],
    queryFn: async () => (await call(client.POST("/api/figures/hand", { body }))).amounts,
    retry: false,
    placeholderData: (before) => before,
  });

/** A piece put together. */
export const assemblyQuery = (piece: Piece) =>
  queryOptions({
    queryKey: ["figures", "assembly", piece],
    queryFn: async () => (await call(client.POST("/api/figures/assembly", { body: { piece } }))).assembly,
    retry: false,
    placeholderData: (before) => before,
  });

export const readyQuery = queryOptions({
  queryKey: ["ready"],
  queryFn: async () => (await call(client.GET("/api/ready"))).items,
  staleTime: Number.POSITIVE_INFINITY,
});
