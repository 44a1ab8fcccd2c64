import type { Schemas } from "../api/client";
import type { ActWords } from "./actWords";
import { amount, duration, type Units, weighed } from "./format/units";
import { colours, forWhat, plural } from "./pourWords";

type Act = Schemas["ActView"];
type View = Schemas["BenchView"];

export const meltName = (act: Act) =>
  String(act.params.melt_name ?? "coating")
    .toLowerCase()
    .replace("coating wafers", "coating");

export function meltCoating(
  act: Act,
  view: View,
  units: Units,
): Pick<ActWords, "title" | "detail" | "button"> {
  const p = act.params as Record<string, number>;
  const bursts = (act.params.bursts_s ?? []) as number[];
  const [first] = bursts;
  const how =
    first !== undefined
      ? `${powerWords(p.power_frac ?? 1)}: ${burstList(bursts)}, likely, stirring and looking after each. No metal.`
      : "Over very hot water, stirring. No steam and no drop of water may reach it: it seizes.";
  return {
    title: `Weigh ${weighed((p.fresh_kg ?? 0) - (p.seed_kg ?? 0), units)} ${meltName(act)}, melt it`,
    detail: [
      how,
      ...(p.seed_kg ? [`Keep ${weighed(p.seed_kg, units)} more of it back, chopped: the seed.`] : []),
      `For ${plural(p.casts ?? 0, "casting", "castings")}: ${forWhat(act, view)}. To ${amount(p.cook_degc ?? 0, "temperature", units)}, about ${duration(p.hob_s ?? 0)}.`,
      ...colours(act, units, "Have ready"),
    ],
    button: first === undefined ? "Melting" : `In, ${first} s`,
  };
}

const powerWords = (frac: number) => (frac >= 1 ? "Full power" : `${Math.round(frac * 100)} % power`);

/** Bursts in short: "30 s, then 2 × 10 s". */
export function burstList(bursts: number[]): string {
  const runs: [number, number][] = [];
  for (const s of bursts) {
    const last = runs.at(-1);
    if (last?.[0] === s) last[1] += 1;
    else runs.push([s, 1]);
  }
  return runs.map(([s, n]) => (n > 1 ? `${n} × ${s} s` : `${s} s`)).join(", then ");
}

/** What was seen in the bowl, where it is a fault: what it means, and what may be done. */
const remedy = (act: Act): string[] =>
  act.params.remedy ? [`${String(act.params.means)} ${String(act.params.remedy)}`] : [];

export function burstWords(act: Act, units: Units): ActWords {
  const p = act.params as Record<string, number>;
  const degc = (value: number | undefined) => amount(value ?? 0, "temperature", units);
  const hot = act.params.overheated ? ["Some of it has been too hot: it may set pitted and pale."] : [];
  const then = `Then about ${degc(p.degc)}, ${Math.round((p.melted_frac ?? 0) * 100)} % melted, hottest ${degc(p.hottest_degc)} at most.`;
  if (act.kind === "stir")
    return {
      title: "Stir on, no burst",
      detail: [
        ...remedy(act),
        "Another burst might scorch it: the heat has to spread first. Say what you see.",
        ...hot,
      ],
      button: "",
      before: "look again in",
      during: "look, and say what you see",
    };
  return {
    title: `${p.seconds} s more`,
    detail: [...remedy(act), `${powerWords(p.power_frac ?? 1)}. ${then}`, ...hot],
    button: `In, ${p.seconds} s`,
    before: "oven, then stir:",
    during: "stirred? what do you see?",
  };
}

export function bowlOut(act: Act, units: Units): ActWords {
  const lumps = act.params.stop === "lumps";
  return {
    title: "Take the bowl out",
    detail: [
      ...remedy(act),
      lumps
        ? `Stir out the last lumps: the heat that is there melts them. It comes to about ${amount(Number(act.params.cook_degc), "temperature", units)}.`
        : "Melted through. Stir until it is smooth.",
      ...(act.params.overheated ? ["Some of it has been too hot: it may set pitted and pale."] : []),
    ],
    button: "Out, stirred",
    before: "oven, then stir:",
    during: "no more heat",
  };
}
