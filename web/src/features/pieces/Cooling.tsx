import type { Schemas } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { BAND_WORDS } from "../../shared/actWords";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { useWidth } from "../../shared/useWidth";

/** How this cast cools in the kitchen's first place, before any pot or plan is chosen. */
export function Cooling({ figures, bend }: { figures: Schemas["PieceFigures"]; bend: boolean }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(560);
  const { bend_opens, bend_closes, unmould } = figures;
  const to = unmould.high * 1.2;
  const zero = { low: 0, likely: 0, high: 0 };
  const last = { state: "unmould", start: unmould, end: { low: to, likely: to, high: to } };
  const bands = bend
    ? [
        { state: "soft", start: zero, end: bend_opens },
        { state: "bend", start: bend_opens, end: bend_closes },
        { state: "stiff", start: bend_closes, end: unmould },
        last,
      ]
    : [{ state: "setting", start: zero, end: unmould }, last];
  return (
    <div className="mt-8 max-w-3xl" ref={ref}>
      <h2 className="text-xl">On the {figures.place.toLowerCase()}</h2>
      <p className="mb-2">
        Poured at {amount(figures.pour.low, "temperature", units)} to{" "}
        {amount(figures.pour.high, "temperature", units)}:{" "}
        {bend && (
          <>
            bends from {range(bend_opens, "s", units)}, until {range(bend_closes, "s", units)};{" "}
          </>
        )}
        unmould after {range(unmould, "s", units)}.
      </p>
      <HeatRibbon
        bands={bands}
        from={0}
        to={to}
        width={width}
        height={64}
        words={BAND_WORDS}
        label="How the piece cools"
      />
    </div>
  );
}
