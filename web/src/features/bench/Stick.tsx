import type { Schemas } from "../../api/client";
import { ThermoStick, type Zone } from "../../drawings/ThermoStick";
import { curveAt } from "../../shared/curve";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import type { Wording } from "../../shared/wording";

const TOP_OVER_K = 10;

/** The selected pot or round against its windows. */
export function Stick({
  ribbon,
  elapsed,
  room,
}: {
  ribbon: Schemas["Ribbon"];
  elapsed: number;
  room: number;
}) {
  const units = useUnits();
  const now = curveAt(ribbon.curve, ribbon.curve.likely_degc, elapsed);
  const low = curveAt(ribbon.curve, ribbon.curve.low_degc, elapsed);
  const high = curveAt(ribbon.curve, ribbon.curve.high_degc, elapsed);
  const coldest = Math.min(room - 2, ...ribbon.curve.likely_degc.map((t) => t - 2));
  // a bowl that is tempered stands on the scale of its own windows
  const hottest =
    ribbon.marks.of === "temper"
      ? ribbon.marks.spoils - TOP_OVER_K / 2
      : Math.max(...ribbon.curve.likely_degc);
  return (
    <div className="hidden lg:block">
      <ThermoStick
        low={coldest}
        high={hottest + TOP_OVER_K}
        height={185}
        width={300}
        word={(degc) => amount(degc, "temperature", units)}
        zones={zones(ribbon, coldest, hottest + TOP_OVER_K).filter((zone) => zone.to > zone.from)}
        reading={now ?? undefined}
        band={low !== null && high !== null ? { low, high } : undefined}
      />
    </div>
  );
}

/** What a scale is divided into, by what lies in it, from its lowest temperature to its top. */
function zones({ marks, wording }: Schemas["Ribbon"], low: number, top: number): Zone[] {
  switch (marks.of) {
    case "heating":
      return [
        { from: low, to: marks.ready, fill: "dots", word: "heating" },
        { from: marks.ready, to: marks.spoils, fill: "open", word: OUT[marks.spoilt] },
        { from: marks.spoils, to: top, fill: "hatch", word: marks.spoilt },
      ];
    case "temper":
      return [
        { from: low, to: marks.work_low, fill: "close-dots", word: "thickens, sets" },
        { from: marks.work_low, to: marks.work_high, fill: "open", word: "in temper: works" },
        { from: marks.work_high, to: marks.loses, fill: "dots", word: "temper melts away" },
        { from: marks.loses, to: marks.melt_low, fill: "crosses", word: "no temper left" },
        { from: marks.melt_low, to: marks.spoils, fill: "plain", word: "melt to here" },
        { from: marks.spoils, to: Math.max(top, marks.spoils), fill: "hatch", word: "too hot" },
      ];
    case "pot":
      return POT[wording](marks, low, top);
    case "held":
      return [
        { from: low, to: marks.stiff, fill: "crosses", word: STIFF[wording] },
        { from: marks.stiff, to: marks.flows, fill: "close-dots", word: "thickening" },
        { from: marks.flows, to: top, fill: "open", word: "flows" },
      ];
    case "glass":
      return [
        { from: low, to: marks.glass, fill: "plain", word: "glass" },
        { from: marks.glass, to: marks.bend_closes, fill: "crosses", word: "cracks if bent" },
        { from: marks.bend_closes, to: marks.bend_opens, fill: "open", word: "bends" },
        { from: marks.bend_opens, to: top, fill: "dots", word: "too soft" },
      ];
    case "setting":
      return [
        { from: low, to: marks.over_chilled, fill: "crosses", word: "over-chilled" },
        {
          from: Math.max(low, marks.over_chilled),
          to: marks.unmould,
          fill: "open",
          word: "lets go, once set",
        },
        { from: marks.unmould, to: top, fill: "dots", word: "still warm" },
      ];
  }
}

const OUT = { browns: "off the heat", overheats: "take it out" };
const STIFF: Record<Wording, string> = { sugar: "too stiff", fat: "sets, in time" };

const POT: Record<Wording, (marks: Schemas["PotMarks"], low: number, top: number) => Zone[]> = {
  sugar: (marks, low, top) => [
    { from: low, to: marks.stiff, fill: "crosses", word: "too stiff" },
    { from: marks.stiff, to: marks.pour_closes, fill: "close-dots", word: "thickening" },
    { from: marks.pour_closes, to: marks.pour_opens, fill: "open", word: "pour" },
    { from: marks.pour_opens, to: top, fill: "hatch", word: "bubbles" },
  ],
  fat: (marks, low, top) => [
    { from: low, to: marks.pour_closes, fill: "close-dots", word: "thickens, sets" },
    { from: marks.pour_closes, to: marks.pour_opens, fill: "open", word: "fluid: pour" },
    { from: marks.pour_opens, to: top, fill: "hatch", word: "too hot" },
  ],
};
