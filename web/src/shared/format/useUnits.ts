import { queryOptions, useQuery } from "@tanstack/react-query";
import { call, client } from "../../api/client";
import type { Units } from "./units";

export const unitsQuery = queryOptions({
  queryKey: ["units"],
  queryFn: () => call(client.GET("/api/units")),
});

const FIRST: Units = { temperature: "C", mass: "g", length: "mm", volume: "ml" };

/** The units everything is shown in, on every screen of the workshop. */
export function useUnits(): Units {
  return useQuery(unitsQuery).data?.doc ?? FIRST;
}
