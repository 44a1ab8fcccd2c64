import type { Schemas } from "../../api/client";
import { fieldOf, type KindShown, type Pass } from "./passes";
import { PASSES, wordsOf } from "./passWords";

type Row = Schemas["PassRow"];

/** The edge of a pass that can be dragged: its height over the floor, how it leans in this cut, its name; none of what has none. */
export function edgeOf(pass: Pass, kind: KindShown, row: Row, depth: number, cut: number) {
  const edge = kind.edge;
  if (!edge || (edge.unless && fieldOf(pass, edge.unless) === true)) return null;
  const value = fieldOf(pass, edge.field);
  const told = typeof value === "number" ? value : null;
  const heights = {
    level: Math.min(told ?? depth, depth),
    gap: told === null ? row.to_m : depth - told,
    layer: row.from_m + (told ?? row.thick_m),
  };
  const slant = edge.slant ? fieldOf(pass, edge.slant) : 0;
  return {
    height_m: heights[edge.at],
    level: edge.at !== "layer",
    slope: typeof slant === "number" ? Math.tan(slant) * Math.cos((cut * Math.PI) / 2) : 0,
    name: PASSES[pass.kind].edge ?? String(wordsOf(pass.kind, edge.field)),
  };
}

/** A pass with its edge dragged to a height over the floor. */
export function withEdge(pass: Pass, kind: KindShown, row: Row, height: number, depth: number): Pass {
  const edge = kind.edge;
  const field = kind.fields.find((of) => of.name === edge?.field);
  if (!edge || !field?.number) return pass;
  const least = Math.max(field.number.low, field.number.slides?.low ?? field.number.low);
  const to = { level: Math.min(height, depth), gap: depth - height, layer: height - row.from_m }[edge.at];
  const value = edge.whole && height >= depth ? null : Math.round(Math.max(to, least) * 1e6) / 1e6;
  return {
    ...pass,
    [edge.field]: value,
    ...(field.told?.instead ? { [field.told.instead]: null } : {}),
  } as Pass;
}
