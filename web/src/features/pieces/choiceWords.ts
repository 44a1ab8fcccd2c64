import type { TwoWords } from "./passWords";

export const PASTES = {
  fondant: "Fondant",
  gum_paste: "Gum paste",
  modelling_chocolate: "Modelling chocolate",
  marzipan: "Marzipan",
};
export const OF_PASTE = { label: "Of", of: PASTES };
export const DRY: TwoWords = { label: "Goes on", no: "soft", yes: "dry, off its form" };

export const STATUS = {
  label: "By its label it is",
  of: {
    food: "food",
    contact: "for contact with food, not eaten",
    non_toxic: "non-toxic, which is not food",
    no_contact: "not for contact with food",
    unknown: "not known: not food",
  },
};

export const DUSTS = {
  label: "Sort",
  of: {
    petal: "petal dust, matt",
    lustre: "lustre",
    pearl: "pearl, turns with the light",
    highlighter: "metallic highlighter",
    sparkle: "sparkle, coarse",
  },
};

export const LAID_BY = {
  piped: "bag or nozzle",
  brush: "brush",
  splatter: "flicking a brush",
  finger: "finger",
  scratch: "brush, then scratched out",
  mottle: "dabbing",
  spray: "spray",
};
