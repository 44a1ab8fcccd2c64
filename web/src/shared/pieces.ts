import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../api/client";

/** Every melt of a piece, part by part, in the order of its passes. */
export const meltsOf = (piece: Schemas["Piece"]): Schemas["MeltRef"][] =>
  piece.parts.flatMap((part) =>
    part.passes.flatMap((pass) => [
      ...("melt" in pass ? [pass.melt] : []),
      ...("others" in pass ? pass.others.map((of) => of.melt) : []),
    ]),
  );

export const lastMaterial = (piece: Schemas["Piece"]): string => meltsOf(piece).at(-1)?.material ?? "";

/** What may be set of passes, bodies and joins: it stays as it is. */
export const fieldsQuery = queryOptions({
  queryKey: ["passes"],
  queryFn: () => call(client.GET("/api/passes")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const nozzlesQuery = { ...fieldsQuery, select: (of: Schemas["PassKinds"]) => of.nozzles };
