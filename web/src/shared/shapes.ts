import type { Schemas } from "../api/client";
import type { Quantity } from "./format/units";

export type Shape = Schemas["Cavity"]["shape"];
export type ShapeKind = Shape["kind"];
export type Cavity = Schemas["Cavity"];

interface FieldOf {
  key: string;
  label: string;
  quantity: Quantity;
  step: number;
  digits?: number;
  /** May be left empty: the weight of water stands for it. */
  optional?: boolean;
}

const length = (key: string, label: string, step = 0.5): FieldOf => ({
  key,
  label,
  quantity: "length",
  step,
});
const depth = length("depth_m", "Depth");
const draft: FieldOf = {
  key: "draft_rad",
  label: "Draft, from upright",
  quantity: "angle",
  step: 1,
  digits: 1,
};
const edge = length("edge_m", "Edge radius at the floor");

/** What is measured of each shape, in the order it is asked. */
export const SHAPES: { kind: ShapeKind; name: string; fields: FieldOf[]; fresh: Shape }[] = [
  {
    kind: "round",
    name: "Round disc",
    fields: [
      { ...length("diameter_m", "Opening, diameter"), optional: true },
      { ...depth, optional: true },
      draft,
      edge,
    ],
    fresh: { kind: "round", diameter_m: 0.06, depth_m: 0.006, draft_rad: 0.0873, edge_m: 0 },
  },
  {
    kind: "bar",
    name: "Rectangle or bar",
    fields: [
      length("length_m", "Opening, length"),
      length("width_m", "Opening, width"),
      length("corner_m", "Corner radius"),
      depth,
      draft,
      edge,
    ],
    fresh: {
      kind: "bar",
      length_m: 0.08,
      width_m: 0.03,
      corner_m: 0.002,
      depth_m: 0.01,
      draft_rad: 0.0873,
      edge_m: 0,
    },
  },
  {
    kind: "half_ball",
    name: "Half ball",
    fields: [length("diameter_m", "Opening, diameter")],
    fresh: { kind: "half_ball", diameter_m: 0.04 },
  },
  {
    kind: "cap",
    name: "Spherical cap",
    fields: [length("diameter_m", "Opening, diameter"), depth],
    fresh: { kind: "cap", diameter_m: 0.05, depth_m: 0.012 },
  },
  {
    kind: "cone",
    name: "Cone frustum",
    fields: [length("diameter_m", "Opening, diameter"), length("floor_m", "Floor, diameter"), depth],
    fresh: { kind: "cone", diameter_m: 0.05, floor_m: 0.03, depth_m: 0.02 },
  },
  {
    kind: "ellipsoid",
    name: "Half ellipsoid",
    fields: [length("length_m", "Opening, length"), length("width_m", "Opening, width"), depth],
    fresh: { kind: "ellipsoid", length_m: 0.06, width_m: 0.04, depth_m: 0.015 },
  },
  {
    kind: "capsule",
    name: "Half capsule",
    fields: [length("length_m", "Opening, length"), length("width_m", "Opening, width")],
    fresh: { kind: "capsule", length_m: 0.06, width_m: 0.025 },
  },
  {
    kind: "heart",
    name: "Heart",
    fields: [length("width_m", "Opening, width"), depth, draft, edge],
    fresh: { kind: "heart", width_m: 0.045, depth_m: 0.008, draft_rad: 0.0873, edge_m: 0.001 },
  },
  {
    kind: "star",
    name: "Star",
    fields: [
      length("diameter_m", "Through the tips"),
      { key: "tips", label: "Tips", quantity: "count", step: 1 },
      { key: "inner_frac", label: "Notches, of the tips", quantity: "share", step: 1, digits: 0 },
      depth,
      draft,
      edge,
    ],
    fresh: {
      kind: "star",
      diameter_m: 0.05,
      tips: 5,
      inner_frac: 0.5,
      depth_m: 0.008,
      draft_rad: 0.0873,
      edge_m: 0.001,
    },
  },
  {
    kind: "lines",
    name: "Drawing, lines piped over it",
    fields: [],
    fresh: {
      kind: "lines",
      bore_m: 0.003,
      lines: [
        {
          points: [
            [-0.03, 0],
            [0.03, 0],
          ],
          twice: false,
        },
      ],
    },
  },
  {
    kind: "outline",
    name: "Drawn or imported",
    fields: [depth, draft, edge],
    fresh: {
      kind: "outline",
      corners: [
        [0.02, 0],
        [0, 0.03],
        [-0.02, 0],
        [0, -0.03],
      ],
      depth_m: 0.006,
      draft_rad: 0.0873,
      edge_m: 0,
    },
  },
];

export const shapeName = (kind: ShapeKind) => SHAPES.find((s) => s.kind === kind)?.name ?? kind;
