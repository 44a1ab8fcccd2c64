import type { Schemas } from "../../api/client";
import { HeatRibbon } from "../../drawings/HeatRibbon";
import { BAND_WORDS, drawnTo, reach } from "../../shared/bands";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { useWidth } from "../../shared/useWidth";

/** How this cast cools where its material usually sets, before any vessel or plan is chosen. */
export function Cooling({ cools }: { cools: Schemas["Cools"] }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(560);
  const { windows, never, works } = cools;
  const to = reach(windows, never);
  const when = (name: string) => (windows[name] ? range(windows[name], "s", units) : "");
  return (
    <div className="mt-8 max-w-3xl" ref={ref}>
      <h2 className="text-xl">{cools.place}</h2>
      <p className="mb-2">
        Poured at {amount(cools.pour.low, "temperature", units)} to{" "}
        {amount(cools.pour.high, "temperature", units)}:{" "}
        {works.includes("bend") && `bends from ${when("bend_opens")}, until ${when("bend_closes")}; `}
        {works.includes("stick") && `takes a stick until ${when("stick_closes")}; `}
        {works.includes("film") && `takes a film from ${when("comb_opens")}, until ${when("comb_closes")}; `}
        {works.includes("drag") && `dragged through until ${when("comb_closes")}; `}
        {works.includes("comb") && `combed from ${when("comb_opens")}, until ${when("comb_closes")}; `}
        {works.includes("cut") && `cut from ${when("comb_opens")}, until ${when("cutter_closes")}; `}
        {works.includes("shape") &&
          `bends on its film from ${when("comb_opens")}, until ${when("cutter_closes")}; `}
        {works.includes("groove") &&
          `leathery, to be grooved, from ${when("groove_opens")}, until ${when("groove_closes")}; `}
        {windows.touch && `touch-set after ${when("touch")}; `}
        {never.includes("unmould") ? "it does not set there" : `unmould after ${when("unmould")}`}
        {windows.over_chilled && !never.includes("over_chilled")
          ? `, before ${when("over_chilled")}: then it may crack from cold.`
          : "."}
      </p>
      <HeatRibbon
        bands={drawnTo(cools.bands, to)}
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
