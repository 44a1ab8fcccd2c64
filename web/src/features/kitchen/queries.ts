import { call, client, type Schemas } from "../../api/client";

export type Kitchen = Schemas["Kitchen"];

export const saveKitchen = (_: string, version: number, doc: Kitchen) =>
  call(client.PUT("/api/kitchen", { body: { version, doc } }));

export const saveUnits = (version: number, doc: Schemas["Units"]) =>
  call(client.PUT("/api/units", { body: { version, doc } }));

export const readUnits = () => call(client.GET("/api/units"));
