import type { Schemas } from "../api/client";
import { type ActWords, lineName, type View, type What } from "./acts";
import { amount, duration, range, type Units } from "./format/units";
import { plural } from "./pourWords";

export const COMBS = {
  drag: {
    title: "Drag through",
    how: "a skewer or comb through the colours, across the stripes, both ways",
    done: "Dragged through",
  },
  comb: { title: "Comb", how: "a comb or fork from edge to edge, wiped after each", done: "Combed" },
};

const FILM_LIES: Record<Schemas["Film"]["laid"], string> = {
  flat: "",
  corner: ", on a corner",
  folded: ", folded once to a V",
  base: ", on the loose base, its print up",
};

/** How a film is cut, and how it lies. */
export function filmWords({ of, long_m, wide_m }: Schemas["FilmCut"], units: Units): string {
  const size = `${amount(long_m, "length", units)} by ${amount(wide_m, "length", units)}`;
  const lies = FILM_LIES[of.laid];
  return of.over === 1
    ? `a piece of ${size} for each${lies}`
    : `pieces of ${size}, each over ${of.over}${lies}`;
}

type Shaped = NonNullable<Schemas["Inclusion"]["shaped"]>;

/** How wires are cut and set. */
const wireWords = (items: Schemas["Inclusion"][], units: Units) =>
  `${boughtWords(items, units)}${items.map(({ bought }) => (bought ? `${amount(bought.inside_m, "length", units)} deep, ` : "")).join("")}`;

/** How castings are bent with their film. */
export function shapedWords({ how, form_m, overlap_m, magnets }: Shaped, units: Units): string {
  const form = amount(form_m, "length", units);
  const held = magnets ? ", its ends held by magnets" : "";
  switch (how) {
    case "curve":
      return `over a form ${form} across${held}`;
    case "v":
      return `folded to a V, ${form} wide at its mouth${held}`;
    case "band":
      return `round a form ${form} across, film outside, the ends lapping ${amount(overlap_m, "length", units)}`;
  }
}

const SHAPE_TITLES: Record<Shaped["how"], string> = {
  curve: "Lay over curved forms",
  v: "Fold to a V",
  band: "Wrap round their forms",
};

/** What all of it is bent to. */
export const shapeOf = (items: Items) => items.flatMap(({ shaped }) => shaped ?? []).at(0);

export const shapeTitle = (items: Items) => {
  const of = shapeOf(items);
  return of ? SHAPE_TITLES[of.how] : "Bend on its film";
};

function shapeWords(what: What<"shape">, view: View, units: Units, tryOne: string[]): ActWords {
  const of = shapeOf(what.items);
  const whole = what.sheet && of?.how !== "band";
  return {
    title: `${shapeTitle(what.items)}: ${whole && what.sheet ? sheetsOf(what.sheet) : plural(what.casts, "piece", "pieces")}`,
    detail: [
      `${lineName(view, what.line)}: with the film it lies on${of ? `, ${shapedWords(of, units)}` : ""}. It no longer runs and still bends; leave it there until it has set.`,
      ...tryOne,
    ],
    button: "They lie there",
    before: "it still runs, bends in",
    during: "cracks in",
  };
}

type Items = What<"sprinkle">["items"];

/** All that is put on at once. */
export const named = (items: Items) => items.map((on) => on.name).join(", ");

const gramsOf = (items: Items, units: Units) =>
  items
    .filter((on) => on.bought || on.kg > 0)
    .map((on) => {
      const many = on.bought ? String(on.bought.count) : amount(on.kg, "mass", units);
      return `, ${many}${items.length > 1 ? ` ${on.name.toLowerCase()}` : ""} each`;
    })
    .join("");

/** How much or many of something goes into each. */
export const handfulOf = ({ name, kg, bought }: Schemas["Inclusion"], units: Units): string => {
  if (bought) return `${bought.count > 1 ? `${bought.count} × ` : ""}${name.toLowerCase()}`;
  return kg > 0 ? `${amount(kg, "mass", units)} ${name.toLowerCase()}` : name.toLowerCase();
};

/** How what is bought is cut, wetted and set. */
export function boughtWords(items: Schemas["Inclusion"][], units: Units): string {
  const length = (m: number) => amount(m, "length", units);
  return items
    .flatMap(({ name, bought }) => {
      if (!bought) return [];
      const count = bought.count > 1 ? `${bought.count} × ` : "";
      const cut = bought.long_m > 0 ? ` cut ${length(bought.long_m)} long` : "";
      const foot = bought.foot_m > 0 ? `, a foot of ${length(bought.foot_m)} bent at its end` : "";
      const wet =
        bought.softens && bought.dissolves
          ? `, a mist of water on its back, ${range(bought.softens, "s", units)} until it is supple; from about ${duration(bought.dissolves.low)} it dissolves`
          : "";
      return [`${count}${name}${cut}${foot}${wet}. `];
    })
    .join("");
}

const sheetsOf = ({ count }: Schemas["SheetOf"]) => (count === 1 ? "the sheet" : `${count} sheets`);

type Work = What<"sprinkle" | "film" | "cut" | "comb" | "groove" | "shape" | "stick" | "bend">;

/** What hands do with castings while they are soft. */
export function workWords(what: Work, view: View, units: Units, tryOne: string[]): ActWords {
  switch (what.kind) {
    case "sprinkle":
      return {
        title: `${named(what.items)} on ${plural(what.casts, "casting", "castings")}`,
        detail: [`${lineName(view, what.line)}: while it is wet${gramsOf(what.items, units)}.`, ...tryOne],
        button: "It is on",
        before: "in",
        during: "sets in",
      };
    case "cut":
      return {
        title: `Cut ${plural(what.casts, "piece", "pieces")}`,
        detail: [
          `${lineName(view, what.line)}: straight down, never twisted; leave them in the sheet until it has set.`,
          ...tryOne,
        ],
        button: "They are cut",
        before: "it still runs, cut in",
        during: "too firm in",
      };
    case "film":
      return {
        title: `Press ${named(what.items)} on ${what.sheet ? sheetsOf(what.sheet) : plural(what.casts, "casting", "castings")}`,
        detail: [
          `${lineName(view, what.line)}: ${what.items.map((on) => (on.film ? filmWords(on.film, units) : "")).join(", ")}, the printed side down; lightly, from one edge, no air under it. When it no longer runs and still takes it.`,
          ...tryOne,
        ],
        button: "It is on",
        before: "still too wet in",
        during: "takes it no more in",
      };
    case "comb":
      return {
        title: what.sheet
          ? `${COMBS[what.how].title} ${sheetsOf(what.sheet)}`
          : `${COMBS[what.how].title} ${plural(what.casts, "casting", "castings")}`,
        detail: [
          `${named(what.items)}, ${COMBS[what.how].how}: shallow, never through to what it lies on. ${lineName(view, what.line)}.`,
          ...tryOne,
        ],
        button: COMBS[what.how].done,
        before: "it still runs back in",
        during: "too firm in",
      };
    case "shape":
      return shapeWords(what, view, units, tryOne);
    case "groove":
      return {
        title: `${named(what.items)} into ${plural(what.casts, "back", "backs")}`,
        detail: [
          `${lineName(view, what.line)}: leathery now. Draw once, along a rule, with the point or the back of a knife; never through.`,
          ...tryOne,
        ],
        button: "They are drawn",
        before: "leathery in",
        during: "too firm in",
      };
    case "stick": {
      const wires = what.items.filter(({ bought }) => bought);
      return {
        title:
          wires.length > 0
            ? `${named(wires)} into ${plural(what.casts, "casting", "castings")}`
            : `Put in ${plural(what.casts, "stick", "sticks")}`,
        detail: [
          wires.length > 0
            ? `${lineName(view, what.line)}: ${wireWords(wires, units)}hold each upright until it grips.`
            : `${lineName(view, what.line)}: push it in, turn it three times so that it is coated, lay it flat.`,
          ...tryOne,
        ],
        button: wires.length > 0 ? "They are in" : "Sticks are in",
        before: "in",
        during: "too stiff in",
      };
    }
    case "bend":
      return {
        title: `Bend ${plural(what.casts, "piece", "pieces")}`,
        detail: [
          what.released
            ? `${lineName(view, what.line)}: lay it over its form (a can, a bowl of its shape, your gloved hand), slowly; it goes flat if it is left.`
            : `${lineName(view, what.line)}: slowly, in the order they were poured. Hold, or rest over a form.`,
          ...tryOne,
        ],
        button: "Bent",
        before: "soft enough to hold in",
        during: "cracks in",
      };
  }
}
