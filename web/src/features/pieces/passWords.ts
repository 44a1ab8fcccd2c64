import { DRY, DUSTS, LAID_BY, OF_PASTE, PASTES, STATUS } from "./choiceWords";
import type { Body, Join, Kind, Of, Way } from "./passes";

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

/** What a kind and its fields are called. */
interface KindWords<K extends Kind> {
  name: string;
  /** What its edge is called that is dragged, where it is not its field's name. */
  edge?: string;
  fields: { [F in Exclude<keyof Of<K>, "kind" | "whole">]: Words<Of<K>[F]> };
}

/** What each kind of pass is called, and each of its fields. */
export const PASSES: { [K in Kind]: KindWords<K> } = {
  dust: {
    name: "Dust or sprinkles",
    fields: {
      name: "What",
      kg: "A casting takes",
      on_wet: { label: "Goes", no: "into the empty mould", yes: "on the wet melt" },
      status: STATUS,
    },
  },
  print: {
    name: "Film: print or texture",
    fields: {
      name: "What",
      on_wet: { label: "Goes", no: "into the empty mould", yes: "on the melt, pressed" },
      of: { label: "It is", of: { transfer: "a print that comes off", texture: "a texture" } },
      made_for: { label: "Made for", of: { food: "food", decoration: "decoration only" } },
      laid: {
        label: "Laid",
        of: { flat: "on all of it", corner: "on one corner", folded: "folded to a V" },
      },
      in_row: "Under one strip, in a row",
    },
  },
  curved: {
    name: "Bent on its film",
    fields: {
      how: { label: "Bent", of: { curve: "over a curved form", v: "to a V" } },
      form_m: "Form, or mouth of the V, across",
      held: { label: "Its ends are held", of: { form: "by the form", magnets: "by magnets" } },
      forms_count: "So many forms at hand",
    },
  },
  band: {
    name: "Band round a form",
    fields: {
      form_m: "Form, across",
      overlap_m: "The ends lap at the seam",
      forms_count: "So many forms at hand",
    },
  },
  lines: { name: "Lines over a drawing", fields: { melt: "Melt" } },
  detail: {
    name: "Detail",
    edge: "Detail thickness",
    fields: {
      name: "What",
      melt: "Melt",
      outline: { label: "Where", no: "a share of the face", yes: "its own outline" },
      share_frac: "Of the face",
      thick_m: "Thickness",
      by: { label: "Laid on by", of: LAID_BY },
    },
  },
  shell: {
    name: "Shell",
    edge: "Shell thickness",
    fields: {
      melt: "Melt",
      thick_m: "Thickness",
      emptied: { label: "Laid on by", no: "spoon or brush", yes: "filling and tipping out" },
      sides: { label: "On", no: "all of the wall", yes: "the sides only" },
      dwell_s: "Stands full before it is tipped",
      others: "Melts beside it",
    },
  },
  comb: {
    name: "Comb or drag",
    fields: {
      how: {
        label: "Drawn",
        of: { drag: "through wet colours, side by side", comb: "for lines that stay" },
      },
      strokes_count: "Strokes, over all",
      deep_m: "How deep",
    },
  },
  groove: {
    name: "Grooves",
    fields: { count: "How many", wide_m: "How wide", deep_m: "How deep" },
  },
  stick: {
    name: "Stick",
    fields: {
      diameter_m: "Stick, diameter",
      inside_m: "Inside",
      use: {
        label: "It",
        of: { stays: "stays in", reseated: "is drawn back, reseated", hole: "only makes the hole" },
      },
    },
  },
  centre: {
    name: "Solid centre",
    fields: { name: "What", kg: "A casting takes", volume_m3: "It displaces" },
  },
  filling: {
    name: "Filling",
    edge: "Top of the filling",
    fields: {
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
  },
  close: { name: "Close", fields: { melt: "Melt" } },
  fill: {
    name: "Solid fill",
    fields: {
      melt: "Melt",
      level_m: "Fill level",
      others: "Melts beside it",
      stripes_m: {
        label: "Laid",
        no: "swirled in one bowl, poured",
        yes: "piped in stripes",
        value: "Bag or nozzle, opening",
      },
    },
  },
  turned: { name: "Turned ball", fields: { melt: "Melt", ball_kg: "The whole ball's melt" } },
  paste: {
    name: "Pressed paste",
    fields: {
      paste: {
        label: "Of",
        of: PASTES,
      },
      kg: "A casting takes",
      colour: "Colour",
    },
  },
  ball: { name: "Ball", fields: { paste: OF_PASTE, diameter_m: "Diameter", dry: DRY, colour: "Colour" } },
  rope: {
    name: "Rope",
    fields: {
      paste: OF_PASTE,
      thick_m: "A strand, how thick",
      length_m: "As it lies, how long",
      strands_count: "Strands, twisted",
      dry: DRY,
      colour: "Colour",
    },
  },
  rolled: {
    name: "Rolled out, cut",
    fields: {
      paste: OF_PASTE,
      thick_m: "Thickness",
      length_m: "Long",
      width_m: "Wide",
      layers_count: "Layers on each other",
      dry: DRY,
      colour: "Colour",
    },
  },
  ribbon: {
    name: "Ribbon, bow, ruffle",
    fields: {
      paste: OF_PASTE,
      thick_m: "Thickness",
      width_m: "Wide",
      length_m: "As it lies, how long",
      laid: {
        label: "Laid",
        of: { flat: "flat", ruffle: "as a ruffle", pleats: "in pleats", bow: "as a bow" },
      },
      dry: DRY,
      colour: "Colour",
    },
  },
  rose: {
    name: "Rose",
    fields: {
      paste: OF_PASTE,
      petals_count: "Petals",
      petal_m: "A petal, how wide",
      thick_m: "A petal, how thick",
      dry: DRY,
      colour: "Colour",
    },
  },
  extra: {
    name: "Pearls, small things",
    fields: {
      name: "What",
      sort: {
        label: "It is",
        of: {
          sweet: "a sweet",
          pearls: "pearls",
          board: "a board",
          cup: "a cup",
          paper: "a paper",
          other: "something else",
        },
      },
      count: "How many",
      each_kg: "Each weighs",
      wide_m: "Each, how wide",
      on_wet: { label: "Goes", no: "into the cavity first", yes: "on the wet melt" },
      status: STATUS,
    },
  },
  wire: {
    name: "Wire",
    fields: {
      name: "What",
      gauge: "Gauge",
      count: "How many",
      out_m: "Stands out",
      inside_m: "Set in so deep",
      foot_m: "Foot bent at its end",
      load_kg: "Carries at its end",
      status: STATUS,
    },
  },
  trim: {
    name: "Ribbon or lace",
    fields: {
      name: "What",
      sort: { label: "It is", of: { ribbon: "a ribbon", lace: "sugar lace", paper: "paper" } },
      count: "How many",
      form_m: "Form at its widest, across",
      overlap_m: "The ends lap",
      high_m: "How high",
      status: STATUS,
    },
  },
  dusted: {
    name: "Dry dust, brushed on",
    fields: {
      name: "What",
      dust: DUSTS,
      colour: "Colour",
      share_frac: "Of what is seen",
      coats_count: "Coats",
      status: STATUS,
    },
  },
  painted: {
    name: "Paint: dust in a spirit",
    fields: {
      name: "What",
      dust: DUSTS,
      colour: "Colour",
      share_frac: "Of what is seen",
      coats_count: "Coats",
      alcohol_frac: "Alcohol in the spirit, by volume",
      dust_frac: "Dust in the mix, by volume",
      status: STATUS,
    },
  },
  lacquered: {
    name: "Lacquer, sprayed",
    fields: { name: "What", share_frac: "Of what is seen", coats_count: "Coats", status: STATUS },
  },
  drizzle: {
    name: "Drizzle",
    fields: { melt: "Melt", length_m: "All lines, how long", bore_m: "A line, how thick" },
  },
  dollop: { name: "Dollops", fields: { melt: "Melt", count: "How many", diameter_m: "Each, how wide" } },
  smear: {
    name: "Leaf or petal, spread",
    fields: {
      melt: "Melt",
      length_m: "Long",
      width_m: "Wide",
      thick_m: "Thickness",
      gap_m: "Vein, how wide",
    },
  },
  cluster: {
    name: "Cluster",
    fields: {
      name: "What is in it",
      melt: "Melt",
      inside_kg: "Of that, each",
      melt_frac: "Share of melt in the heap",
    },
  },
  dip: {
    name: "Dip",
    edge: "Dip line",
    fields: {
      melt: "Melt",
      line_m: { label: "Dipped", no: "whole", yes: "to a line", value: "Line, over its lowest point" },
      slant_rad: "At a slant of",
      thick_m: "Coat",
      others: "Melts beside it",
    },
  },
};

/** Ways of laying a pass that are offered beside the usual one. */
export const WAYS: Record<Way, string> = {
  brushed: "Accent, brushed",
  splattered: "Accent, splattered",
  finger: "Accent, by finger",
  butter: "Cocoa butter, brushed",
  scratched: "Cocoa butter, scratched out",
  mottled: "Cocoa butter, mottled",
  sprayed: "Cocoa butter, sprayed",
  sweets: "Bought sweets",
  set_out: "Board, cup or paper",
  lace: "Sugar lace",
};

/** What the fields of a body that is dipped are called. */
export const BODY: { [F in keyof Body]: Words<Body[F]> } = {
  name: "What is dipped",
  made_of: {
    label: "Of",
    of: {
      fruit: "Fruit",
      cake: "Cake",
      biscuit: "Biscuit",
      ganache: "Ganache",
      balloon: "Balloon",
      steel: "Steel former",
      glass: "Glass former",
    },
  },
  shape: { label: "Shape", of: { ball: "ball, egg", cone: "cone on its tip", rod: "rod" } },
  diameter_m: "Wide",
  high_m: "High",
  degc: "Dipped at",
  tray: "Side by side",
};

/** What the fields of a join are called. */
export const JOIN: { [F in keyof Join]: Words<Join[F]> } = {
  part: "Join",
  to: "to",
  by: { label: "By", of: { melt: "melt", soften: "warmed faces", glue: "edible glue" } },
  melt: "Melt",
  count: "Such joins in a piece",
  seam_m: "Seam, each join",
  dots: "Dots, each join",
  bead_m: "Bead or dot, how wide",
  gap_m: "Gap under it",
  deep_m: "so deep",
  props: "Pieces the props hold",
};

export type AnyWords = string | TwoWords | ChoiceWords<string>;

/** A field's words, by its name. */
export const wordsOf = (kind: Kind, field: string): AnyWords | undefined =>
  (PASSES[kind].fields as Record<string, AnyWords>)[field];
