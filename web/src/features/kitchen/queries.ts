import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

export type Kitchen = Schemas["Kitchen"];

export const saveUnits = (version: number, doc: Schemas["Units"]) =>
  call(client.PUT("/api/units", { body: { version, doc } }));

export const readUnits = () => call(client.GET("/api/units"));

/** The text is sent as it is: the server reads and refuses it, by line and path. */
export const bringIn = (text: string) =>
  call(
    client.POST("/api/workshop", {
      body: text as unknown as Schemas["WorkshopFile"],
      bodySerializer: (body) => body as unknown as string,
    }),
  );

export const usualKitchensQuery = queryOptions({
  queryKey: ["kitchens"],
  queryFn: () => call(client.GET("/api/kitchens")),
  staleTime: Number.POSITIVE_INFINITY,
});
