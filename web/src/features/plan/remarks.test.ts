import { expect, it } from "vitest";
import type { Units } from "../../shared/format/units";
import { remarkWords } from "./remarks";

const UNITS: Units = { temperature: "C", mass: "g", length: "mm", volume: "ml" };
const CODES = [
  "due_in_past",
  "too_late",
  "window_never",
  "window_narrow",
  "pot_too_small",
  "never_sets",
  "bend_one_by_one",
  "stick_one_by_one",
  "chills_first",
  "sticky_room",
];

it("says every remark as a sentence with what to do, numbers from 1", () => {
  for (const code of CODES) {
    const words = remarkWords(
      { code, path: "", params: { cook: 0, round: 0, low_s: 90, needs_s: 4000, has_s: 60 } },
      UNITS,
    );
    expect(words).toMatch(/[.]$/);
    expect(words).not.toContain("undefined");
    expect(words).not.toContain("Cook 0");
  }
  expect(remarkWords({ code: "window_narrow", path: "", params: { cook: 1, low_s: 90 } }, UNITS)).toContain(
    "Cook 2: the pour window may be as short as 1:30",
  );
});
