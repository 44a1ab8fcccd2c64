import type { Schemas } from "../api/client";
import { type ActWords, lineName, type View, type What } from "./acts";
import { amount, type Units } from "./format/units";
import { plural } from "./pourWords";

export const COMBS = {
  drag: {
    title: "Drag through",
    how: "a skewer or comb through the colours, across the stripes, both ways",
    done: "Dragged through",
  },
  comb: { title: "Comb", how: "a comb or fork from edge to edge, wiped after each", done: "Combed" },
};

/** How a film is cut. */
export function filmWords({ of, long_m, wide_m }: Schemas["FilmCut"], units: Units): string {
  const size = `${amount(long_m, "length", units)} by ${amount(wide_m, "length", units)}`;
  return of.over === 1 ? `a piece of ${size} for each` : `pieces of ${size}, each over ${of.over}`;
}

type Items = What<"sprinkle">["items"];

/** All that is put on at once. */
export const named = (items: Items) => items.map((on) => on.name).join(", ");

const gramsOf = (items: Items, units: Units) =>
  items
    .filter((on) => on.kg > 0)
    .map(
      (on) => `, ${amount(on.kg, "mass", units)}${items.length > 1 ? ` ${on.name.toLowerCase()}` : ""} each`,
    )
    .join("");

const sheetsOf = ({ count }: Schemas["SheetOf"]) => (count === 1 ? "the sheet" : `${count} sheets`);

type Work = What<"sprinkle" | "film" | "cut" | "comb" | "groove" | "stick" | "bend">;

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
    case "stick":
      return {
        title: `Put in ${plural(what.casts, "stick", "sticks")}`,
        detail: [
          `${lineName(view, what.line)}: push it in, turn it three times so that it is coated, lay it flat.`,
          ...tryOne,
        ],
        button: "Sticks are in",
        before: "in",
        during: "too stiff in",
      };
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
