import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type Piece = Schemas["Piece"];
export type PartFigures = Schemas["PartFigures"];

/** A part laid pass by pass and cut open. */
export const partQuery = (asked: Schemas["PartAsked"]) =>
  queryOptions({
    queryKey: ["figures", "part", asked],
    queryFn: async () => (await call(client.POST("/api/figures/part", { body: asked }))).figures,
    retry: false,
    placeholderData: (before) => before,
  });

/** The kinds of passes there are: they stay as they are. */
export const kindsQuery = queryOptions({
  queryKey: ["passes"],
  queryFn: async () => (await call(client.GET("/api/passes"))).kinds,
  staleTime: Number.POSITIVE_INFINITY,
});

export const addPass = async (body: Schemas["AdditionAsked"]) =>
  (await call(client.POST("/api/figures/addition", { body }))).added;

export const firstJoin = async (piece: Piece) =>
  (await call(client.POST("/api/figures/join", { body: { piece } }))).join;

/** Pieces to start from, in the moulds there are. */
export const startsQuery = queryOptions({
  queryKey: ["starts"],
  queryFn: async () => (await call(client.GET("/api/starts"))).items,
});

export const solvePass = async (body: Schemas["WeightAsked"]) =>
  (await call(client.POST("/api/figures/pass", { body }))).value;

export const createPiece = (id: string, doc: Piece) =>
  call(client.POST("/api/pieces", { body: { id, doc } }));

export const removePiece = (id: string, version: number) =>
  call(client.DELETE("/api/pieces/{id}", { params: { path: { id } }, body: { version } }));

export const handQuery = (body: Schemas["HandAsked"]) =>
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
