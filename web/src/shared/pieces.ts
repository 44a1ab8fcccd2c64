import { call, client, type Schemas } from "../api/client";

export const savePiece = (id: string, version: number, doc: Schemas["Piece"]) =>
  call(client.PUT("/api/pieces/{id}", { params: { path: { id } }, body: { version, doc } }));
