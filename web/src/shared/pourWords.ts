import type { Schemas } from "../api/client";
import { amount, duration, type Units } from "./format/units";
import { doseWords } from "./melts";

type Act = Schemas["ActView"];
type View = Schemas["BenchView"];

export const plural = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** What a melt is for, pass by pass. */
export function forWhat(act: Act, view: View): string {
  const lines = (act.params.lines ?? []) as number[];
  return [...new Set(lines.map((i) => (view.line_names[i] ?? "").toLowerCase()))].join("; ");
}

/** The colours that go into a melt. */
export function colours(act: Act, units: Units, when: string): string[] {
  const doses = (act.params.doses ?? []) as Parameters<typeof doseWords>[0][];
  if (!act.params.colour || !act.params.doses) return [];
  return [
    doses.length === 0
      ? "No colour needed."
      : `${when}: ${doses.map((d) => doseWords(d, units)).join(", ")}.`,
  ];
}

/** Between which temperatures a bath is dipped from, and after which dips it is warmed. */
export function dipWords(floor: number, most: number, warmAfter: number[], units: Units): string {
  const at = (degc: number) => amount(degc, "temperature", units);
  const warm =
    warmAfter.length === 0
      ? ""
      : `, warmed back after ${warmAfter.slice(0, 4).join(", ")}${warmAfter.length > 4 ? " and so on" : ""}`;
  return `bath at ${at(floor)} to ${at(most)}${warm}`;
}

function bathOf(act: Act, units: Units): string {
  const { floor_degc: floor, most_degc: most, warm_after: after } = act.params;
  if (typeof floor !== "number" || typeof most !== "number" || !Array.isArray(after)) return "";
  const words = dipWords(floor, most, after as number[], units);
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}. `;
}

/** How a pass is laid on. */
export function pourWords(act: Act, view: View, units: Units): { title: string; how: string; done: string } {
  const p = act.params as Record<string, number>;
  const n = p.casts ?? 0;
  const name = (view.line_names[p.line ?? 0] ?? "").toLowerCase();
  const each = amount(p.each_kg ?? 0, "mass", units);
  const thick = amount(p.thick_m ?? 0, "length", units);
  const rests = p.rests_to_degc
    ? `Not over ${amount(p.rests_to_degc, "temperature", units)}: it would melt the pass under it. `
    : "";
  const small = habitWords(act);
  const takes = `${small}${rests}${p.filled ? `${p.filled} are full already. ` : ""}About ${duration(p.pour_s ?? 0)}.`;
  const cavities = plural(n, "cavity", "cavities");
  switch (String(act.params.kind ?? "fill")) {
    case "detail":
      return {
        title: `${each} into each of ${cavities}`,
        how: `${name}: piped or brushed, ${thick}. ${takes}`,
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
        how: `${each} into each, tap, tip out: ${amount(p.stays_kg ?? 0, "mass", units)} stay (${thick}). Scrape the rim. ${name}. ${takes}`,
        done: "Tipped, scraped",
      };
    case "turned":
      return {
        title: `Fill ${plural(n, "ball", "balls")}, clip, turn by hand`,
        how: `${each} into one half of each, clip the other on, turn it all over for ${duration(p.by_hand_s ?? 0)}: ${name}. Then a new side down every ${duration(p.every_s ?? 0)}, ${turnCount(p)}. ${takes}`,
        done: "Clipped and turned",
      };
    case "swirl":
      return {
        title: `Swirl in ${amount((p.each_kg ?? 0) * n, "mass", units)}`,
        how: `All of it in a thin stream into the other bowl, one turn with a skewer, no more; then pour at once: ${name}.`,
        done: "Swirled in",
      };
    case "dip":
      return {
        title: `Dip ${n}`,
        how: `${each} each, a coat of ${thick}: in, out slowly, shake, onto the tray: ${name}. ${bathOf(act, units)}Tilt the bowl as it empties. ${takes}`,
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
    case "cluster":
      return {
        title: `${plural(n, "heap", "heaps")} of ${each} melt`,
        how: `Stir what binds it under, heap it up ${thick} high: ${name}. ${takes}`,
        done: "Heaped",
      };
    case "join":
      return {
        title: `Join ${plural(n, "piece", "pieces")}`,
        how: `${each} of melt a piece: ${name}. ${p.softens_s ? `Let the dab soften the face for ${duration(p.softens_s)}, press on with ${plural(p.twists ?? 0, "small twist", "small twists")}, hold until it grips.` : "Hold each until it holds, or leave it in its prop."} Cold spray on chocolate if it must be quick, never on hot sugar. ${takes}`,
        done: "Joined",
      };
    case "close":
      return {
        title: `Close ${cavities}`,
        how: `${each} each, level, scrape: ${name}. ${takes}`,
        done: "Closed",
      };
    default:
      return {
        title: `Pour ${cavities}`,
        how: `${each} each, to ${amount(p.fill_m ?? 0, "length", units)}: ${name}. ${takes}`,
        done: "Poured",
      };
  }
}

/** Small acts that prevent the commonest losses, in the order they are done. */
const HABITS: Record<string, (s: string) => string> = {
  wipe: (s) => `The mould wiped and dry (${s}).`,
  oil: (s) => `The thinnest film of oil, wiped out again (${s}).`,
  tap: (s) => `Tap after each (${s}).`,
  tap_all: (s) => `Tap the whole mould at the end (${s}).`,
  rim: (s) => `Clear the rim before it sets (${s} each): what is over it holds the piece fast.`,
  unchilled: () => "Leave it unchilled until the shell is tipped over it, so that it stays in it.",
  tip_under: (s) =>
    `Keep the tip under the surface and stop before you lift it (${s}): a thick filling sucks back.`,
};

export function habitWords(act: Act): string {
  const rows = (act.params.habits ?? []) as { key: string; seconds: number }[];
  return rows.map((h) => `${HABITS[h.key]?.(duration(h.seconds)) ?? ""} `).join("");
}

/** How many turns the engine asks for, beside practice's own where that is fewer. */
export const turnCount = (p: Record<string, number>): string =>
  (p.turns ?? 0) > (p.practised ?? 0)
    ? `${p.turns} times (${p.practised} are usual; by its wall it still runs then)`
    : `${p.turns} times`;

/** Which pass a melt is for, where a piece has several. */
export function passOf(act: Act, view: View): string {
  const [first] = (act.params.lines ?? []) as number[];
  const pass = (view.line_names[first ?? -1] ?? "").split(", ").slice(1).join(", ");
  return pass ? `: ${pass}` : "";
}
