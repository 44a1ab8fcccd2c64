import type { Schemas } from "../api/client";

/** Which words a melt has, as the engine has its rows: those of a sugar, or of a fat. */
export type Wording = Schemas["MeltShown"]["wording"];

type Shown = Schemas["MaterialShown"];

/** Every melt that may be cast: ours and the workshop's own. */
export const meltsIn = (groups: Schemas["Group"][] | undefined): Shown[] =>
  (groups ?? [])
    .filter((group) => group.name === "melts" || group.name === "own")
    .flatMap((group) => group.rows)
    .filter((row) => row.family !== null);
