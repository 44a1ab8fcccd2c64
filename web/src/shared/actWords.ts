import type { Schemas } from "../api/client";
import { bowlOut, burstWords, meltCoating, meltName } from "./bowlWords";
import { amount, duration, type Units, weighed } from "./format/units";
import { colours, habitWords, passOf, plural, pourWords } from "./pourWords";
import { TEMPER_SHORT, temperWords } from "./temperWords";

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

const LIMITS: Record<string, string> = {
  bubbles: "bubbles still rising",
  boiling: "still boils",
  mould: "too hot for the mould",
  heat: "too hot to pour",
};

/** What was taken out for bags is missing here. */
function tooLittle(p: Record<string, number>, units: Units): string[] {
  const fills = Math.floor((p.left_kg ?? 0) / (p.each_kg ?? 1));
  return p.left_kg !== undefined && fills < (p.casts ?? 0)
    ? [
        `Only ${amount(p.left_kg, "mass", units)} to pour: enough for ${fills}. Put bags back or melt more first.`,
      ]
    : [];
}

export function actWords(act: Act, view: View, units: Units): ActWords {
  const p = act.params as Record<string, number>;
  const piece = view.line_names[p.line ?? 0] ?? "";
  const coating = String(act.params.melt ?? "isomalt") !== "isomalt";
  const casts = p.casts ?? 0;
  const look =
    act.kind === "pour" ? (coating ? "stir and look." : "pour when you see no bubbles.") : "try one first.";
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
      if (coating)
        return {
          ...meltCoating(act, view, units),
          before: "in time for the mould in",
          during: "whenever you like",
        };
      return {
        title: `Weigh ${weighed(p.fresh_kg ?? 0, units)} isomalt, put it on`,
        detail: [
          water > 0 ? `Add ${amount(water, "mass", units)} water.` : "No water: it is a small cook.",
          `For ${plural(casts, "casting", "castings")}. To ${amount(p.cook_degc ?? 0, "temperature", units)}, about ${duration(p.hob_s ?? 0)} on the ring.`,
        ],
        button: "On the ring",
        before: "in time for the mould in",
        during: "whenever you like",
      };
    }
    case "keep":
      return {
        title: p.seconds ? `${act.params.name}: ${p.seconds} s` : `${act.params.name}: over hot water`,
        detail: [
          `It thickens. ${p.seconds ? `In the microwave, ${p.seconds} s, with a look every 2 s; or` : ""} over hot water, or pipe it out. Turn the tip back in when idle.`,
        ],
        button: p.seconds ? `In, ${p.seconds} s` : "Over the bath",
        before: "thickens in",
        during: "stiff in",
      };
    case "too_warm":
      return {
        title: `${act.params.name}: off the heat`,
        detail: ["Over this water it gets hotter than it bears. Stand it in a glass, put it back later."],
        button: "Taken off",
        before: "too warm in about",
        during: "now",
      };
    case "temper":
      return temperWords(act, units);
    case "burst":
    case "stir":
      return burstWords(act, units);
    case "off":
      if (act.params.stop) {
        const out = bowlOut(act, units);
        return { ...out, detail: [...out.detail, ...colours(act, units, "Stir in, oil-based")] };
      }
      if (coating)
        return {
          title: `Smooth at ${amount(p.cook_degc ?? 0, "temperature", units)}: take it out`,
          detail: [
            "Stir now and then. Type what the probe says: the time follows.",
            ...colours(act, units, "Stir in, oil-based"),
          ],
          button: "Melted",
          before: "molten in about",
          during: "overheats in",
        };
      return {
        title: `Take it off at ${amount(p.cook_degc ?? 0, "temperature", units)}`,
        detail: [
          "Stir now and then until the last grain is gone, then leave it: stirring on folds in air. Type what the probe says: the time follows.",
          ...colours(act, units, "After the bubbles, water-based, a drop at a time (it spits)"),
        ],
        button: "Off the heat",
        before: "gets there in",
        during: "browns in",
      };
    case "warm":
      if (coating)
        return {
          title: "It has set: warm it again",
          detail: [
            `A short burst or over the bath, stirring, to ${amount(p.cook_degc ?? 0, "temperature", units)}.`,
          ],
          button: "Warming",
          before: "",
          during: "whenever you like",
        };
      return {
        title: "Too thick: warm it again",
        detail: [`Back on the ring, to ${amount(p.cook_degc ?? 0, "temperature", units)}.`],
        button: "On the ring",
        before: "",
        during: "whenever you like",
      };
    case "read":
      if (coating)
        return {
          title: "Stir the bowl, then read it",
          detail: ["An unstirred surface runs cold. One reading now narrows the pour window."],
          button: "Type a reading",
          before: "best in",
          during: "the pour opens in",
        };
      return {
        title: "Swirl the pot, then read it",
        detail: ["An unswirled surface runs cold. One reading now narrows the pour window."],
        button: "Type a reading",
        before: "best in",
        during: "the pour opens in",
      };
    case "pour": {
      const { title, how, done } = pourWords(act, view, units);
      return {
        title,
        detail: [how, ...bubbles(act, units), ...tooLittle(p, units), ...unsure, ...swirl],
        button: done,
        before: `${LIMITS[String(act.params.limited_by)] ?? "opens"}, opens in`,
        during: coating ? "thickens in" : "too thick in",
      };
    }
    case "put_in": {
      const items = (act.params.items ?? []) as { what: string; name: string; kg: number }[];
      const words = items.map((i) =>
        i.kg > 0 ? `${amount(i.kg, "mass", units)} ${i.name.toLowerCase()}` : i.name.toLowerCase(),
      );
      return {
        title: `${words.join(", ")} into each of ${plural(casts, "cavity", "cavities")}`,
        detail: [
          `${piece}. About ${duration(p.takes_s ?? 0)}.${items.some((i) => i.what === "filling") ? " Keep the gap to the rim." : ""} ${habitWords(act)}`,
        ],
        button: "It is in",
        before: "the pass under it bears it in",
        during: "whenever you like",
      };
    }
    case "sprinkle":
      return {
        title: `Sprinkle ${plural(casts, "casting", "castings")}`,
        detail: [`${piece}: while it is wet.`, ...unsure],
        button: "Sprinkled",
        before: "in",
        during: "sets in",
      };
    case "stick":
      return {
        title: `Put in ${plural(casts, "stick", "sticks")}`,
        detail: [`${piece}: push it in, turn it three times so that it is coated, lay it flat.`, ...unsure],
        button: "Sticks are in",
        before: "in",
        during: "too stiff in",
      };
    case "turn":
      return {
        title: `Turn ${plural(casts, "ball", "balls")}, ${p.turn} of ${p.turns}`,
        detail: [
          `${piece}: another side down, a shake first so that what still runs coats it. ${(p.turns ?? 0) > (p.practised ?? 0) && p.turn === (p.practised ?? 0) + 1 ? "By its wall some of it still runs: shake one, if nothing moves leave the rest." : ""}`,
        ],
        button: "Turned",
        before: "turn in",
        during: "thin spot in",
      };
    case "move":
      return {
        title: `To the ${(view.places[String(act.params.place)] ?? "").toLowerCase()}`,
        detail: [`${piece}: ${plural(casts, "casting", "castings")}. It sets there.`],
        button: "Moved",
        before: "in",
        during: "as soon as you can",
      };
    case "bend":
      return {
        title: `Bend ${plural(casts, "piece", "pieces")}`,
        detail: [
          act.params.leaves === "release_opens"
            ? `${piece}: lay it over its form (a can, a bowl of its shape, your gloved hand), slowly; it goes flat if it is left.`
            : `${piece}: slowly, in the order they were poured. Hold, or rest over a form.`,
          ...unsure,
        ],
        button: "Bent",
        before: "soft enough to hold in",
        during: "cracks in",
      };
    case "by_hand":
      return {
        title: `${act.params.what === "join" ? "Join" : "Press"} ${plural(p.count ?? 0, "piece", "pieces")}: ${act.params.name}`,
        detail: [
          `${(p.kg ?? 0) > 0 ? `${amount(p.kg ?? 0, "mass", units)} each. ` : ""}About ${duration(p.takes_s ?? 0)}; ${restWords(p)}`,
        ],
        button: "Done",
        before: "in",
        during: "whenever you like",
      };
    case "unmould":
      if (act.params.kind === "join" || act.params.kind === "dip")
        return {
          title:
            act.params.kind === "join"
              ? `${plural(casts, "piece", "pieces")}: props away`
              : `${casts} off the tray`,
          detail: [
            `${piece}: it has set. ${act.params.kind === "join" ? "It may be moved now." : "Trim the foot."}`,
          ],
          button: act.params.kind === "join" ? "They hold" : "Off the tray",
          before: "sets in",
          during: act.closes_s === null ? "whenever you like" : "may crack from cold in",
        };
      if (act.params.leaves !== undefined && act.params.leaves !== "unmould")
        return leavesWords(act, piece, casts);
      return {
        title: `Unmould ${plural(casts, "piece", "pieces")}`,
        detail: [
          coating
            ? `${piece}: turn the mould over. What does not drop out stays in the cold longer.`
            : `${piece}: stretch the mould, push from behind.`,
        ],
        button: "Unmoulded",
        before: coating ? "set and let go in" : "glass right through in",
        during: act.closes_s === null ? "cold enough" : "may crack from cold in",
      };
    case "outcomes":
      return {
        title: "How did they come out?",
        detail: [`${piece}: tap the ones that failed, then space for the rest.`],
        button: "The rest are good",
        before: "",
        during: "",
      };
    case "again":
      return {
        title: `${p.short} short: cook ${casts} more`,
        detail: [
          `${piece}: enough for what is missing, spares with it. Or end the run: what is left becomes an order.`,
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

/** How long something made by hand is left where it is, and dries on its form after that. */
function restWords(p: Record<string, number>): string {
  const span = (low = 0, high = 0) => `${duration(low)} to ${duration(high)}`;
  const rests =
    (p.rests_low_s ?? 0) < 1
      ? "out of its mould at once"
      : `leave them ${span(p.rests_low_s, p.rests_high_s)}`;
  return (p.dries_high_s ?? 0) > 0
    ? `${rests}, then let them dry on their form ${span(p.dries_low_s, p.dries_high_s)}.`
    : `${rests}.`;
}

/** What holds the opening back is a size of bubble nobody measured. */
const bubbles = (act: Act, units: Units): string[] =>
  act.params.limited_by === "bubbles" && typeof act.params.bubble_m === "number"
    ? [
        `It opens when bubbles of ${amount(act.params.bubble_m, "length", units)} have risen, an assumption: your eye decides, clear is clear.`,
      ]
    : [];

/** How a piece leaves what is no mould to be turned over: a film, a bowl, or its mould while it is warm. */
function leavesWords(act: Act, piece: string, casts: number): ActWords {
  const pieces = plural(casts, "piece", "pieces");
  switch (String(act.params.leaves)) {
    case "peel":
      return {
        title: `Peel ${pieces}`,
        detail: [`${piece}: bend the film away from it, not it from the film.`],
        button: "Peeled off",
        before: "peels off in",
        during: act.closes_s === null ? "whenever you like" : "may crack from cold in",
      };
    case "rigid":
      return {
        title: `Ease ${pieces} off`,
        detail: [`${piece}: loosen the rim all round, then lift it off its oiled bowl.`],
        button: "It is off",
        before: "keeps its shape in",
        during: "whenever you like",
      };
    default:
      return {
        title: `Release ${pieces}, warm`,
        detail: [
          `${piece}: it holds together and still bends. Gloves. One after the other, each onto its form.`,
        ],
        button: "Released",
        before: "holds together in",
        during: "too stiff in",
      };
  }
}

/** Short form, for the rail and the list of what follows. */
export function actShort(act: Act, view: View): string {
  const p = act.params as Record<string, number>;
  const name = (view.line_names[p.line ?? 0] ?? "").toLowerCase();
  const n = p.casts ?? 0;
  const coating = String(act.params.melt ?? "isomalt") !== "isomalt";
  return (
    {
      acknowledge: "Read the caution",
      temper: TEMPER_SHORT[String(act.params.step)] ?? "Temper the bowl",
      keep: `${act.params.name} thickens`,
      too_warm: `${act.params.name} gets too warm`,
      burst: `${p.seconds} s more`,
      stir: "Stir on, no burst",
      heat: (coating ? `Melt the ${meltName(act)}` : "Put the pot on") + passOf(act, view),
      off: coating ? "Take the bowl out" : "Off the heat",
      warm: coating ? "Warm the bowl again" : "Warm the pot again",
      read: coating ? "Stir and read the bowl" : "Swirl and read the pot",
      pour: `${n} ${name}`,
      put_in: `Fill ${n} ${name}`,
      by_hand: `${act.params.what === "join" ? "Join" : "Press"} ${p.count} ${act.params.name}`,
      sprinkle: `Sprinkle ${n} ${name}`,
      bend: `Bend ${n} ${name}`,
      stick: `Sticks into ${n} ${name}`,
      turn: `Turn ${n} ${name}`,
      move: `${n} ${name} to the ${(view.places[String(act.params.place)] ?? "").toLowerCase()}`,
      unmould:
        act.params.kind === "join"
          ? `${n} ${name}: may be moved`
          : act.params.kind === "dip"
            ? `${n} ${name} off the tray`
            : `Unmould ${n} ${name}`,
      outcomes: `Record ${n} ${name}`,
      end: "End the run",
      again: `Cook ${n} more`,
      resume: "Go on after the pause",
    }[act.kind] ?? act.kind
  );
}
