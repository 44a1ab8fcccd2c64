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

type Post<T> = (body: { id: string; doc: T }) => Promise<unknown>;

/** What may be made anew; there is one kitchen. */
export type MadeKind = Exclude<Kind, "kitchen">;

const POST: { [K in MadeKind]: Post<Docs[K]> } = {
  mould: (body) => call(client.POST("/api/moulds", { body })),
  piece: (body) => call(client.POST("/api/pieces", { body })),
  order: (body) => call(client.POST("/api/orders", { body })),
  material: (body) => call(client.POST("/api/materials", { body })),
  colour: (body) => call(client.POST("/api/colours", { body })),
};

/** A thing made, under an id of this page's. */
export async function makeThing<K extends MadeKind>(kind: K, doc: Docs[K]): Promise<string> {
  const id = crypto.randomUUID();
  await POST[kind]({ id, doc });
  return id;
}

/** Stores the next version of a thing; with keepalive even from a page that is being left. */
export const saveThing = <K extends Kind>(
  kind: K,
  id: string,
  version: number,
  doc: Docs[K],
  keepalive = false,
): Promise<Stored<Docs[K]>> => PUT[kind](id, { version, doc }, keepalive);
