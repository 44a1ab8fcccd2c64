import { type Act, type ActWords, lineName, type View, type What, wordingOf } from "./acts";
import { bowlWords, burstWords, meltName, outWords, potWords, powerWords, stirWords } from "./bowlWords";
import { finishWords } from "./finishWords";
import { amount, duration, type Units } from "./format/units";
import { mixingWords } from "./measures";
import { wholeName } from "./named";
import { offWords } from "./offWords";
import { colours, habitWords, LAID, passOf, plural, pourWords } from "./pourWords";
import { TEMPER_SHORT, temperWords } from "./temperWords";
import { unmouldWords } from "./unmouldWords";
import type { Wording } from "./wording";
import { boughtWords, COMBS, filmWords, handfulOf, named, shapeTitle, workWords } from "./workWords";

const ANY_TIME = "whenever you like";

/** What holds back a pour, before it opens. */
const LIMITS: Record<What<"pour">["limited_by"], string> = {
  bubbles: "bubbles still rising",
  boiling: "still boils",
  mould: "too hot for the mould",
  heat: "too hot to pour",
};

/** What was taken out for bags is missing here. */
function tooLittle({ left_kg, each_kg, casts }: What<"pour">, units: Units): string[] {
  const fills = Math.floor(left_kg / each_kg);
  return fills < casts
    ? [
        `Only ${amount(left_kg, "mass", units)} to pour: enough for ${fills}. Put bags back or melt more first.`,
      ]
    : [];
}

const roughly = (act: Act, then: string): string[] => (act.sure ? [] : [`Known only roughly: ${then}`]);

const tryOne = (act: Act) => roughly(act, "try one first.");

export function actWords(act: Act, view: View, units: Units): ActWords {
  const { what } = act;
  const wording = wordingOf(act);
  switch (what.kind) {
    case "acknowledge":
      return { title: "Hot sugar", detail: [], button: "Read and understood", before: "", during: "" };
    case "heat":
      return {
        ...{ sugar: potWords, fat: bowlWords }[wording](act, what, view, units),
        before: "in time for the mould in",
        during: ANY_TIME,
      };
    case "keep":
      return {
        title: what.seconds === null ? `${what.name}: over hot water` : `${what.name}: ${what.seconds} s`,
        detail: [
          `It thickens. ${what.seconds === null ? "Over" : `In the microwave, ${what.seconds} s, with a look every 2 s; or over`} hot water, or pipe it out. Turn the tip back in when idle.`,
        ],
        button: what.seconds === null ? "Over the bath" : `In, ${what.seconds} s`,
        before: "thickens in",
        during: "stiff in",
      };
    case "too_warm":
      return {
        title: `${what.name}: off the heat`,
        detail: ["Over this water it gets hotter than it bears. Stand it in a glass, put it back later."],
        button: "Taken off",
        before: "too warm in about",
        during: "now",
      };
    case "temper":
      return temperWords(what, units);
    case "burst":
      return burstWords(what, units);
    case "stir":
      return stirWords(what);
    case "out": {
      const out = outWords(what, units);
      return {
        ...out,
        detail: [...out.detail, ...colours(act, units, "Stir in, oil-based"), ...standsIn(act, units)],
      };
    }
    case "off": {
      const off = offWords(act, what, units)[wording];
      return { ...off, detail: [...off.detail, ...standsIn(act, units)] };
    }
    case "warm": {
      const warm = warmWords(what, units)[wording];
      return { ...warm, detail: [...warm.detail, ...standsIn(act, units)] };
    }
    case "read":
      return {
        title: { sugar: "Swirl the pot, then read it", fat: "Stir the bowl, then read it" }[wording],
        detail: [
          `An ${{ sugar: "unswirled", fat: "unstirred" }[wording]} surface runs cold. One reading now narrows the pour window.`,
        ],
        button: "Type a reading",
        before: "best in",
        during: "the pour opens in",
      };
    case "pour": {
      const { title, how, done } = pourWords(what, view, units);
      const look = { sugar: "pour when you see no bubbles.", fat: "stir and look." }[wording];
      const unsure = roughly(
        act,
        what.readings === 0 ? "swirl and take a reading, it moves the window." : look,
      );
      const swirl = what.unswirled
        ? ["The last reading was of an unswirled pot: swirl it and read again."]
        : [];
      const into = act.into ? (view.vessels[act.into.vessel_id] ?? "another vessel") : null;
      const based = { sugar: "Stir in, water-based, a drop at a time (it spits)", fat: "Stir in, oil-based" }[
        wording
      ];
      return {
        title: into === null ? title : `Pour ${amount(what.each_kg, "mass", units)} off into ${into}`,
        detail: [
          how,
          ...colours(act, units, based),
          ...bubbles(what, units),
          ...tooLittle(what, units),
          ...unsure,
          ...swirl,
        ],
        button: done,
        before: `${LIMITS[what.limited_by]}, opens in`,
        during: { sugar: "too thick in", fat: "thickens in" }[wording],
      };
    }
    case "put_in": {
      const words = what.items.map((i) => handfulOf(i, units));
      const film = what.items.find((i) => i.film?.of.laid === "base")?.film;
      return {
        title: film
          ? `${named(what.items)} on the base, under ${plural(what.casts, "cavity", "cavities")}`
          : `${words.join(", ")} into each of ${plural(what.casts, "cavity", "cavities")}`,
        detail: [
          `${lineName(view, what.line)}. ${film ? `${filmWords(film, units)}; then the frame on it, closed tight. ` : ""}About ${duration(what.takes_s)}.${what.items.some((i) => i.what === "filling") ? " Keep the gap to the rim." : ""} ${habitWords(what.habits)}`,
          ...what.mixed.flatMap((mixing) => mixingWords(mixing, units)),
        ],
        button: "It is in",
        before: "the pass under it bears it in",
        during: ANY_TIME,
      };
    }
    case "sprinkle":
    case "film":
    case "cut":
    case "comb":
    case "groove":
    case "shape":
    case "stick":
    case "bend":
      return workWords(what, view, units, tryOne(act));
    case "turn":
      return {
        title: `Turn ${plural(what.casts, "ball", "balls")}, ${what.turn} of ${what.turns}`,
        detail: [
          `${lineName(view, what.line)}: another side down, a shake first so that what still runs coats it. ${what.turns > what.usual && what.turn === what.usual + 1 ? "By its wall some of it still runs: shake one, if nothing moves leave the rest." : ""}`,
        ],
        button: "Turned",
        before: "turn in",
        during: "thin spot in",
      };
    case "move":
      if (what.slid_out)
        return {
          title: `Pull the foam out from under it`,
          detail: [
            `${lineName(view, what.line)}: out from under ${what.casts === 1 ? "it" : "all of it"}, level, in one pull, onto the ${placeName(view, what.place)}. It has been drawn through; from now on it may set.`,
          ],
          button: "It is out",
          before: "in",
          during: "as soon as you can",
        };
      return {
        title: `To the ${placeName(view, what.place)}`,
        detail: [
          `${lineName(view, what.line)}: ${plural(what.casts, "casting", "castings")}. It sets there.`,
        ],
        button: "Moved",
        before: "in",
        during: "as soon as you can",
      };
    case "by_hand":
      return byHandWords(what, units);
    case "unmould":
      return unmouldWords(act, what, wording, view);
    case "outcomes":
      return {
        title: "How did they come out?",
        detail: [`${lineName(view, what.line)}: tap the ones that failed, then space for the rest.`],
        button: "The rest are good",
        before: "",
        during: "",
      };
    case "again":
      return {
        title: `${what.short} short: cook ${what.casts} more`,
        detail: [
          `${lineName(view, what.line)}: enough for what is missing, spares with it. Or end the run: what is left becomes an order.`,
        ],
        button: "Cook again",
        before: "",
        during: "",
      };
    case "resume":
      return {
        title: "Paused",
        detail: ["Nothing calls. What is hot goes on cooling, and the ribbons with it."],
        button: "Go on",
        before: "",
        during: "",
      };
    case "end":
      return {
        title: "All done",
        detail: ["Weigh what is left in the pot, if you can: the next plan uses it."],
        button: "End the run",
        before: "",
        during: "",
      };
  }
}

const placeName = (view: View, id: string) => (view.places[id] ?? id).toLowerCase();

const INTO: Record<NonNullable<Act["kept"]>["kind"], string> = { bath: "into", plate: "onto", oven: "into" };

/** Where a vessel goes off the heat, so that it stays fluid. */
function standsIn(act: Act, units: Units): string[] {
  if (!act.kept) return [];
  const { name, kind, degc } = act.kept;
  const dry = kind === "bath" ? " Dry it underneath before each pour: one drop seizes it." : "";
  return [`Then ${INTO[kind]} “${name}”, ${amount(degc, "temperature", units)}, to stay fluid.${dry}`];
}

function warmWords(
  { cook_degc, burst_s, power_frac, in_temper }: What<"warm">,
  units: Units,
): Record<Wording, ActWords> {
  const to = amount(cook_degc, "temperature", units);
  const burst =
    burst_s === null || power_frac === null
      ? "Over the bath"
      : `${Math.round(burst_s)} s at ${powerWords(power_frac).toLowerCase()}, or over the bath`;
  const keep = in_temper ? " No warmer: it is in temper." : "";
  const say = (title: string, detail: string, button: string): ActWords => ({
    title,
    detail: [detail],
    button,
    before: "in time for the next pour in",
    during: ANY_TIME,
  });
  return {
    fat: say("Warm it again", `For the next pour. ${burst}, stirring, to ${to}.${keep}`, "Warming"),
    sugar: say("Warm it again", `For the next pour. Back on the ring, to ${to}.`, "On the ring"),
  };
}

const LEAVES: Record<What<"unmould">["leaves"], string> = {
  unmould: "Unmould",
  peel: "Peel",
  rigid: "Ease off",
  release_opens: "Release",
};

const HAND_DOES: Record<What<"by_hand">["step"]["what"], string> = {
  join: "Join",
  press: "Press",
  model: "Model",
  fit: "Set out",
  finish: "Finish",
};

/** What is bought by the length is cut before it is set out. */
const handDoes = ({ what, items }: What<"by_hand">["step"]) =>
  items.some(({ bought }) => bought && bought.long_m > 0) && what === "fit"
    ? "Cut, set out"
    : HAND_DOES[what];

/** What hands make of no melt; how long it is then left where it is, and dries on its form after that. */
function byHandWords({ step, mixed }: What<"by_hand">, units: Units): ActWords {
  const [coat] = step.items.flatMap(({ finish }) => finish ?? []);
  if (coat) return finishWords(step, coat, units);
  const { rests, dries, kg } = step;
  const span = ({ low, high }: { low: number; high: number }) => `${duration(low)} to ${duration(high)}`;
  const left = rests.low < 1 ? "out of its mould at once" : `leave them ${span(rests)}`;
  const then = dries.high > 0 ? `${left}, then let them dry on their form ${span(dries)}.` : `${left}.`;
  return {
    title: `${handDoes(step)} ${plural(step.count, "piece", "pieces")}: ${wholeName(step.named)}`,
    detail: [
      step.what === "fit"
        ? `${boughtWords(step.items, units)} About ${duration(step.count * step.each_s)}.`
        : `${kg > 0 ? `${amount(kg, "mass", units)} each. ` : ""}${boughtWords(step.items, units)}About ${duration(step.count * step.each_s)}; ${then}`,
      ...moist(step),
      ...mixed.flatMap((mixing) => mixingWords(mixing, units)),
    ],
    button: "Done",
    before: "in",
    during: ANY_TIME,
  };
}

/** What holds the opening back is a size of bubble nobody measured. */
const bubbles = ({ limited_by, bubble_m }: What<"pour">, units: Units): string[] =>
  limited_by === "bubbles" && bubble_m !== null
    ? [
        `It opens when bubbles of ${amount(bubble_m, "length", units)} have risen, an assumption: your eye decides, clear is clear.`,
      ]
    : [];

/** How much of a paste is out at a time, before it has a skin. */
function moist({ skins, each_s, dries }: What<"by_hand">["step"]): string[] {
  if (!skins) return [];
  const many = Math.max(1, Math.floor(skins.low / each_s));
  const soft = dries.high > 0 ? "" : " What is made stays under film until it is joined.";
  return [
    `Open it skins over in ${duration(skins.low)} to ${duration(skins.high)}: take out enough for ${many} at a time, the rest under film.${soft}`,
  ];
}

/** Short form, for the rail and the list of what follows. */
export function actShort(act: Act, view: View): string {
  const { what } = act;
  const wording = wordingOf(act);
  const of = (line: number) => lineName(view, line).toLowerCase();
  switch (what.kind) {
    case "acknowledge":
      return "Read the caution";
    case "temper":
      return TEMPER_SHORT[what.step];
    case "keep":
      return `${what.name} thickens`;
    case "too_warm":
      return `${what.name} gets too warm`;
    case "burst":
      return `${what.seconds} s more`;
    case "stir":
      return "Stir on, no burst";
    case "heat":
      return (
        { sugar: `Pot on, ${meltName(act)}`, fat: `Melt the ${meltName(act)}` }[wording] + passOf(what, view)
      );
    case "off":
    case "out":
      return { sugar: "Off the heat", fat: "Take the bowl out" }[wording];
    case "warm":
      return { sugar: "Warm the pot again", fat: "Warm the bowl again" }[wording];
    case "read":
      return { sugar: "Swirl and read the pot", fat: "Stir and read the bowl" }[wording];
    case "pour":
      if (what.laid === "lines") return `Pipe ${what.casts} ${of(what.line)}`;
      if (what.piped) return `Stripes, ${what.piped.count} of ${what.piped.of_all}`;
      if (what.laid === "detail" && what.sheet)
        return `${LAID[what.laid_by].title} ${plural(what.sheet.count, "film", "films")}`;
      if (what.sheet) return `Spread ${plural(what.sheet.count, "sheet", "sheets")}`;
      return act.into
        ? `Into ${view.vessels[act.into.vessel_id] ?? "another vessel"}`
        : `${what.casts} ${of(what.line)}`;
    case "put_in":
      return `Fill ${what.casts} ${of(what.line)}`;
    case "by_hand":
      return `${handDoes(what.step)} ${what.step.count} ${wholeName(what.step.named)}`;
    case "sprinkle":
      return `${named(what.items)} on ${what.casts} ${of(what.line)}`;
    case "film":
      return `${named(what.items)} on ${what.casts} ${of(what.line)}`;
    case "cut":
      return `Cut ${what.casts} ${of(what.line)}`;
    case "comb":
      return what.sheet
        ? `${COMBS[what.how].title} the sheet`
        : `${COMBS[what.how].title} ${what.casts} ${of(what.line)}`;
    case "groove":
      return `${named(what.items)} into ${what.casts} ${of(what.line)}`;
    case "shape":
      return `${shapeTitle(what.items)}: ${what.casts} ${of(what.line)}`;
    case "bend":
      return `Bend ${what.casts} ${of(what.line)}`;
    case "stick":
      return `${what.items.some(({ bought }) => bought) ? named(what.items) : "Sticks"} into ${what.casts} ${of(what.line)}`;
    case "turn":
      return `Turn ${what.casts} ${of(what.line)}`;
    case "move":
      if (what.slid_out) return "Pull out what is under it";
      return `${what.casts} ${of(what.line)} to the ${placeName(view, what.place)}`;
    case "unmould":
      if (what.laid === "join") return `${what.casts} ${of(what.line)}: may be moved`;
      if (what.laid === "dip") return `${what.casts} ${of(what.line)} off the tray`;
      if (what.sheet) return `Break out ${what.casts} ${of(what.line)}`;
      return `${LEAVES[what.leaves]} ${what.casts} ${of(what.line)}`;
    case "outcomes":
      return `Record ${what.casts} ${of(what.line)}`;
    case "end":
      return "End the run";
    case "again":
      return `Cook ${what.casts} more`;
    case "resume":
      return "Go on after the pause";
  }
}
