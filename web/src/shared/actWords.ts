import type { Schemas } from "../api/client";
import { amount, duration, type Units } from "./format/units";

type Act = Schemas["ActView"];
type View = Schemas["BenchView"];

export interface ActWords {
  title: string;
  detail: string[];
  button: string;
  /** What the countdown says before the act may be done, while it may, and after. */
  before: string;
  during: string;
}

const plural = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

const LIMITS: Record<string, string> = {
  bubbles: "bubbles still rising",
  boiling: "still boils",
  mould: "too hot for the mould",
};

export function actWords(act: Act, view: View, units: Units): ActWords {
  const p = act.params as Record<string, number>;
  const piece = view.line_names[p.line ?? 0] ?? "";
  const name = piece.toLowerCase();
  const casts = p.casts ?? 0;
  const look = act.kind === "bend" ? "try one first." : "pour when you see no bubbles.";
  const unsure = act.sure
    ? []
    : [
        p.readings === 0
          ? "Known only roughly: swirl and take a reading, it moves the window."
          : `Known only roughly: ${look}`,
      ];
  const method = view.last_method[`pot:${p.cook}`];
  const swirl =
    act.kind === "pour" && p.readings && method && method !== "immersed_swirled"
      ? ["The last reading was of an unswirled pot: swirl it and read again."]
      : [];
  switch (act.kind) {
    case "acknowledge":
      return { title: "Hot sugar", detail: [], button: "Read and understood", before: "", during: "" };
    case "heat": {
      const water = p.water_kg ?? 0;
      return {
        title: `Weigh ${amount(p.fresh_kg ?? 0, "mass", units)} isomalt, put it on`,
        detail: [
          water > 0 ? `Add ${amount(water, "mass", units)} water.` : "No water: it is a small cook.",
          `For ${plural(casts, "casting", "castings")}. To ${amount(p.cook_degc ?? 0, "temperature", units)}, about ${duration(p.hob_s ?? 0)} on the ring.`,
        ],
        button: "On the ring",
        before: "in time for the mould in",
        during: "whenever you like",
      };
    }
    case "off":
      return {
        title: `Take it off at ${amount(p.cook_degc ?? 0, "temperature", units)}`,
        detail: ["Stir now and then. Type what the probe says: the time follows."],
        button: "Off the heat",
        before: "gets there in",
        during: "browns in",
      };
    case "warm":
      return {
        title: "Too thick: warm it again",
        detail: [`Back on the ring, to ${amount(p.cook_degc ?? 0, "temperature", units)}.`],
        button: "On the ring",
        before: "",
        during: "whenever you like",
      };
    case "read":
      return {
        title: "Swirl the pot, then read it",
        detail: ["An unswirled surface runs cold. One reading now narrows the pour window."],
        button: "Type a reading",
        before: "best in",
        during: "the pour opens in",
      };
    case "pour":
      return {
        title: `Pour ${plural(casts, "cavity", "cavities")}`,
        detail: [
          `${amount(p.each_kg ?? 0, "mass", units)} each, to ${amount(p.fill_m ?? 0, "length", units)}: ${name}. About ${duration(p.pour_s ?? 0)}.`,
          ...unsure,
          ...swirl,
        ],
        button: "Poured",
        before: `${LIMITS[String(act.params.limited_by)] ?? "opens"}, opens in`,
        during: "too thick in",
      };
    case "bend":
      return {
        title: `Bend ${plural(casts, "piece", "pieces")}`,
        detail: [`${piece}: slowly, in the order they were poured. Hold, or rest over a form.`, ...unsure],
        button: "Bent",
        before: "soft enough to hold in",
        during: "cracks in",
      };
    case "unmould":
      return {
        title: `Unmould ${plural(casts, "piece", "pieces")}`,
        detail: [`${piece}: stretch the mould, push from behind.`],
        button: "Unmoulded",
        before: "glass right through in",
        during: "cold enough",
      };
    case "outcomes":
      return {
        title: "How did they come out?",
        detail: [`${piece}: tap the ones that failed, then space for the rest.`],
        button: "The rest are good",
        before: "",
        during: "",
      };
    default:
      return {
        title: "All done",
        detail: ["Weigh what is left in the pot, if you can: the next plan uses it."],
        button: "End the run",
        before: "",
        during: "",
      };
  }
}

/** Short form, for the rail and the list of what follows. */
export function actShort(act: Act, view: View): string {
  const p = act.params as Record<string, number>;
  const name = (view.line_names[p.line ?? 0] ?? "").toLowerCase();
  const n = p.casts ?? 0;
  return (
    {
      acknowledge: "Read the caution",
      heat: "Put the pot on",
      off: "Off the heat",
      warm: "Warm the pot again",
      read: "Swirl and read the pot",
      pour: `Pour ${n} ${name}`,
      bend: `Bend ${n} ${name}`,
      unmould: `Unmould ${n} ${name}`,
      outcomes: `Record ${n} ${name}`,
      end: "End the run",
    }[act.kind] ?? act.kind
  );
}

export const BAND_WORDS: Record<string, string> = {
  too_hot: "bubbles, too hot",
  pour: "POUR",
  thickening: "thickening",
  stiff: "too stiff",
  heating: "heating",
  ready: "OFF THE HEAT",
  browns: "browns",
  soft: "too soft",
  bend: "BEND",
  setting: "setting",
  unmould: "UNMOULD",
  set: "set",
};
