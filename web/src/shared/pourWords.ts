import { type Act, lineName, type View, type What } from "./acts";
import { capital } from "./format/capital";
import { amount, duration, runLength, type Units } from "./format/units";
import { doseWords } from "./melts";
import { partAndPass } from "./named";

export const plural = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** What a melt is for, pass by pass. */
export const forWhat = ({ lines }: What<"heat">, view: View): string =>
  [...new Set(lines.map((line) => lineName(view, line).toLowerCase()))].join("; ");

/** The colours that go into a melt. */
export function colours({ colours: rows }: Act, units: Units, when: string): string[] {
  if (rows === null) return [];
  return [
    rows.length === 0
      ? "No colour needed."
      : `${when}: ${rows.map((row) => doseWords(row, units)).join(", ")}.`,
  ];
}

/** Between which temperatures a bath is dipped from, and after which dips it is warmed. */
export function dipWords(floor: number, most: number, warmAfter: readonly number[], units: Units): string {
  const at = (degc: number) => amount(degc, "temperature", units);
  const warm =
    warmAfter.length === 0
      ? ""
      : `, warmed back after ${warmAfter.slice(0, 4).join(", ")}${warmAfter.length > 4 ? " and so on" : ""}`;
  return `bath at ${at(floor)} to ${at(most)}${warm}`;
}

function bathOf({ dip }: What<"pour">, units: Units): string {
  if (dip === null) return "";
  const words = dipWords(dip.floor_degc, dip.most_degc, dip.warm_after, units);
  return `${capital(words)}. `;
}

/** How large sheets are, where of the last only what is cut out of it is poured. */
export function sheetSize({ length_m, width_m, count, last_m }: Sheet, units: Units): string {
  const [whole, wide, last] = [length_m, width_m, last_m].map((m) => amount(m, "length", units));
  if (count === 1) return `${last} by ${wide}`;
  return `${whole} by ${wide}${last === whole ? "" : `, the last ${last}`}`;
}

type Sheet = NonNullable<What<"pour">["sheet"]>;

/** A sheet that is poured out and spread, to be cut. */
function sheetWords(
  sheet: Sheet,
  { each_kg, casts, thick_m }: What<"pour">,
  name: string,
  takes: string,
  units: Units,
): PourWords {
  const size = sheetSize(sheet, units);
  return {
    title: `Spread ${plural(sheet.count, "sheet", "sheets")}, ${amount(each_kg * casts, "mass", units)}`,
    how: `${size}, ${amount(thick_m, "length", units)} thick, even to the edge; tap it level: ${plural(casts, "piece", "pieces")}, ${name}. ${takes}`,
    done: "Spread",
  };
}

/** One colour of what is piped in stripes. */
function stripeWords(what: What<"pour">, name: string, takes: string, units: Units): PourWords {
  const { piped, sheet, casts, each_kg } = what;
  const length = (m: number) => amount(m, "length", units);
  const where = sheet
    ? `along ${sheet.count === 1 ? "a sheet" : `${sheet.count} sheets`} of ${sheetSize(sheet, units)}`
    : `in each of ${plural(casts, "cavity", "cavities")}`;
  const lies = piped
    ? `Bag or nozzle of ${length(piped.bore_m)}: ${piped.count} of ${piped.of_all} stripes, each ${length(piped.wide_m)} wide as it lies. `
    : "";
  return {
    title: `Pipe ${amount(each_kg * casts, "mass", units)} in stripes`,
    how: `${capital(where)}. ${lies}Side by side while all are wet, leave room for the other colours; tapped together after the last. ${name}. ${takes}`,
    done: "Piped",
  };
}

/** All lines of a drawing, or those that get a second one. */
function lineWords(
  { piped, casts, each_kg }: What<"pour">,
  name: string,
  takes: string,
  units: Units,
): PourWords {
  const each = piped
    ? `${plural(piped.count, "line", "lines")}${piped.count < piped.of_all ? " that are marked" : ""}, ${runLength(piped.long_m, units)}, bag or nozzle of ${amount(piped.bore_m, "length", units)}. `
    : "";
  return {
    title: `Pipe over ${plural(casts, "drawing", "drawings")}, ${amount(each_kg * casts, "mass", units)}`,
    how: `Each ${each}Every line into the next, none left ending short of it; ${name}. ${takes}`,
    done: "Piped",
  };
}

interface PourWords {
  title: string;
  how: string;
  done: string;
}

/** How a thin layer is laid on. */
export const LAID: Record<What<"pour">["laid_by"], { title: string; how: string }> = {
  piped: { title: "Pipe", how: "out of a bag or nozzle" },
  brush: { title: "Brush on", how: "brushed thin, one way, then across" },
  splatter: { title: "Flick on", how: "flicked off a stiff brush, what is beside covered" },
  finger: { title: "Smear on", how: "drawn with a gloved fingertip" },
  scratch: {
    title: "Brush on, scratch out",
    how: "brushed thin; once it no longer smears the lines are scratched out with a skewer, the crumbs tapped off",
  },
  mottle: { title: "Dab on", how: "dabbed here and there with a sponge or a gloved fingertip" },
  spray: {
    title: "Spray on",
    how: "in thin passes, begun and ended beside it. A mask against the mist, no flame near it",
  },
};

/** How a pass is laid on. */
export function pourWords(what: What<"pour">, view: View, units: Units): PourWords {
  const n = what.casts;
  const name = lineName(view, what.line).toLowerCase();
  const each = amount(what.each_kg, "mass", units);
  const thick = amount(what.thick_m, "length", units);
  const rests =
    what.rests_to_degc === null
      ? ""
      : `Not over ${amount(what.rests_to_degc, "temperature", units)}: it would melt the pass under it. `;
  const full = what.filled > 0 ? `${what.filled} are full already. ` : "";
  const takes = `${habitWords(what.habits)}${rests}${full}About ${duration(what.pour_s)}.`;
  const cavities = plural(n, "cavity", "cavities");
  switch (what.laid) {
    case "detail":
      return {
        title: what.sheet
          ? `${LAID[what.laid_by].title}: ${amount(what.each_kg * n, "mass", units)} on ${plural(what.sheet.count, "film", "films")}`
          : `${each} into each of ${cavities}`,
        how: `${name}: ${LAID[what.laid_by].how}, ${thick}. ${takes}`,
        done: "Laid on",
      };
    case "shell":
      return {
        title: `Shell, ${cavities}`,
        how: `${each} each, spread up to the rim, ${thick}: ${name}. ${takes}`,
        done: "Shells are laid",
      };
    case "tipped":
      return {
        title: `Fill and tip out ${cavities}`,
        how: `${each} into each, tap, tip out: ${amount(what.stays_kg, "mass", units)} stay (${thick}). Scrape the rim. ${name}. ${takes}`,
        done: "Tipped, scraped",
      };
    case "turned":
      return {
        title: `Fill ${plural(n, "ball", "balls")}, clip, turn by hand`,
        how: `${each} into one half of each, clip the other on${turning(what, name)} ${takes}`,
        done: "Clipped and turned",
      };
    case "stripes":
      return stripeWords(what, name, takes, units);
    case "lines":
      return lineWords(what, name, takes, units);
    case "swirl":
      return {
        title: `Swirl in ${amount(what.each_kg * n, "mass", units)}`,
        how: `All of it in a thin stream into the other bowl, one turn with a skewer, no more; then pour at once: ${name}.`,
        done: "Swirled in",
      };
    case "divide":
      return {
        title: `Pour ${each} off into another vessel`,
        how: `On the scale, then the colour stirred in until it is even. ${takes}`,
        done: "It is coloured",
      };
    case "dip":
      return {
        title: `Dip ${n}`,
        how: `${each} each, a coat of ${thick}: in, out slowly, shake, onto the tray: ${name}. ${bathOf(what, units)}Tilt the bowl as it empties. ${takes}`,
        done: "Dipped",
      };
    case "drizzle":
      return {
        title: `Drizzle ${n}`,
        how: `${each} each, lines of ${thick}: ${name}. ${takes}`,
        done: "Drizzled",
      };
    case "dollop":
      return {
        title: `Dollops on ${n}`,
        how: `${each} each, ${thick} high: ${name}. ${takes}`,
        done: "Laid on",
      };
    case "smear":
      return {
        title: `Spread ${plural(n, "leaf", "leaves")}, ${amount(what.each_kg * n, "mass", units)}`,
        how: `${each} each: a spoonful, drawn to a point with its back or a knife, ${thick} thick; the vein with a stick at once, down to the film: ${name}. ${takes}`,
        done: "Spread",
      };
    case "cluster":
      return {
        title: `${plural(n, "heap", "heaps")} of ${each} melt`,
        how: `Stir what binds it under, heap it up ${thick} high: ${name}. ${takes}`,
        done: "Heaped",
      };
    case "join":
      return {
        title: `Join ${plural(n, "piece", "pieces")}`,
        how: `${each} of melt a piece: ${name}. ${dabWords(what)} Cold spray on chocolate if it must be quick, never on hot sugar. ${takes}`,
        done: "Joined",
      };
    case "close":
      return {
        title: `Close ${cavities}`,
        how: `${each} each, level, scrape: ${name}. ${takes}`,
        done: "Closed",
      };
    case "fill":
      if (what.sheet) return sheetWords(what.sheet, what, name, takes, units);
      return {
        title: `Pour ${cavities}`,
        how: `${each} each, to ${amount(what.fill_m, "length", units)}: ${name}. ${takes}`,
        done: "Poured",
      };
  }
}

const dabWords = ({ dab }: What<"pour">): string =>
  dab === null
    ? "Hold each until it holds, or leave it in its prop."
    : `Let the dab soften the face for ${duration(dab.softens_s)}, press on with ${plural(dab.twists, "small twist", "small twists")}, hold until it grips.`;

/** How often the engine asks for a turn, beside practice's own where that is fewer. */
function turning({ turning: of }: What<"pour">, name: string): string {
  if (of === null) return `: ${name}.`;
  const usual = of.turns > of.usual ? ` (${of.usual} are usual; by its wall it still runs then)` : "";
  return `, turn it all over for ${duration(of.by_hand_s)}: ${name}. Then a new side down every ${duration(of.every_s)}, ${of.turns} times${usual}.`;
}

type Habit = What<"pour">["habits"][number];

/** Small acts that prevent the commonest losses, in the order they are done. */
const HABITS: Record<Habit["key"], (s: string) => string> = {
  wipe: (s) => `The mould wiped and dry (${s}).`,
  oil: (s) => `The thinnest film of oil, wiped out again (${s}).`,
  tap: (s) => `Tap after each (${s}).`,
  tap_all: (s) => `Tap the whole mould at the end (${s}).`,
  rim: (s) => `Clear the rim before it sets (${s} each): what is over it holds the piece fast.`,
  unchilled: () => "Leave it unchilled until the shell is tipped over it, so that it stays in it.",
  tip_under: (s) =>
    `Keep the tip under the surface and stop before you lift it (${s}): a thick filling sucks back.`,
};

export const habitWords = (habits: readonly Habit[]): string =>
  habits.map((h) => `${HABITS[h.key](duration(h.seconds))} `).join("");

/** Which pass a melt is for, where a piece has several. */
export function passOf({ lines }: What<"heat">, view: View): string {
  const [first] = lines;
  const named = first === undefined ? undefined : view.lines[first];
  const pass = named ? partAndPass(named) : "";
  return pass ? `: ${pass}` : "";
}
