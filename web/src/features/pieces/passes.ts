import type { Schemas } from "../../api/client";
import { meltTone, toneOf } from "../../shared/tones";

export type Part = Schemas["Part"];
export type Pass = Part["passes"][number];
export type Kind = Pass["kind"];
export type Of<K extends Kind> = Extract<Pass, { kind: K }>;

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

/** What may be added to a part, cast in a mould or made on a body: kinds, and ways of laying a detail. */
interface Addition {
  key: string;
  name: string;
  kind: Kind;
  on: "mould" | "body" | "both";
  patch?: Partial<Of<"detail">>;
}
const kind = (key: Kind, on: Addition["on"] = "mould"): Addition => ({
  key,
  name: KIND_NAMES[key],
  kind: key,
  on,
});
export const ADDITIONS: Addition[] = [
  kind("dip", "body"),
  kind("dust", "both"),
  kind("print"),
  kind("detail"),
  {
    key: "brushed",
    name: "Accent, brushed",
    kind: "detail",
    on: "mould",
    patch: { name: "Brushed accent", share_frac: 0.3, thick_m: 0.0002 },
  },
  {
    key: "splattered",
    name: "Accent, splattered",
    kind: "detail",
    on: "mould",
    patch: { name: "Splatter", share_frac: 0.15, thick_m: 0.0003 },
  },
  {
    key: "finger",
    name: "Accent, by finger",
    kind: "detail",
    on: "mould",
    patch: { name: "Finger smear", share_frac: 0.1, thick_m: 0.0005 },
  },
  {
    key: "butter",
    name: "Coloured cocoa butter",
    kind: "detail",
    on: "mould",
    patch: {
      name: "Cocoa butter",
      share_frac: 1,
      thick_m: 0.0001,
      melt: { material: "cocoa_butter", colour: null },
    },
  },
  kind("shell"),
  kind("stick", "both"),
  kind("centre"),
  kind("filling"),
  kind("paste"),
  kind("fill"),
  kind("turned"),
  kind("close"),
  kind("cluster"),
  kind("drizzle", "both"),
  kind("dollop", "both"),
];

/** What a pass is called on the screens. */
export function passName(pass: Pass): string {
  if ("name" in pass) return pass.name;
  if (pass.kind === "filling") return `${FILLINGS.find((f) => f.key === pass.filling)?.name} filling`;
  if (pass.kind === "shell" && pass.sides) return "Second coat, sides";
  if (pass.kind === "stick" && pass.taken_out) return "Skewer hole";
  if (pass.kind === "fill" && pass.second) return "Marbled fill";
  if (pass.kind === "paste") return PASTES.find((p) => p.key === pass.paste)?.name ?? "Paste";
  if (pass.kind === "dip")
    return pass.second ? "Marbled dip" : pass.line_m === null ? "Dip" : "Dip to a line";
  return KIND_NAMES[pass.kind];
}

export const FILLINGS = [
  { key: "cake", name: "Cake" },
  { key: "ganache", name: "Ganache" },
  { key: "cream", name: "Cream" },
  { key: "fruit", name: "Fruit" },
] as const;

export const PASTES = [
  { key: "fondant", name: "Fondant" },
  { key: "gum_paste", name: "Gum paste" },
  { key: "modelling_chocolate", name: "Modelling chocolate" },
] as const;

export const BODIES = [
  { key: "fruit", name: "Fruit" },
  { key: "cake", name: "Cake" },
  { key: "biscuit", name: "Biscuit" },
  { key: "ganache", name: "Ganache" },
  { key: "balloon", name: "Balloon" },
  { key: "steel", name: "Steel former" },
  { key: "glass", name: "Glass former" },
] as const;

/** The tone a pass is drawn in; none of what has no area in a cut. */
export function passTone(pass: Pass): string | null {
  if ("melt" in pass) return meltTone(pass.melt);
  if (pass.kind === "paste") return toneOf(pass.paste);
  return pass.kind === "filling" ? toneOf(pass.filling) : null;
}

type Melt = Schemas["MeltRef"];
const ROOM_DEGC = 20;
/** A first guess of how long a mould stands full; what it brings is shown beside it. */
const DWELL_S = 20;

/** A pass of a kind as it is first put into a build. */
export function firstPass(kind: Kind, melt: Melt, depth_m: number): Pass {
  const fresh: { [K in Kind]: Of<K> } = {
    dust: { kind: "dust", name: "Sprinkles", kg: 0.0005, on_wet: true },
    detail: { kind: "detail", name: "Detail", melt, share_frac: 0.1, thick_m: 0.001, outline: null },
    shell: { kind: "shell", melt, thick_m: 0.0015, emptied: false, sides: false, dwell_s: DWELL_S },
    stick: { kind: "stick", diameter_m: 0.004, inside_m: 0.03, taken_out: false, reseated: false },
    centre: { kind: "centre", name: "Nut", kg: 0.001, volume_m3: 1e-6 },
    filling: {
      kind: "filling",
      filling: "cake",
      gap_m: Math.min(0.002, depth_m / 3),
      kg: null,
      degc: ROOM_DEGC,
      loss_frac: 0.05,
    },
    close: { kind: "close", melt },
    fill: { kind: "fill", melt, level_m: depth_m, second: null, second_frac: 0 },
    turned: { kind: "turned", melt, ball_kg: 0.113, whole: true },
    paste: { kind: "paste", paste: "fondant", kg: 0.005 },
    print: { kind: "print", name: "Printed sheet", on_wet: false },
    drizzle: { kind: "drizzle", melt, length_m: 0.3, bore_m: 0.0015 },
    dollop: { kind: "dollop", melt, count: 3, diameter_m: 0.012 },
    cluster: { kind: "cluster", name: "Nuts", melt, inside_kg: 0.01, melt_frac: 0.35 },
    dip: {
      kind: "dip",
      melt,
      line_m: null,
      slant_rad: 0,
      thick_m: null,
      second: null,
      second_frac: 0,
    },
  };
  return fresh[kind];
}

export type Join = Schemas["Join"];

/** A first join: of halves along their rim, of panels along their sides; more than two are held by props. */
export const firstJoin = (count: number, melt: Melt): Join => ({
  part: 0,
  to: 0,
  by: "melt",
  melt,
  count: count > 2 ? count : 1,
  seam_m: 0.1,
  dots: 0,
  bead_m: 0.004,
  gap_m: 0,
  deep_m: 0,
  props: count > 2 ? 2 : 0,
});

export type Body = NonNullable<Part["body"]>;
export const FRUIT: Body = {
  name: "Strawberry",
  made_of: "fruit",
  shape: "cone",
  diameter_m: 0.034,
  high_m: 0.042,
  degc: ROOM_DEGC,
  tray: 20,
};

/** Ways of casting to start from: the kinds of their passes, in order. */
export interface Path {
  key: string;
  name: string;
  note: string;
  kinds: Kind[];
  material: string;
  body?: Body;
  count?: number;
  bent?: boolean;
  released?: boolean;
  joined?: boolean;
}
export const PATHS: Path[] = [
  {
    key: "solid",
    name: "Solid cast",
    note: "a mould, filled to a level",
    kinds: ["fill"],
    material: "isomalt",
  },
  {
    key: "motif",
    name: "Solid motif with details",
    note: "smallest details first, the body over all",
    kinds: ["detail", "detail", "fill"],
    material: "coating",
  },
  {
    key: "lollipop",
    name: "Lollipop",
    note: "the stick goes into the soft cast",
    kinds: ["fill", "stick"],
    material: "coating",
  },
  {
    key: "pop",
    name: "Cake pop on a stick",
    note: "cap, shell, stick, filling, close",
    kinds: ["detail", "shell", "stick", "filling", "close"],
    material: "coating",
  },
  {
    key: "shell",
    name: "Filled shell",
    note: "accent, shell tipped out, filling, close",
    kinds: ["detail", "shell", "filling", "close"],
    material: "dark",
  },
  {
    key: "ball",
    name: "Hollow ball, whole",
    note: "clipped in its two-part mould, turned",
    kinds: ["turned"],
    material: "coating",
  },
  {
    key: "panels",
    name: "Panels, put together",
    note: "more panels than a mould holds; beads between them, props",
    kinds: ["fill"],
    material: "isomalt",
    count: 8,
    joined: true,
  },
  {
    key: "leaf",
    name: "Leaf or bow from a textured mat",
    note: "poured thin, released warm, bent on a form",
    kinds: ["fill"],
    material: "isomalt",
    bent: true,
    released: true,
  },
  {
    key: "fruit",
    name: "Dipped fruit",
    note: "to a line, drizzled",
    kinds: ["dip", "drizzle"],
    material: "coating",
    body: FRUIT,
  },
  {
    key: "former",
    name: "Dipped former",
    note: "a balloon or form, taken out again",
    kinds: ["dip", "dip"],
    material: "coating",
    body: {
      name: "Balloon",
      made_of: "balloon",
      shape: "ball",
      diameter_m: 0.08,
      high_m: 0.09,
      degc: ROOM_DEGC,
      tray: 8,
    },
  },
  {
    key: "cluster",
    name: "Cluster or dollop on a mat",
    note: "nuts bound by melt, sprinkled while wet",
    kinds: ["cluster", "dust"],
    material: "dark",
  },
  {
    key: "pressed",
    name: "Pressed paste",
    note: "fondant, gum paste, modelling chocolate",
    kinds: ["paste"],
    material: "coating",
  },
];

/** Where the edge of a pass stands that can be dragged, over the floor [m]; none of what has none. */
export function edgeOf(pass: Pass, row: Schemas["PassRow"], depth: number): number | null {
  if (pass.kind === "fill") return Math.min(pass.level_m, depth);
  if (pass.kind === "dip") return Math.min(pass.line_m ?? depth, depth);
  if (pass.kind === "filling") return pass.gap_m !== null && pass.kg === null ? depth - pass.gap_m : row.to_m;
  if ((pass.kind === "shell" && !pass.sides) || pass.kind === "detail") return row.from_m + pass.thick_m;
  return null;
}

/** A pass with its edge dragged to a height over the floor. */
export function withEdge(pass: Pass, row: Schemas["PassRow"], height: number, depth: number): Pass {
  const to = (v: number) => Math.round(v * 1e6) / 1e6;
  switch (pass.kind) {
    case "fill":
      return { ...pass, level_m: to(Math.min(Math.max(height, 0.0002), depth)) };
    case "dip":
      return { ...pass, line_m: height >= depth ? null : to(Math.max(height, 0.001)) };
    case "filling":
      return { ...pass, kg: null, gap_m: to(Math.max(depth - height, 0)) };
    case "shell":
    case "detail":
      return { ...pass, thick_m: to(Math.max(height - row.from_m, 0.0002)) };
    default:
      return pass;
  }
}
