import { call, client, type Schemas } from "./client";

/** What a document of each kind is. */
export interface Docs {
  kitchen: Schemas["Kitchen"];
  mould: Schemas["Mould"];
  piece: Schemas["Piece"];
  order: Schemas["Order"];
  material: Schemas["OwnMaterial"];
  colour: Schemas["Colour"];
}

export type Kind = keyof Docs;

export interface Stored<T> {
  id: string;
  version: number;
  doc: T;
}

type Put<T> = (id: string, body: { version: number; doc: T }, keepalive: boolean) => Promise<Stored<T>>;

const at = (id: string) => ({ path: { id } });

const PUT: { [K in Kind]: Put<Docs[K]> } = {
  kitchen: (_, body, keepalive) => call(client.PUT("/api/kitchen", { body, keepalive })),
  mould: (id, body, keepalive) => call(client.PUT("/api/moulds/{id}", { params: at(id), body, keepalive })),
  piece: (id, body, keepalive) => call(client.PUT("/api/pieces/{id}", { params: at(id), body, keepalive })),
  order: (id, body, keepalive) => call(client.PUT("/api/orders/{id}", { params: at(id), body, keepalive })),
  material: (id, body, keepalive) =>
    call(client.PUT("/api/materials/{id}", { params: at(id), body, keepalive })),
  colour: (id, body, keepalive) => call(client.PUT("/api/colours/{id}", { params: at(id), body, keepalive })),
};

/** Stores the next version of a thing; with keepalive even from a page that is being left. */
export const saveThing = <K extends Kind>(
  kind: K,
  id: string,
  version: number,
  doc: Docs[K],
  keepalive = false,
): Promise<Stored<Docs[K]>> => PUT[kind](id, { version, doc }, keepalive);
