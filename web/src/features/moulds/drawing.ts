import type { Schemas } from "../../api/client";
import { type Point, pointsOf } from "../../shared/points";
import { type Cavity, SHAPES } from "../../shared/shapes";
import { freshCavity, type Mould } from "./queries";

export type Drawing = Schemas["LinesShape"];
export type DrawnLine = Schemas["DrawnLine"];

/** A bead lies half round: so much wider than its opening, and than itself where another is piped on it. */
const ROOT_2 = Math.SQRT2;

/** How wide a line lies [m]. */
export const beadWide = (bore_m: number, twice: boolean): number => bore_m * ROOT_2 * (twice ? ROOT_2 : 1);

const FINE_M = 0.0003;

export const lineOf = (points: Point[], twice = false): DrawnLine => ({ points, twice });
export const pathOf = (line: DrawnLine): Point[] => pointsOf(line.points);

const far = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

export const lengthOf = (path: Point[]): number =>
  path.slice(1).reduce((sum, at, i) => sum + far(path[i] ?? at, at), 0);

/** The nearest place to a point on a stretch from a to b. */
function onto(at: Point, a: Point, b: Point): Point {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const long = dx * dx + dy * dy;
  const t = long === 0 ? 0 : Math.min(1, Math.max(0, ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / long));
  return [a[0] + t * dx, a[1] + t * dy];
}

/** A place on the nearest line, where one is so near; the place itself where none is. */
export function snapped(at: Point, lines: readonly DrawnLine[], within_m: number): Point {
  let [best, least] = [at, within_m];
  for (const line of lines) {
    const path = pathOf(line);
    for (const [i, b] of path.slice(1).entries()) {
      const found = onto(at, path[i] ?? b, b);
      const away = far(at, found);
      if (away < least) [best, least] = [found, away];
    }
  }
  return best;
}

/** A freehand line with no more points than it takes. */
export function simplified(path: Point[]): Point[] {
  const [first, last] = [path[0], path.at(-1)];
  if (path.length < 3 || !first || !last) return path;
  const aways = path.map((at) => far(at, onto(at, first, last)));
  const worst = Math.max(...aways);
  if (worst <= FINE_M) return [first, last];
  const at = aways.indexOf(worst);
  return [...simplified(path.slice(0, at + 1)).slice(0, -1), ...simplified(path.slice(at))];
}

export const movedBy = (path: Point[], dx: number, dy: number): Point[] =>
  path.map(([x, y]) => [x + dx, y + dy]);

/** A drawing to begin with. */
export function freshDrawing(name: string): Cavity {
  const cavity = freshCavity(name);
  return { ...cavity, shape: SHAPES.find(({ kind }) => kind === "lines")?.fresh ?? cavity.shape };
}

/** A mould made a drawing: lines are piped over it, on a film. */
export function toDrawing(moulds: Schemas["MouldChoice"][]): Partial<Mould> {
  const on = moulds.find((m) => m.key === "paper");
  return {
    sheet: null,
    mat: null,
    material: "paper",
    ...(on ? { bears_degc: on.bears_degc, wall_m: on.wall_m } : {}),
    cavities: [freshDrawing("Drawing")],
  };
}
