import type { Schemas } from "../../api/client";
import { meltTone, toneOf } from "../../shared/tones";
import { FIELDS } from "./fieldWords";

export type Part = Schemas["Part"];
export type Pass = Part["passes"][number];
export type Kind = Pass["kind"];
export type Of<K extends Kind> = Extract<Pass, { kind: K }>;
export type KindShown = Schemas["PassKindShown"];
export type Way = NonNullable<KindShown["ways"][number]>;

export const KIND_NAMES: Record<Kind, string> = {
  dust: "Dust or sprinkles",
  detail: "Detail",
  shell: "Shell",
  stick: "Stick",
  centre: "Solid centre",
  filling: "Filling",
  close: "Close",
  fill: "Solid fill",
  turned: "Turned ball",
  paste: "Pressed paste",
  print: "Printed sheet or texture",
  drizzle: "Drizzle",
  dollop: "Dollops",
  cluster: "Cluster",
  dip: "Dip",
};

const WAY_NAMES: Record<Way, string> = {
  brushed: "Accent, brushed",
  splattered: "Accent, splattered",
  finger: "Accent, by finger",
  butter: "Coloured cocoa butter",
};

/** What a kind is offered as, laid as usual or in a way of its own. */
export const offeredAs = (kind: Kind, way: Way | null): string =>
  way === null ? KIND_NAMES[kind] : WAY_NAMES[way];

/** What a pass is called on the screens. */
export function passName(pass: Pass): string {
  if ("name" in pass) return pass.name;
  switch (pass.kind) {
    case "filling":
      return `${FIELDS.filling.filling.of[pass.filling]} filling`;
    case "paste":
      return FIELDS.paste.paste.of[pass.paste];
    case "shell":
      return pass.sides ? "Second coat, sides" : KIND_NAMES.shell;
    case "stick":
      return pass.use === "hole" ? "Skewer hole" : KIND_NAMES.stick;
    case "fill":
      return pass.second ? "Marbled fill" : KIND_NAMES.fill;
    case "dip":
      return pass.second ? "Marbled dip" : pass.line_m === null ? "Dip" : "Dip to a line";
    default:
      return KIND_NAMES[pass.kind];
  }
}

/** The tone a pass is drawn in; none of what has no area in a cut. */
export function passTone(pass: Pass): string | null {
  if ("melt" in pass) return meltTone(pass.melt);
  if ("paste" in pass) return toneOf(pass.paste);
  return "filling" in pass ? toneOf(pass.filling) : null;
}

/** A field of a pass by its name. */
export const valueOf = (pass: Pass, field: string): unknown =>
  Object.entries(pass).find(([k]) => k === field)?.[1];

export type Join = Schemas["Join"];
export type Body = NonNullable<Part["body"]>;

export const BODIES = [
  { key: "fruit", name: "Fruit" },
  { key: "cake", name: "Cake" },
  { key: "biscuit", name: "Biscuit" },
  { key: "ganache", name: "Ganache" },
  { key: "balloon", name: "Balloon" },
  { key: "steel", name: "Steel former" },
  { key: "glass", name: "Glass former" },
] as const satisfies { key: Body["made_of"]; name: string }[];
