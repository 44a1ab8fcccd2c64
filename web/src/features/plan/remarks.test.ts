import { expect, it } from "vitest";
import type { Units } from "../../shared/format/units";
import { remarkWords } from "./remarks";

const UNITS: Units = { temperature: "C", mass: "g", length: "mm", volume: "ml" };

it("counts cooks and rounds from 1, and says when a window may not be there at all", () => {
  const narrow = (low_s: number) => remarkWords({ code: "window_narrow", cook: 1, low_s }, UNITS, {});
  expect(narrow(90)).toContain("Cook 2: the pour window may be as short as 1:30");
  expect(narrow(0)).toContain("Cook 2: at worst the bubbles are not out");
  expect(remarkWords({ code: "one_by_one", round: 0, work: "sprinkle" }, UNITS, {})).toContain(
    "Round 1: not even one",
  );
});
