import { expect, it } from "vitest";
import type { Units } from "../../shared/format/units";
import { remarkWords } from "./remarks";

const UNITS: Units = { temperature: "C", mass: "g", length: "mm", volume: "ml" };

it("names what is poured, and says when a window may not be there at all", () => {
  const named = { piece: "Comet", part: "tail", step: "" };
  const narrow = (low_s: number) => remarkWords({ code: "window_narrow", named, low_s }, UNITS, {});
  expect(narrow(90)).toContain("Comet, tail: the pour window may be as short as 1:30");
  expect(narrow(0)).toContain("Comet, tail: at worst the bubbles are not out");
  const lost = (kept_frac: number) =>
    remarkWords(
      { code: "easily_lost", kind: "sprinkle", named, kept_frac, room_s: 3, by_slip: false },
      UNITS,
      {},
    );
  expect(lost(0.71)).toContain("Comet, tail: “put on” is in time on 7 days of 10 only, with 0:03 to spare");
  expect(lost(0.946)).toContain("19 days of 20");
  expect(remarkWords({ code: "one_by_one", named, work: "sprinkle" }, UNITS, {})).toContain(
    "Comet, tail: not even one",
  );
});
