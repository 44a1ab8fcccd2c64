import type { Schemas } from "../../api/client";
import { amount, duration, type Units } from "../../shared/format/units";
import type { Wording } from "../../shared/wording";
import type { Explored } from "./queries";

/** Whole minutes, or seconds when it is less than one. */
export function minutes(seconds: number): string {
  if (seconds < 60) return `${Math.round(seconds)} s`;
  const value = seconds / 60;
  return `${value < 5 ? value.toFixed(1).replace(/\.0$/, "") : Math.round(value)} min`;
}

/** When a way lets go, whether it sweats or cracks: what tells it from the others, in a sentence. */
export function difference(ways: { name: string; of: Explored }[]): string {
  if (ways.length === 0) return "";
  const out = ways.map(({ name, of }) => {
    const ready = of.windows.unmould;
    return of.never.includes("unmould") || !ready
      ? `${name}: does not set in ${minutes(of.horizon_s)}`
      : `${name} ${minutes(ready.likely)}`;
  });
  return [out.join(", "), ...ways.flatMap(({ name, of }) => after(name, of, ways.length > 1))].join("; ");
}

function after(name: string, of: Explored, several: boolean): string[] {
  const who = several ? `the ${name.toLowerCase()} way` : "it";
  const words: string[] = [];
  if (of.sweat && sweats(of.sweat))
    words.push(
      `${who} sweats ${of.sweat.sweats_s === null ? "on and on" : `for ${minutes(of.sweat.sweats_s)}`} after`,
    );
  const does = of.on_first?.does.verdict ?? "tacks";
  if (does !== "tacks")
    words.push(does === "dissolves" ? `${who} melts the first pass` : `${who} does not join the first pass`);
  const crack = of.risks.find(({ kind }) => RISKS[kind] === "cracks");
  if (crack && crack.level !== "low")
    words.push(`${who} ${crack.level === "high" ? "is likely to crack" : "may crack"}`);
  return words;
}

const SWEATS_FROM_S = 30;
/** Whether a piece sweats long enough to speak of; null: to the end of what is followed. */
export const sweats = (of: Schemas["Sweat"]): boolean => of.sweats_s === null || of.sweats_s >= SWEATS_FROM_S;

export const TAKE_WORDS: Record<string, string> = {
  sprinkles: "sprinkles stick",
  stick: "takes a stick",
  drag: "wet: drag a skewer through",
  comb: "wet: takes a comb",
  cutter: "soft: takes a cutter",
  groove: "leathery: takes a groove",
  release: "released warm, it still bends",
  "off its bowl": "a thread eases off its bowl",
  thread: "pulls threads",
  "walls off": "walls and rings off",
  "next coat": "takes the next coat",
  "let go": "a hand may let go",
  "film off": "film peels off",
  bend: "bends",
  pull: "can be pulled",
  scissors: "takes scissors",
};

export function takeWords(take: Schemas["Take"], horizon: number): string {
  const time = (s: number) => (s >= horizon ? "never" : duration(s));
  if (take.opens && take.opens.likely >= horizon) return "not here";
  if (take.opens && take.closes)
    return take.closes.likely - take.opens.likely < 5
      ? "hardly at all"
      : `${time(take.opens.likely)} to ${time(take.closes.likely)}`;
  if (take.opens) return `from ${time(take.opens.likely)}`;
  return take.closes ? (take.closes.likely < 5 ? "not poured so" : `until ${time(take.closes.likely)}`) : "";
}

const INPUTS: Record<string, string> = {
  pour_degc: "how hot it is poured",
  depth_m: "its thickness",
  cp_melt: "heat capacity of the melt",
  conductivity: "its conductivity",
  wall_conductivity: "the mould wall",
  contact: "contact with what it lies on",
  air_side: "the air over it",
  stream: "how fast the fan blows",
  air_off_share: "how cold the place really is",
  half_factor: "how fast this fat sets",
  melts_at: "its melting range",
  latent: "its heat of setting",
  set_at_start: "how much of it is seed",
  density: "its density",
  emissivity: "how it radiates",
  glass: "the water left in it",
  limit: "how stiff is stiff enough",
};

export const inputWords = (name: string): string => INPUTS[name] ?? name;

export const MARK_WORDS: Record<string, string> = {
  bend_opens: "when it bends",
  touch: "when it is touch-set",
  unmould: "when it unmoulds",
};

export type Risk = Explored["risks"][number];

/** What is said to be likely or not, of a risk. */
export const RISKS: Record<Risk["kind"], string> = {
  sticks: "sticks",
  chills: "cracks",
  strains: "cracks",
  blooms: "blooms",
};
export const LEVEL_WORDS: Record<Risk["level"], string> = {
  low: "no",
  some: "may be",
  high: "likely",
  certain: "for certain",
};
const TEMPERED: Record<Risk["level"], string> = {
  low: "in good temper",
  some: "under-tempered",
  high: "not tempered",
  certain: "not tempered",
};

export function riskWords(risk: Risk, units: Units): string {
  switch (risk.kind) {
    case "sticks":
      return sticksWords(risk);
    case "chills":
      return risk.level === "low"
        ? "never colder than it bears here"
        : `too cold from ${duration(risk.from_s)}; it is out by ${duration(risk.out_s)}`;
    case "strains":
      return `${risk.why === "built in" ? "stress built in" : "stress of its chilled skin"} ${mega(risk.stress_pa)}, safe ${mega(risk.safe_pa)}. Cools ${(risk.rate_k_s * 60).toFixed(1)} K/min through its annealing range; at this thickness no more than ${(risk.safe_rate_k_s * 60).toFixed(1)} is safe. Strength and stiffness are assumed: read it as more or less likely, not as yes or no`;
    case "blooms":
      return {
        overheated: `poured over ${amount(risk.spoils_degc, "temperature", units)}`,
        temper: TEMPERED[risk.level],
        "needs no temper": "needs no temper",
      }[risk.why];
  }
}

const percent = (frac: number) => `${(frac * 100).toFixed(1)} %`;
const mega = (pa: number) => `${(pa / 1e6).toFixed(1)} MPa`;

function sticksWords({ why, contraction_frac, lets_go_frac }: Extract<Risk, { kind: "sticks" }>): string {
  switch (why) {
    case "mould bends":
      return "the mould bends: push it out from behind";
    case "nothing comes out":
      return `untempered it shrinks ${percent(contraction_frac)}: in a mould that does not give nothing comes out. Temper it, or set it on a film`;
    case "mould gives":
      return "the thin mould gives: turn it over, it comes right out";
    case "contraction":
      return `shrinks ${percent(contraction_frac)}; a stiff mould asks for about ${percent(lets_go_frac)}`;
  }
}

export const VERDICTS: Record<Schemas["PassOnPass"]["verdict"], string> = {
  dissolves: "melts into the first",
  tacks: "tacks to the first, which keeps its shape",
  apart: "stays apart: it lies on the first and does not join",
};

/** What a pass does to the one under it, and what to do about it. */
export function onFirstWords(on: Schemas["OnFirst"], wording: Wording, units: Units): string {
  const pass = on.does;
  const degc = (value: number) => amount(value, "temperature", units);
  const what = {
    fat: `${Math.round(pass.melts_frac * 100)} % of the first coat melts again, its top keeps ${Math.round(pass.top_set_frac * 100)} %.`,
    sugar: `Its top comes to ${degc(pass.top_degc)}.`,
  }[wording];
  const advice =
    on.rest_s === null
      ? ""
      : ` Let the melt rest until it is at ${degc(pass.pour_below_degc)}: ${amount(on.melt_kg, "mass", units)} in the ${on.vessel.toLowerCase()} take about ${minutes(on.rest_s)}.`;
  return `The new melt ${VERDICTS[pass.verdict]}. ${what}${advice}`;
}

/** Names of the tables' values that do not read by themselves. */
const PROPERTIES: Record<string, string> = {
  cp_melt: "heat capacity, melt",
  cp_set: "heat capacity, set",
  cp_glass: "heat capacity, glass",
  cp: "heat capacity",
  density_melt: "density, melt",
  density_set: "density, set",
  conductivity_melt: "conductivity, melt",
  tg_dry: "glass transition, dry",
  tg_water: "glass transition of water",
  gordon_taylor_k: "Gordon-Taylor constant",
  latent_fat: "heat of setting",
  latent_crystal: "heat of melting crystals",
  pot_base: "pot to surface",
  contact: "mould to surface",
  sag: "share it may sag in a minute",
  young: "stiffness",
  shear: "stiffness in shear",
  poisson: "Poisson's number",
  expansion: "expansion when warm",
  bears: "hottest it bears",
  wall: "usual wall",
};

export function propertyWords(name: string): string {
  return PROPERTIES[name] ?? name.replace(/^log_/, "log viscosity, ").replaceAll("_", " ");
}
