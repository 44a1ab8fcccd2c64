import { describe, expect, it } from "vitest";
import type { Explored } from "./queries";
import { difference, minutes, type Risk, takeWords } from "./words";

const at = (s: number) => ({ low: s, likely: s, high: s });
const way = (name: string, unmould: number, more: Partial<Explored> = {}) => ({
  name,
  of: {
    windows: { unmould: at(unmould) },
    never: [],
    risks: [],
    sweat: null,
    on_first: null,
    horizon_s: 10800,
    ...more,
  } as unknown as Explored,
});

describe("the difference between ways", () => {
  it("is told in minutes, with what comes after", () => {
    const sweat = { sweats_s: 360, dry_s: 600, water_kg_m2: 0.001, dew_degc: 12 };
    const crack: Risk = { kind: "chills", level: "some", from_s: 300, out_s: 600, sources: [] };
    expect(difference([way("Freezer", 540, { sweat, risks: [crack] }), way("Fridge", 1080)])).toBe(
      "Freezer 9 min, Fridge 18 min; the freezer way sweats for 6 min after; the freezer way may crack",
    );
  });
  it("says what never sets, and what a pass does to the first", () => {
    const does = {
      verdict: "dissolves" as const,
      melts_frac: 0.3,
      top_set_frac: 0.4,
      top_degc: 33,
      pour_below_degc: 45,
    };
    expect(
      difference([
        way("Bench top", 10800, {
          never: ["unmould"],
          on_first: { does, rest_s: null, vessel: "", melt_kg: 0.2 },
        }),
      ]),
    ).toBe("Bench top: does not set in 180 min; it melts the first pass");
  });
});

describe("what a piece takes", () => {
  const words = (opens: number | null, closes: number | null) =>
    takeWords(
      {
        what: "",
        opens: opens === null ? null : at(opens),
        closes: closes === null ? null : at(closes),
        limited_by: "heat",
      },
      10800,
    );
  it("has a beginning, an end, both, or is not to be had", () => {
    expect(words(null, 300)).toBe("until 5:00");
    expect(words(60, null)).toBe("from 1:00");
    expect(words(60, 120)).toBe("1:00 to 2:00");
    expect(words(60, 62)).toBe("hardly at all");
    expect(words(10800, null)).toBe("not here");
    expect([minutes(42), minutes(90), minutes(1085)]).toEqual(["42 s", "1.5 min", "18 min"]);
  });
});
