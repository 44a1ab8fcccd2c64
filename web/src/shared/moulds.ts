import type { Schemas } from "../api/client";

/** What a mould is: something to be filled, a sheet that is cut, a drawing that is piped over. */
export type Is = "mould" | "sheet" | "drawing";

export function isOf(mould: Schemas["Mould"] | undefined, cavity = 0): Is {
  if (mould?.sheet) return "sheet";
  return mould?.cavities[cavity]?.shape.kind === "lines" ? "drawing" : "mould";
}
