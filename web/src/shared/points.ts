/** A point of a plane, across and up or along. */
export type Point = [number, number];

/** Points as the server tells them: a list of pairs. What is no pair is no point. */
export const pointsOf = (told: readonly (readonly number[])[]): Point[] =>
  told.flatMap(([a, b]): Point[] => (a === undefined || b === undefined ? [] : [[a, b]]));

/** Two series of one length as points. */
export const paired = (across: readonly number[], up: readonly number[]): Point[] =>
  pointsOf(across.map((a, i) => [a, ...up.slice(i, i + 1)]));

/** Least and most of some numbers: a span without end where there are none. */
export const spanOf = (values: readonly number[]): [number, number] => [
  Math.min(...values),
  Math.max(...values),
];

/** How far rings reach from their middle, across or up. */
export const farthest = (rings: readonly Point[][], at: 0 | 1): number =>
  Math.max(...rings.flat().map((p) => Math.abs(p[at])));

/** A closed ring as an SVG path. */
export const ringPath = (ring: Point[], x: (a: number) => number, y: (b: number) => number): string =>
  `M${ring.map(([a, b]) => `${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join("L")}Z`;
