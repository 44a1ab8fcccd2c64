import type { Schemas } from "../../api/client";

/** Ways of casting to start from. */
export const STARTS: Record<Schemas["StartShown"]["key"], { name: string; note: string }> = {
  solid: { name: "Solid cast", note: "a mould, filled to a level" },
  motif: { name: "Solid motif with details", note: "smallest details first, the body over all" },
  lollipop: { name: "Lollipop", note: "the stick goes into the soft cast" },
  pop: { name: "Cake pop on a stick", note: "cap, shell, stick, filling, close" },
  shell: { name: "Filled shell", note: "accent, shell tipped out, filling, close" },
  ball: { name: "Hollow ball, whole", note: "clipped in its two-part mould, turned" },
  panels: {
    name: "Panels, put together",
    note: "more panels than a mould holds; beads between them, props",
  },
  leaf: { name: "Leaf or bow from a textured mat", note: "poured thin, released warm, bent on a form" },
  fruit: { name: "Dipped fruit", note: "to a line, drizzled" },
  former: { name: "Dipped former", note: "a balloon or form, taken out again" },
  cluster: { name: "Cluster or dollop on a mat", note: "nuts bound by melt, sprinkled while wet" },
  filigree: { name: "Filigree over a drawing", note: "lines piped on film, lifted off when they are set" },
  modelled: { name: "Modelled by hand", note: "balls, ropes, ribbons, bows, roses of paste" },
  pressed: { name: "Pressed paste", note: "fondant, gum paste, modelling chocolate" },
};
