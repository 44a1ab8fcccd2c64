import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { actShort, actWords } from "./actWords";
import { curveAt } from "./curve";
import type { Units } from "./format/units";

const UNITS: Units = { temperature: "C", mass: "g", length: "mm", volume: "ml" };
const view = {
  name: "Night",
  line_names: ["Disc"],
  places: { fridge: "Fridge" },
  last_method: { "pot:0": "infrared" },
} as unknown as Schemas["BenchView"];
const act = (kind: string, params: Record<string, unknown> = {}, sure = true): Schemas["ActView"] => ({
  kind,
  subject: "round:0",
  tells: null,
  opens_s: 0,
  closes_s: null,
  sure,
  params: { casts: 14, line: 0, cook: 0, ...params } as never,
  forecast: false,
});
const plain = (text: string) => text.replaceAll("\u00a0", " ");

describe("acts in words", () => {
  it("have a title and a button for every kind", () => {
    for (const kind of [
      "acknowledge",
      "heat",
      "off",
      "warm",
      "read",
      "pour",
      "bend",
      "stick",
      "move",
      "unmould",
      "outcomes",
      "again",
      "resume",
      "end",
    ]) {
      const words = actWords(act(kind), view, UNITS);
      expect(words.title.length).toBeGreaterThan(5);
      expect(words.button.length).toBeGreaterThan(2);
      expect(actShort(act(kind), view)).not.toBe(kind);
    }
  });
  it("say weights and heat in the user's units", () => {
    const heat = act("heat", { fresh_kg: 0.2, water_kg: 0.02, cook_degc: 160, hob_s: 190 });
    expect(plain(actWords(heat, view, UNITS).title)).toBe("Weigh 200 g isomalt, put it on");
    expect(plain(actWords(heat, view, { ...UNITS, mass: "oz" }).title)).toBe(
      "Weigh 7.06 oz isomalt, put it on",
    );
    expect(plain(actWords(heat, view, UNITS).detail.join(" "))).toContain("Add 20 g water");
  });
  it("ask for a swirl after an unswirled reading, and for a reading where none was taken", () => {
    const said = (readings: number, sure: boolean) =>
      actWords(act("pour", { readings }, sure), view, UNITS).detail.join(" ");
    expect(said(1, true)).toContain("swirl it and read again");
    expect(said(0, false)).toContain("take a reading");
    expect(said(0, true)).not.toContain("roughly");
  });
  it("speak of a bowl and its bursts when it is coating", () => {
    const heat = act("heat", {
      melt: "coating",
      fresh_kg: 0.17,
      bursts_s: [30, 10, 10, 10],
      cook_degc: 43,
      hob_s: 111,
    });
    const words = actWords(heat, view, UNITS);
    expect(plain(words.title)).toBe("Weigh 170 g coating, melt it");
    expect(words.detail[0]).toBe(
      "Full power: 30 s, then 3 × 10 s, likely, stirring and looking after each. No metal.",
    );
    expect(actWords(act("move", { place: "fridge" }), view, UNITS).title).toBe("To the fridge");
  });
  it("count one as one", () => {
    expect(actWords(act("pour", { casts: 1 }), view, UNITS).title).toBe("Pour 1 cavity");
  });
});

describe("a curve", () => {
  const curve = { times_s: [0, 10, 20], low_degc: [], likely_degc: [100, 80, 70], high_degc: [] };
  it("is straight between its points and holds its ends", () => {
    expect([-5, 0, 5, 15, 20, 99].map((s) => curveAt(curve, curve.likely_degc, s))).toEqual([
      100, 100, 90, 75, 70, 70,
    ]);
    expect(curveAt({ ...curve, times_s: [] }, [], 3)).toBeNull();
  });
});
