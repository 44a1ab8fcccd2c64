import type { Act, ActWords, View, What } from "./acts";
import { amount, duration, type Units, weighed } from "./format/units";
import { colours, forWhat, plural } from "./pourWords";

type Weighing = Pick<ActWords, "title" | "detail" | "button">;
type InOven = What<"burst">["bowl"];

export const meltName = (act: Act) => act.melt?.called ?? "melt";

/** Sugar is weighed into a pot, with its water. */
export function potWords(act: Act, what: What<"heat">, _: View, units: Units): Weighing {
  const { fresh_kg, water_kg, casts, cook_degc, hob_s, shaken } = what;
  return {
    title: `Weigh ${weighed(fresh_kg, units)} ${act.melt?.raw ?? "melt"}, put it on`,
    detail: [
      ...cleanFirst("pot", what),
      water_kg > 0 ? `Add ${amount(water_kg, "mass", units)} water.` : "No water: it is melted dry.",
      `For ${plural(casts, "casting", "castings")} of ${meltName(act)}. To ${amount(cook_degc, "temperature", units)}, about ${duration(hob_s)} on the ring${shaken ? ", turned to medium-low" : ""}.`,
    ],
    button: "On the ring",
  };
}

/** Fat is weighed into a bowl, less its seed, and melted in bursts or over the bath. */
export function bowlWords(act: Act, what: What<"heat">, view: View, units: Units): Weighing {
  const { fresh_kg, seed_kg, casts, cook_degc, hob_s, bursts } = what;
  const first = bursts?.seconds[0];
  const how = bursts
    ? `${powerWords(bursts.power_frac)}: ${burstList(bursts.seconds)}, likely, stirring and looking after each. No metal.`
    : "Over very hot water, stirring. No steam and no drop of water may reach it: it seizes.";
  return {
    title: `Weigh ${weighed(fresh_kg - seed_kg, units)} ${meltName(act)}, melt it`,
    detail: [
      ...cleanFirst("bowl", what),
      how,
      ...(seed_kg > 0 ? [`Keep ${weighed(seed_kg, units)} more of it back, chopped: the seed.`] : []),
      `For ${plural(casts, "casting", "castings")}: ${forWhat(what, view)}. To ${amount(cook_degc, "temperature", units)}, about ${duration(hob_s)}.`,
      ...colours(act, units, "Have ready"),
    ],
    button: first === undefined ? "Melting" : `In, ${first} s`,
  };
}

/** What was in it last and would show is out of it before anything else goes in. */
function cleanFirst(vessel: string, { wash }: What<"heat">): string[] {
  if (!wash) return [];
  const was = wash.other_colour ? "another colour was in it" : `${wash.called} was in it`;
  return wash.soaks_s > 0
    ? [
        `First clean the ${vessel}: ${was}. Hot water in it for ${duration(wash.soaks_s)}, then wash it out and dry it.`,
      ]
    : [`First wipe the ${vessel} out with paper, no water: ${was}.`];
}

/** How much of the oven's power. */
export const powerWords = (frac: number) => (frac >= 1 ? "Full power" : `${Math.round(frac * 100)} % power`);

/** Bursts in short: "30 s, then 2 × 10 s". */
export function burstList(bursts: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const s of bursts) {
    const last = runs.at(-1);
    if (last?.[0] === s) last[1] += 1;
    else runs.push([s, 1]);
  }
  return runs.map(([s, n]) => (n > 1 ? `${n} × ${s} s` : `${s} s`)).join(", then ");
}

/** What was seen in the bowl, where it is a fault: what it means, and what may be done. */
const remedy = ({ remedy: of }: InOven): string[] => (of ? [`${of.means} ${of.do}`] : []);

const tooHot = ({ overheated }: InOven): string[] =>
  overheated ? ["Some of it has been too hot: it may set pitted and pale."] : [];

export function stirWords({ bowl }: What<"stir">): ActWords {
  return {
    title: "Stir on, no burst",
    detail: [
      ...remedy(bowl),
      "Another burst might scorch it: the heat has to spread first. Say what you see.",
      ...tooHot(bowl),
    ],
    button: "",
    before: "look again in",
    during: "look, and say what you see",
  };
}

export function burstWords(what: What<"burst">, units: Units): ActWords {
  const { bowl, seconds, power_frac, melted_frac } = what;
  const [then, hottest] = [what.degc, what.hottest_degc].map((degc) => amount(degc, "temperature", units));
  return {
    title: `${seconds} s more`,
    detail: [
      ...remedy(bowl),
      `${powerWords(power_frac)}. Then about ${then}, ${Math.round(melted_frac * 100)} % melted, hottest ${hottest} at most.`,
      ...tooHot(bowl),
    ],
    button: `In, ${seconds} s`,
    before: "oven, then stir:",
    during: "stirred? what do you see?",
  };
}

export function outWords({ bowl, lumps, cook_degc }: What<"out">, units: Units): ActWords {
  return {
    title: "Take the bowl out",
    detail: [
      ...remedy(bowl),
      lumps
        ? `Stir out the last lumps: the heat that is there melts them. It comes to about ${amount(cook_degc, "temperature", units)}.`
        : "Melted through. Stir until it is smooth.",
      ...tooHot(bowl),
    ],
    button: "Out, stirred",
    before: "oven, then stir:",
    during: "no more heat",
  };
}
