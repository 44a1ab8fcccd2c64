import { memo } from "react";
import type { Problem, Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { lastMaterial } from "../../shared/pieces";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice } from "../../shared/ui/plain";
import { meltsIn } from "../../shared/wording";
import type { Cast } from "./queries";

const FIRST: Schemas["FirstPass"] = { material: "coating", thickness_m: 0.0015, degc: 20 };
const BEND: Schemas["BendRequest"] = { radius_m: 0.03, over_s: 3 };
const OWN_FIELDS = ["thickness_m", "wall_m", "pour_degc", "first.thickness_m", "radius_m", "over_s"];

/** What is cast: a piece, or a thickness of a material in a mould; how hot; on what; and how it is bent. */
export const CastInputs = memo(function CastInputs({
  cast,
  onChange,
  groups,
  pieces,
  pouredAt,
  problem,
}: {
  cast: Cast;
  onChange: (patch: Partial<Cast>) => void;
  groups: Schemas["Group"][];
  pieces: Schemas["StoredPiece"][];
  /** What it is poured at when nothing else is said. */
  pouredAt: number | null;
  problem: Problem | null;
}) {
  const units = useUnits();
  const rows = (name: string) => groups.find((g) => g.name === name)?.rows ?? [];
  const melts = meltsIn(groups);
  const melt = melts.find((m) => m.key === cast.material);
  const glass = melt?.family?.bends === true;
  const named = (list: Schemas["MaterialShown"][]) => list.map((m) => ({ key: m.key, name: m.name }));
  const value = (name: string) => melt?.properties.find((p) => p.name === name)?.likely;
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  const piece = pieces.find((p) => p.id === cast.piece_id);
  const materialChosen = (key: string) => {
    const next = melts.find((m) => m.key === key);
    const bends = next?.family?.bends === true;
    onChange({
      material: key,
      temper: "tempered",
      pour_degc: null,
      water_frac: null,
      first: null,
      bend: bends ? (cast.bend ?? BEND) : null,
    });
  };
  return (
    <section aria-label="The cast" className="space-y-4 bg-panel px-6 py-6">
      <h2 className="text-xl">The cast</h2>
      <Pick
        label="Cast"
        value={cast.piece_id ?? ""}
        options={[
          { key: "", name: "a thickness" },
          ...pieces.map((p) => ({ key: p.id, name: p.doc.name, note: lastMaterial(p.doc) })),
        ]}
        onChange={(id) => {
          const chosen = pieces.find((p) => p.id === id);
          if (chosen) materialChosen(lastMaterial(chosen.doc));
          onChange({ piece_id: id || null, shape: "plate" });
        }}
      />
      <Pick label="Of" value={cast.material} options={named(melts)} onChange={materialChosen} />
      {melt?.family?.tempers && (
        <Choice
          label="Temper"
          value={cast.temper}
          options={[
            { key: "tempered", name: "good" },
            { key: "under", name: "under" },
            { key: "unseeded", name: "none" },
          ]}
          onChange={(temper) => onChange({ temper })}
        />
      )}
      {glass && (
        <NumberField
          label="Water left in it"
          quantity="share"
          value={cast.water_frac ?? value("water_dry_melt") ?? null}
          onChange={(water_frac) => onChange({ water_frac })}
          error={wrong("water_frac")}
          step={0.1}
          hint={cast.water_frac === null ? "as a usual cook leaves" : undefined}
        />
      )}
      {!piece && (
        <>
          <Choice
            label="Shape"
            value={cast.shape}
            options={[
              { key: "plate", name: "plate" },
              { key: "rod", name: "rod" },
              { key: "ball", name: "ball" },
            ]}
            onChange={(shape) => onChange({ shape })}
          />
          <NumberField
            label={cast.shape === "plate" ? "Thickness" : "Radius"}
            quantity="length"
            value={cast.thickness_m}
            onChange={(thickness_m) => onChange({ thickness_m })}
            error={wrong("thickness_m")}
            step={0.1}
            large
            slider={{ low: 0.0005, high: 0.02 }}
          />
          <Pick
            label="In, or on"
            value={cast.mould}
            options={named([...rows("moulds"), ...rows("fillings").filter((m) => FILMS.includes(m.key))])}
            onChange={(mould) => onChange({ mould, wall_m: wallOf(rows("moulds"), mould) })}
          />
          <NumberField
            label="Its wall"
            quantity="length"
            value={cast.wall_m}
            onChange={(wall_m) => onChange({ wall_m })}
            error={wrong("wall_m")}
            step={0.1}
          />
        </>
      )}
      <NumberField
        label="Poured at"
        quantity="temperature"
        value={cast.pour_degc ?? pouredAt}
        onChange={(pour_degc) => onChange({ pour_degc })}
        error={wrong("pour_degc")}
        slider={glass ? { low: 105, high: 165 } : { low: 28, high: 55 }}
        step={1}
      />
      {cast.shape === "plate" && (
        <Pick
          label="Poured on"
          value={cast.first?.material ?? ""}
          options={[
            { key: "", name: "nothing" },
            ...named(melts.filter((m) => m.family?.rows === melt?.family?.rows)),
            ...named(rows("fillings").filter((m) => !FILMS.includes(m.key))),
          ]}
          onChange={(key) =>
            onChange({
              first: key ? { ...(cast.first ?? FIRST), material: key, degc: glass ? 60 : FIRST.degc } : null,
            })
          }
        />
      )}
      {cast.first && (
        <div className="grid grid-cols-2 gap-5">
          <NumberField
            label="How thick"
            quantity="length"
            value={cast.first.thickness_m}
            onChange={(thickness_m) => cast.first && onChange({ first: { ...cast.first, thickness_m } })}
            error={wrong("first.thickness_m")}
            step={0.1}
          />
          <NumberField
            label="How warm"
            quantity="temperature"
            value={cast.first.degc}
            onChange={(degc) => cast.first && onChange({ first: { ...cast.first, degc } })}
            error={wrong("first.degc")}
            step={1}
          />
        </div>
      )}
      {glass && cast.bend && (
        <div className="grid grid-cols-2 gap-5">
          <NumberField
            label="Bent to a radius of"
            quantity="length"
            value={cast.bend.radius_m}
            onChange={(radius_m) => cast.bend && onChange({ bend: { ...cast.bend, radius_m } })}
            error={wrong("radius_m")}
            step={1}
          />
          <NumberField
            label="Within"
            quantity="seconds"
            value={cast.bend.over_s}
            onChange={(over_s) => cast.bend && onChange({ bend: { ...cast.bend, over_s } })}
            error={wrong("over_s")}
            step={1}
          />
        </div>
      )}
      {problem && !OWN_FIELDS.includes(problem.path) && (
        <Notice tone="hot">{wordProblem(problem, units)}</Notice>
      )}
    </section>
  );
});

/** Films are cast on, not poured over. */
const FILMS = ["acetate", "paper"];
const FILM_WALL_M = 0.0001;

const wallOf = (moulds: Schemas["MaterialShown"][], key: string): number =>
  moulds.find((m) => m.key === key)?.properties.find((p) => p.name === "wall")?.likely ?? FILM_WALL_M;
