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
  turned: "Turned half ball",
};

/** What a pass is called on the screens. */
export function passName(pass: Pass): string {
  if (pass.kind === "detail" || pass.kind === "dust" || pass.kind === "centre") return pass.name;
  if (pass.kind === "filling") return `${FILLINGS.find((f) => f.key === pass.filling)?.name} filling`;
  if (pass.kind === "shell" && pass.sides) return "Second coat, sides";
  if (pass.kind === "stick" && pass.taken_out) return "Skewer hole";
  if (pass.kind === "fill" && pass.second) return "Marbled fill";
  return KIND_NAMES[pass.kind];
}

export const FILLINGS = [
  { key: "cake", name: "Cake" },
  { key: "ganache", name: "Ganache" },
  { key: "fruit", name: "Fruit" },
] as const;

/** The tone a pass is drawn in; none of what has no area in a cut. */
export function passTone(pass: Pass): string | null {
  if ("melt" in pass) return meltTone(pass.melt);
  return pass.kind === "filling" ? toneOf(pass.filling) : null;
}

type Melt = Schemas["MeltRef"];
const ROOM_DEGC = 20;

/** A pass of a kind as it is first put into a build. */
export function firstPass(kind: Kind, melt: Melt, depth_m: number): Pass {
  const fresh: { [K in Kind]: Of<K> } = {
    dust: { kind: "dust", name: "Sprinkles", kg: 0.0005, on_wet: true },
    detail: { kind: "detail", name: "Detail", melt, share_frac: 0.1, thick_m: 0.001 },
    shell: { kind: "shell", melt, thick_m: 0.0015, emptied: false, sides: false },
    stick: { kind: "stick", diameter_m: 0.004, inside_m: 0.03, taken_out: false },
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
    turned: { kind: "turned", melt, ball_kg: 0.1 },
  };
  return fresh[kind];
}

/** Ways of casting to start from: the kinds of their passes, in order. */
export const PATHS: { key: string; name: string; note: string; kinds: Kind[]; material: string }[] = [
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
    name: "Hollow ball, two halves",
    note: "its weight turned over the wall",
    kinds: ["turned"],
    material: "coating",
  },
];

/** Which place in a build a kind belongs to, lowest first. */
const RANK: Record<Kind, number> = {
  dust: 0,
  detail: 1,
  shell: 2,
  turned: 2,
  stick: 3,
  centre: 4,
  filling: 5,
  fill: 6,
  close: 7,
};

/** The passes in the usual order: dust, details from the smallest, shell, stick, filling, close; what goes on wet melt stays by it. */
export function inUsualOrder(passes: Pass[]): Pass[] {
  const rank = (pass: Pass) =>
    pass.kind === "dust" && pass.on_wet
      ? 8
      : pass.kind === "stick" && passes.some((p) => p.kind === "fill")
        ? 6.5
        : RANK[pass.kind];
  const size = (pass: Pass) => (pass.kind === "detail" ? pass.share_frac : 0);
  return [...passes].sort((a, b) => rank(a) - rank(b) || size(a) - size(b));
}

/** Where the edge of a pass stands that can be dragged, over the floor [m]; none of what has none. */
export function edgeOf(pass: Pass, row: Schemas["PassRow"], depth: number): number | null {
  if (pass.kind === "fill") return Math.min(pass.level_m, depth);
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
    case "filling":
      return { ...pass, kg: null, gap_m: to(Math.max(depth - height, 0)) };
    case "shell":
    case "detail":
      return { ...pass, thick_m: to(Math.max(height - row.from_m, 0.0002)) };
    default:
      return pass;
  }
}
