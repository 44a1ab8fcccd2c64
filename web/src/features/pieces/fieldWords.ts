import type { Kind, Of } from "./passes";

/** Two ways a field may be, each in words. */
export interface TwoWords {
  label: string;
  /** Not so, or left untold. */
  no: string;
  /** So, or told. */
  yes: string;
  /** What the field itself is called where it is told. */
  value?: string;
}

export interface ChoiceWords<V extends string> {
  label: string;
  of: Record<V, string>;
}

type Words<V> = [V] extends [boolean]
  ? TwoWords
  : null extends V
    ? TwoWords | string
    : [V] extends [string]
      ? string extends V
        ? string
        : ChoiceWords<V>
      : string;

/** What an editor calls each field of each kind. */
export const FIELDS: { [K in Kind]: { [F in Exclude<keyof Of<K>, "kind" | "whole">]: Words<Of<K>[F]> } } = {
  dust: {
    name: "What",
    kg: "A casting takes",
    on_wet: { label: "Goes", no: "into the empty mould", yes: "on the wet melt" },
  },
  print: { name: "What", on_wet: { label: "Goes", no: "into the empty mould", yes: "on the wet melt" } },
  detail: {
    name: "What",
    melt: "Melt",
    outline: { label: "Where", no: "a share of the wall", yes: "its own outline" },
    share_frac: "Of the wall",
    thick_m: "Thickness",
  },
  shell: {
    melt: "Melt",
    thick_m: "Thickness",
    emptied: { label: "Laid on by", no: "spoon or brush", yes: "filling and tipping out" },
    sides: { label: "On", no: "all of the wall", yes: "the sides only" },
    dwell_s: "Stands full before it is tipped",
  },
  stick: {
    diameter_m: "Stick, diameter",
    inside_m: "Inside",
    use: {
      label: "It",
      of: { stays: "stays in", reseated: "is drawn back, reseated", hole: "only makes the hole" },
    },
  },
  centre: { name: "What", kg: "A casting takes", volume_m3: "It displaces" },
  filling: {
    filling: { label: "Of", of: { cake: "Cake", ganache: "Ganache", cream: "Cream", fruit: "Fruit" } },
    gap_m: {
      label: "How much",
      no: "by its weight",
      yes: "by the gap it leaves",
      value: "Leaves a gap to the rim of",
    },
    kg: "A casting takes",
    degc: "Goes in at",
    loss_frac: "Stays in bag or spoon",
  },
  close: { melt: "Melt" },
  fill: {
    melt: "Melt",
    level_m: "Fill level",
    second: { label: "Of", no: "one melt", yes: "marbled with a second", value: "Second melt" },
    second_frac: "Share of it",
  },
  turned: { melt: "Melt", ball_kg: "The whole ball's melt" },
  paste: {
    paste: {
      label: "Of",
      of: { fondant: "Fondant", gum_paste: "Gum paste", modelling_chocolate: "Modelling chocolate" },
    },
    kg: "A casting takes",
  },
  drizzle: { melt: "Melt", length_m: "All lines, how long", bore_m: "A line, how thick" },
  dollop: { melt: "Melt", count: "How many", diameter_m: "Each, how wide" },
  cluster: {
    name: "What is in it",
    melt: "Melt",
    inside_kg: "Of that, each",
    melt_frac: "Share of melt in the heap",
  },
  dip: {
    melt: "Melt",
    line_m: { label: "Dipped", no: "whole", yes: "to a line", value: "Line, over its lowest point" },
    slant_rad: "At a slant of",
    thick_m: "Coat",
    second: { label: "Of", no: "one melt", yes: "marbled with a second", value: "Second melt" },
    second_frac: "Share of it",
  },
};

/** What the edge of a pass is called that is dragged, where it is not its field's name. */
export const EDGES: Partial<Record<Kind, string>> = {
  dip: "Dip line",
  filling: "Top of the filling",
  shell: "Shell thickness",
  detail: "Detail thickness",
};
