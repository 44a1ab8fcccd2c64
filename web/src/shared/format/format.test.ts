import { describe, expect, it } from "vitest";
import { amount, clock, duration, inUnit, shownIn, toShown, toSi, type Units, weighed } from "./units";
import { wordProblem } from "./words";
import { fromLocalField, otherMoment, timeOfDay, timesMeant, toLocalField } from "./zone";

const METRIC: Units = { temperature: "C", mass: "g", length: "mm", volume: "ml" };
const OTHER: Units = { temperature: "F", mass: "oz", length: "in", volume: "cup" };
const plain = (text: string) => text.replaceAll("\u00a0", " ");

describe("units", () => {
  it("show SI in what the user chose", () => {
    expect(plain(amount(160, "temperature", METRIC))).toBe("160 °C");
    // 160 C is 320 F, an ounce is 28.349523125 g, an inch 25.4 mm: exact by definition
    expect(plain(amount(160, "temperature", OTHER))).toBe("320 °F");
    expect(plain(amount(0.028349523125, "mass", OTHER))).toBe("1.00 oz");
    expect(plain(amount(0.0254, "length", OTHER))).toBe("1.00 in");
    expect(plain(amount(0.00025, "volume", OTHER))).toBe("1.000 cups");
    expect(plain(inUnit(0.0123, "kg", METRIC))).toBe("12.3 g");
  });
  it("lead back to the same SI value", () => {
    for (const quantity of ["temperature", "mass", "length", "volume"] as const)
      for (const units of [METRIC, OTHER]) {
        const s = shownIn(quantity, units);
        expect(toSi(toShown(0.0371, s), s)).toBeCloseTo(0.0371, 12);
      }
  });
  it("count time in minutes and hours", () => {
    expect([duration(77), duration(3725), clock(-3), clock(59.9), clock(3660)]).toEqual([
      "1:17",
      "1 h 02",
      "0:00",
      "0:59",
      "1 h 01",
    ]);
  });
});

describe("zone", () => {
  it("keeps a typed time across summer time", () => {
    for (const zone of ["Europe/London", "America/New_York", "Asia/Kolkata"])
      for (const text of ["2026-03-29T20:00", "2026-07-01T08:30", "2026-11-01T23:15"]) {
        const moment = fromLocalField(text, zone);
        expect(moment && toLocalField(moment, zone)).toBe(text);
      }
    expect(timeOfDay(new Date("2026-07-01T12:00:00Z"), "Europe/London")).toBe("13:00");
    expect(fromLocalField("", "Europe/London")).toBeNull();
  });
});

describe("words", () => {
  it("say what, the limit and what to do, in the user's units", () => {
    const problem = {
      status: 422,
      code: "out_of_range",
      title: "the fill stands above the rim",
      path: "fill_m",
      got: 0.0127,
      limits: { low: 0.0002, high: 0.0061 },
      params: {},
    };
    expect(plain(wordProblem(problem, OTHER))).toBe(
      "Fill level: 0.50 in cannot be. It must be from 0.01 in to 0.24 in. The fill stands above the rim.",
    );
    const gone = {
      ...problem,
      title: "this is not in the kitchen any more",
      path: "ways.caramel.vessel_id",
      limits: {},
    };
    expect(wordProblem(gone, METRIC)).toBe("Pot or bowl: this is not in the kitchen any more.");
    expect(wordProblem({ ...problem, code: "unreachable" }, METRIC)).toContain("nothing you typed is lost");
  });
});

describe("weights to be weighed out", () => {
  it("never fall short of what is needed", () => {
    for (let kg = 0.0005; kg < 1.2; kg *= 1.13) {
      for (const units of [METRIC, OTHER]) {
        const s = shownIn("mass", units);
        const shown = Number.parseFloat(weighed(kg, units));
        expect(toSi(shown, s)).toBeGreaterThanOrEqual(kg - 1e-9);
        expect(toSi(shown, s) - kg).toBeLessThan(0.03);
      }
    }
    expect(plain(weighed(0.0203, METRIC))).toBe("21 g");
    expect(plain(weighed(0.02, METRIC))).toBe("20 g");
  });
});

describe("due times in the hour that summer time skips or repeats", () => {
  it("are asked about", () => {
    // Europe/London: 2027-03-28 01:00 becomes 02:00; 2026-10-25 02:00 becomes 01:00
    expect(timesMeant("2027-03-28T01:30", "Europe/London")).toBe("never");
    expect(timesMeant("2026-10-25T01:30", "Europe/London")).toBe("twice");
    expect(timesMeant("2026-10-25T12:00", "Europe/London")).toBe("once");
    const one = fromLocalField("2026-10-25T01:30", "Europe/London");
    const other = otherMoment("2026-10-25T01:30", "Europe/London");
    expect(Math.abs(Number(one) - Number(other))).toBe(3_600_000);
  });
});
