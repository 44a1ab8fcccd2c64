import type { Schemas } from "../../api/client";
import { duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { isDark } from "../../shared/tones";
import { type Pass, passName, passTone } from "./passes";

const HANDS_TONE = "#cfa775";
/** Of the bar, for each letter of a word in it. */
const LETTER = 0.016;

/** One round of a mould or tray as a bar: hands at each pass, and how long it sets before the next. */
export function OneRound({ sets, passes, of }: { sets: Schemas["PartSets"]; passes: Pass[]; of: string }) {
  const units = useUnits();
  const { stretches, all_s, hands_s, casts } = sets;
  const end = stretches.at(-1)?.to_s;
  if (!end) return null;
  return (
    <section aria-label={`One round of the ${of}`} className="mt-6">
      <h2 className="text-xl">
        One round of the {of}, {casts} {casts === 1 ? "casting" : "castings"}: {duration(end)}, hands free for{" "}
        {duration(end - hands_s)}
      </h2>
      <div className="mt-2 flex h-12 w-full overflow-hidden rounded-sm">
        {stretches.map((s) => {
          const pass = passes[s.index];
          const tone = s.what === "sets" ? null : pass ? (passTone(pass) ?? HANDS_TONE) : null;
          const share = (s.to_s - s.from_s) / end;
          const word = s.what === "sets" ? "sets" : pass ? passName(pass).toLowerCase() : "";
          return (
            <div
              key={`${s.index} ${s.what}`}
              style={{ width: `${share * 100}%`, ...(tone ? { background: tone } : {}) }}
              title={`${pass ? passName(pass) : ""}, ${s.what}: ${duration(s.to_s - s.from_s)}`}
              className={`flex items-center overflow-hidden pl-1.5 text-sm whitespace-nowrap ${tone ? (isDark(tone) ? "text-white" : "text-black") : "bg-line text-ink"}`}
            >
              {share > LETTER * word.length && word}
            </div>
          );
        })}
      </div>
      <p className="mt-1 text-quiet">{range(all_s, "s", units)}. One tray timed there narrows it.</p>
    </section>
  );
}
