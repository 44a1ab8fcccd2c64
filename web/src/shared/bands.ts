import type { Schemas, Spread } from "../api/client";

type Band = Schemas["Band"];
const at = (s: number): Spread => ({ low: s, likely: s, high: s });

/** The states of a cast from its pour, in order, the last one up to the edge of the drawing. */
export function castBands(
  windows: Record<string, Spread>,
  never: readonly string[],
  work: string | null,
  to: number,
): Band[] {
  const from = (name: string) => windows[name] ?? at(to);
  const starts: [Band["state"], Spread][] =
    work === "join"
      ? [
          ["hold", at(0)],
          ["holds", from(windows.touch !== undefined ? "still" : "holds")],
          ["firm", from("unmould")],
        ]
      : windows.touch !== undefined
        ? [
            [work === "stick" ? "stick" : "fluid", at(0)],
            ["thickens", from("stick_closes")],
            ["touch", from("touch")],
            ["unmould", from("unmould")],
            ...(never.includes("over_chilled")
              ? []
              : [["over_chilled", from("over_chilled")] as [Band["state"], Spread]]),
          ]
        : work === "bend"
          ? [
              ["soft", at(0)],
              ["bend", from("bend_opens")],
              ["stiff", from("bend_closes")],
              ["unmould", from("unmould")],
            ]
          : work === "stick"
            ? [
                ["stick", at(0)],
                ["setting", from("stick_closes")],
                ["unmould", from("unmould")],
              ]
            : [
                ["setting", at(0)],
                ["unmould", from("unmould")],
              ];
  return starts.map(([state, start], i) => ({ state, start, end: starts[i + 1]?.[1] ?? at(to) }));
}

/** How far a drawing of these windows must reach. */
export function reach(windows: Record<string, Spread>, never: readonly string[]): number {
  const seen = Object.entries(windows).filter(([name]) => !never.includes(name) && name !== "cool_to_hold");
  return 1.15 * Math.max(60, ...seen.map(([, spread]) => spread.high));
}

/** What the bands of a ribbon are called. */
export const BAND_WORDS: Record<Schemas["Band"]["state"], string> = {
  too_hot: "bubbles, too hot",
  too_warm: "too hot",
  pour: "POUR",
  thickening: "thickening",
  stiff: "too stiff",
  heating: "heating",
  ready: "OFF THE HEAT",
  browns: "browns",
  soft: "too soft",
  bend: "BEND",
  setting: "setting",
  unmould: "UNMOULD",
  release: "RELEASE WARM",
  next_pass: "NEXT PASS",
  hold: "HOLD IT",
  holds: "holds, leave it",
  firm: "FIRM",
  set: "set",
  stick: "STICKS",
  fluid: "fluid",
  thickens: "thickening",
  touch: "touch-set",
  over_chilled: "over-chilled",
  overheats: "overheats",
  flows: "FLOWS",
  tempering: "to be tempered",
};
