/** Steps that are round on a clock [s]. */
const STEPS_S = [30, 60, 120, 300, 600, 900, 1200, 1800, 3600, 7200];

/** How far apart the marks of a scale of time stand, so that there are no more than so many [s]. */
export const markEvery = (span_s: number, most: number): number =>
  STEPS_S.find((s) => span_s / s < most) ?? 14_400;

/** Marks so far apart up to an end, from 0 [s]. */
export const marksTo = (end_s: number, every_s: number): number[] =>
  Array.from({ length: Math.max(Math.floor(end_s / every_s) + 1, 0) }, (_, i) => i * every_s);
