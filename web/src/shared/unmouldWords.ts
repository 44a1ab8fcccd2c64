import { type Act, type ActWords, lineName, type View, type What } from "./acts";
import { plural } from "./pourWords";
import type { Wording } from "./wording";

const ANY_TIME = "whenever you like";
const MAY_CRACK = "may crack from cold in";

/** Out of its mould, off its film, its tray or its props. */
export function unmouldWords(act: Act, what: What<"unmould">, wording: Wording, view: View): ActWords {
  const piece = lineName(view, what.line);
  const pieces = plural(what.casts, "piece", "pieces");
  const peel = what.films.map((film) => `Peel ${film} off first: it comes clean once it has set. `).join("");
  const during = act.closes_s === null ? ANY_TIME : MAY_CRACK;
  if (what.laid === "join")
    return {
      title: `${pieces}: props away`,
      detail: [`${piece}: it has set. It may be moved now.`],
      button: "They hold",
      before: "sets in",
      during,
    };
  if (what.laid === "dip")
    return {
      title: `${what.casts} off the tray`,
      detail: [`${piece}: it has set. ${peel}Trim the foot.`],
      button: "Off the tray",
      before: "sets in",
      during,
    };
  if (what.sheet)
    return {
      title: `Break out ${pieces}`,
      detail: [
        `${piece}: ${peel}bend the film or paper away from the sheet, then break the webs off. A corner snaps clean when it is ready. Look at both faces: the one from below may be the better.`,
      ],
      button: "They are out",
      before: "snaps in",
      during,
    };
  switch (what.leaves) {
    case "peel":
      return {
        title: `Peel ${pieces}`,
        detail: [
          `${piece}: ${what.on_form ? "off its form first, then " : ""}bend the film away from it, not it from the film.`,
        ],
        button: "Peeled off",
        before: "peels off in",
        during,
      };
    case "rigid":
      return {
        title: `Ease ${pieces} off`,
        detail: [`${piece}: loosen the rim all round, then lift it off its oiled bowl.`],
        button: "It is off",
        before: "keeps its shape in",
        during,
      };
    case "release_opens":
      return {
        title: `Release ${pieces}, warm`,
        detail: [
          `${piece}: it holds together and still bends. Gloves. One after the other, each onto its form.`,
        ],
        button: "Released",
        before: "holds together in",
        during: "too stiff in",
      };
    case "unmould":
      return {
        title: `Unmould ${pieces}`,
        detail: [
          {
            fat: what.warmed
              ? `${piece}: the back of each in the warm hand for a moment, until it slides.`
              : `${piece}: turn the mould over. What does not drop out stays in the cold longer.`,
            sugar: `${piece}: stretch the mould, push from behind.`,
          }[wording],
        ],
        button: "Unmoulded",
        before: { sugar: "glass right through in", fat: "set and let go in" }[wording],
        during: act.closes_s === null ? "cold enough" : MAY_CRACK,
      };
  }
}
