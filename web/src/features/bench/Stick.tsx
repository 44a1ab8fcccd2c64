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
  const { work_low, spoils } = ribbon.marks_degc;
  const hottest =
    work_low === undefined || spoils === undefined
      ? Math.max(...ribbon.curve.likely_degc)
      : spoils - TOP_OVER_K / 2;
  return (
    <div className="hidden lg:block">
      <ThermoStick
        low={coldest}
        high={hottest + TOP_OVER_K}
        height={185}
        width={300}
        word={(degc) => amount(degc, "temperature", units)}
        zones={zones(ribbon, room, coldest, hottest + TOP_OVER_K)}
        reading={now ?? undefined}
        band={low !== null && high !== null ? { low, high } : undefined}
      />
    </div>
  );
}

function zones(ribbon: Schemas["Ribbon"], room: number, low: number, top: number): Zone[] {
  return ZONES[ribbon.wording](ribbon, room, low, top);
}

type Marks = (name: string) => number;

const marksOf =
  (ribbon: Schemas["Ribbon"], room: number): Marks =>
  (name) =>
    ribbon.marks_degc[name] ?? room;

const ZONES: Record<Wording, typeof zones> = { sugar: sugarZones, fat: fatZones };

function heating(at: Marks, room: number, top: number, spoils: "browns" | "overheats", out: string): Zone[] {
  return [
    { from: room - 2, to: at("ready"), fill: "dots", word: "heating" },
    { from: at("ready"), to: at(spoils), fill: "open", word: out },
    { from: at(spoils), to: top, fill: "hatch", word: spoils },
  ];
}

function fatZones(ribbon: Schemas["Ribbon"], room: number, low: number, top: number): Zone[] {
  const at = marksOf(ribbon, room);
  if (ribbon.phase === "heating") return heating(at, room, top, "overheats", "take it out");
  if (ribbon.marks_degc.work_low !== undefined)
    return [
      { from: room - 2, to: at("work_low"), fill: "close-dots", word: "thickens, sets" },
      { from: at("work_low"), to: at("work_high"), fill: "open", word: "in temper: works" },
      { from: at("work_high"), to: at("loses"), fill: "dots", word: "temper melts away" },
      { from: at("loses"), to: at("melt_low"), fill: "crosses", word: "no temper left" },
      { from: at("melt_low"), to: at("spoils"), fill: "plain", word: "melt to here" },
      { from: at("spoils"), to: Math.max(top, at("spoils")), fill: "hatch", word: "too hot" },
    ];
  if (ribbon.subject.of === "pot")
    return [
      { from: room - 2, to: at("pour_closes"), fill: "close-dots", word: "thickens, sets" },
      { from: at("pour_closes"), to: at("pour_opens"), fill: "open", word: "fluid: pour" },
      { from: at("pour_opens"), to: top, fill: "hatch", word: "too hot" },
    ];
  const chilled = at("over_chilled");
  return [
    { from: low, to: chilled, fill: "crosses", word: "over-chilled" },
    { from: Math.max(low, chilled), to: at("unmould_degc"), fill: "open", word: "lets go, once set" },
    { from: at("unmould_degc"), to: top, fill: "dots", word: "still warm" },
  ];
}

function sugarZones(ribbon: Schemas["Ribbon"], room: number, _: number, top: number): Zone[] {
  const at = marksOf(ribbon, room);
  if (ribbon.phase === "heating") return heating(at, room, top, "browns", "off the heat");
  if (ribbon.subject.of === "pot")
    return [
      { from: room - 2, to: at("stiff"), fill: "crosses", word: "too stiff" },
      { from: at("stiff"), to: at("pour_closes"), fill: "close-dots", word: "thickening" },
      { from: at("pour_closes"), to: at("pour_opens"), fill: "open", word: "pour" },
      { from: at("pour_opens"), to: top, fill: "hatch", word: "bubbles" },
    ];
  return [
    { from: room - 2, to: at("unmould"), fill: "plain", word: "glass: unmould" },
    { from: at("unmould"), to: at("bend_closes"), fill: "crosses", word: "cracks if bent" },
    { from: at("bend_closes"), to: at("bend_opens"), fill: "open", word: "bends" },
    { from: at("bend_opens"), to: top, fill: "dots", word: "too soft" },
  ];
}
