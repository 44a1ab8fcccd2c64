import { describe, expect, it } from "vitest";
import type { Act, View, What } from "./acts";
import { actShort, actWords } from "./actWords";
import { curveAt } from "./curve";
import type { Units } from "./format/units";
import type { Wording } from "./wording";

const UNITS: Units = { temperature: "C", mass: "g", length: "mm", volume: "ml" };
const view = {
  name: "Night",
  lines: [{ piece: "Disc", part: "", step: "" }],
  places: { fridge: "Fridge" },
} as unknown as View;
const MELTS: Record<Wording, Act["melt"]> = {
  sugar: { key: "isomalt", called: "isomalt", raw: "isomalt", wording: "sugar", colour: null },
  fat: { key: "coating", called: "coating", raw: "coating", wording: "fat", colour: null },
};
const act = (what: Act["what"], sure = true, melt: Wording = "sugar"): Act => ({
  what,
  subject: { of: "round", number: 0 },
  tells: null,
  opens_s: 0,
  closes_s: null,
  sure,
  forecast: false,
  melt: MELTS[melt],
  colours: null,
  into: null,
  kept: null,
  who: "",
});
const WEIGH: What<"heat"> = {
  kind: "heat",
  fresh_kg: 0.2,
  water_kg: 0.02,
  seed_kg: 0,
  cook_degc: 160,
  hob_s: 190,
  casts: 14,
  lines: [0],
  bursts: null,
  shaken: false,
  wash: null,
};
const POUR: What<"pour"> = {
  kind: "pour",
  line: 0,
  casts: 14,
  laid: "fill",
  filled: 0,
  left_kg: 1,
  each_kg: 0.01,
  stays_kg: 0.01,
  fill_m: 0.005,
  thick_m: 0.005,
  pour_s: 140,
  habits: [],
  limited_by: "bubbles",
  bubble_m: 0.0004,
  readings: 1,
  unswirled: false,
  rests_to_degc: null,
  turning: null,
  dip: null,
  dab: null,
  sheet: null,
  piped: null,
  laid_by: "piped",
};
const plain = (text: string) => text.replaceAll("\u00a0", " ");

describe("acts in words", () => {
  it("say weights and heat in the user's units", () => {
    expect(plain(actWords(act(WEIGH), view, UNITS).title)).toBe("Weigh 200 g isomalt, put it on");
    expect(plain(actWords(act(WEIGH), view, { ...UNITS, mass: "oz" }).title)).toBe(
      "Weigh 7.06 oz isomalt, put it on",
    );
    expect(plain(actWords(act(WEIGH), view, UNITS).detail.join(" "))).toContain("Add 20 g water");
  });
  it("ask for a swirl after an unswirled reading, and for a reading where none was taken", () => {
    const said = (readings: number, unswirled: boolean, sure: boolean) =>
      actWords(act({ ...POUR, readings, unswirled }, sure), view, UNITS).detail.join(" ");
    expect(said(1, true, true)).toContain("swirl it and read again");
    expect(said(0, false, false)).toContain("take a reading");
    expect(said(0, false, true)).not.toContain("roughly");
  });
  it("say what is short, and how many it is enough for", () => {
    const short = actWords(act({ ...POUR, left_kg: 0.095 }), view, UNITS).detail.join(" ");
    expect(plain(short)).toContain("Only 95 g to pour: enough for 9.");
  });
  it("speak of a bowl and its bursts when it is coating", () => {
    const bursts = { seconds: [30, 10, 10, 10], power_frac: 1 };
    const heat = act({ ...WEIGH, fresh_kg: 0.17, bursts }, true, "fat");
    const words = actWords(heat, view, UNITS);
    expect(plain(words.title)).toBe("Weigh 170 g coating, melt it");
    expect(words.detail[0]).toBe(
      "Full power: 30 s, then 3 × 10 s, likely, stirring and looking after each. No metal.",
    );
    expect(actShort(heat, view)).toBe("Melt the coating");
  });
  it("say what is cleaned before it is weighed, and where it stands off the heat", () => {
    const said = (soaks_s: number, melt: "fat" | "sugar", other_colour: boolean) =>
      actWords(
        act({ ...WEIGH, wash: { called: "caramel", other_colour, soaks_s, lasts_s: 60 } }, true, melt),
        view,
        UNITS,
      ).detail[0];
    expect(said(0, "fat", true)).toBe(
      "First wipe the bowl out with paper, no water: another colour was in it.",
    );
    expect(plain(said(900, "sugar", false) ?? "")).toContain(
      "First clean the pot: caramel was in it. Hot water in it for 15:00",
    );
    const off: What<"off"> = { kind: "off", cook_degc: 43, shaken: false };
    const kept = { name: "Warm water", kind: "bath" as const, degc: 38 };
    const into = actWords({ ...act(off, true, "fat"), kept }, view, UNITS).detail.at(-1) ?? "";
    expect(plain(into)).toContain("Then into “Warm water”, 38 °C");
    expect(into).toContain("one drop");
    expect(actWords({ ...act(off, true, "fat"), kept: null }, view, UNITS).detail.join()).not.toContain(
      "Then",
    );
  });
  it("name places, and count one as one", () => {
    const move = act({ kind: "move", line: 0, casts: 14, place: "fridge", slid_out: false });
    expect(actWords(move, view, UNITS).title).toBe("To the fridge");
    expect(actWords(act({ ...POUR, casts: 1 }), view, UNITS).title).toBe("Pour 1 cavity");
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
