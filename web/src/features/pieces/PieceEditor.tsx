import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { Section } from "../../drawings/Section";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { kitchenQuery, propertiesQuery } from "../../shared/kitchen";
import { savePiece } from "../../shared/pieces";
import { shapeName } from "../../shared/shapes";
import { Button, Choice, Notice, Pick, TextField } from "../../shared/ui/controls";
import { Figure } from "../../shared/ui/Figure";
import { NumberField } from "../../shared/ui/NumberField";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useDebounced } from "../../shared/useDebounced";
import { useThing } from "../../shared/useThing";
import { Cooling } from "./Cooling";
import { measure, type Piece, pieceFiguresQuery } from "./queries";

/** While a fill line is dragged the drawing follows at once, the figures this often. */
const DRAG_PAUSE_MS = 40;

const FIRST_STICK: Schemas["Stick"] = { diameter_m: 0.004, inside_m: 0.03 };

export function PieceEditor({
  stored,
  moulds,
  onRemove,
}: {
  stored: Schemas["StoredPiece"];
  moulds: Schemas["StoredMould"][];
  onRemove: (id: string, version: number) => void;
}) {
  const units = useUnits();
  const thing = useThing<Piece>(stored, "piece", savePiece);
  const { doc, change } = thing;
  const kinds = moulds.find((m) => m.id === doc.mould_id)?.doc.cavities ?? [];
  const [typedProblem, setTypedProblem] = useState<Problem | null>(null);
  const query = useQuery(pieceFiguresQuery(doc, useDebounced(doc.fill_m, DRAG_PAUSE_MS)));
  const figures = query.data;
  const amounts = figures?.amounts;
  const problem = typedProblem ?? (query.error ? problemOf(query.error) : null);
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  const length = (si: number) => amount(si, "length", units);

  const level = (fill_m: number) => {
    setTypedProblem(null);
    change({ fill_m });
  };
  const stick = (patch: Partial<Schemas["Stick"]>) =>
    change({ stick: { ...(doc.stick ?? FIRST_STICK), ...patch } });
  const by = async (given: { volume_m3: number } | { finished_kg: number }) => {
    try {
      const { mould_id, cavity, material, stick } = doc;
      level((await measure({ mould_id, cavity, material, stick, ...given })).amounts.fill_m);
    } catch (error) {
      setTypedProblem(problemOf(error));
    }
  };
  const castable = (useQuery(propertiesQuery).data?.groups ?? [])
    .filter((group) => group.name === "melts" || group.name === "own")
    .flatMap((group) => group.rows)
    .filter((m) => m.key === "isomalt" || m.family === "fat");
  const dim = query.isPlaceholderData;
  return (
    <div className="grid min-h-full xl:grid-cols-[1fr_320px]">
      <section className="px-8 py-6">
        <TextField large label="Name of the piece" value={doc.name} onChange={(name) => change({ name })} />
        <SaveMark thing={thing} />
        {figures && amounts && (
          <>
            <div className="mt-2 flex flex-wrap items-baseline justify-between gap-x-8">
              <p className="text-quiet">Drag the fill line, or type beside it.</p>
              <p className="text-quiet">
                <Figure
                  of={amounts.finished}
                  name="Finished, one casting"
                  className="text-3xl text-ink"
                  dim={dim}
                />{" "}
                finished
              </p>
            </div>
            <Section
              section={figures.section}
              fill={Math.min(doc.fill_m, figures.section.depth_m)}
              stick={doc.stick}
              onFill={level}
              length={length}
            />
            <dl className={`mt-4 flex flex-wrap gap-x-12 gap-y-3 ${dim ? "opacity-50" : ""}`}>
              {(
                [
                  ["poured", amounts.poured],
                  ["scraped off", amounts.scraped],
                  ["finished", amounts.finished],
                  ["volume", amounts.volume],
                ] as const
              ).map(([name, of]) => (
                <div key={name} className="flex flex-col-reverse">
                  <dt className="text-quiet">{name}</dt>
                  <dd>
                    <Figure of={of} name={name} className="text-2xl" />
                  </dd>
                </div>
              ))}
            </dl>
            <div className={dim ? "opacity-50" : ""}>
              <Cooling figures={figures} work={doc.work} />
            </div>
          </>
        )}
        {problem && !["fill_m", "fill_m3", "finished_kg"].includes(problem.path) && (
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        )}
      </section>
      <section aria-label="The pass" className="space-y-5 bg-panel px-7 py-6">
        <h2 className="text-xl">Solid cast</h2>
        <Pick
          label="Of"
          value={doc.material}
          options={castable.map((m) => ({ key: m.key, name: m.name }))}
          onChange={(material) =>
            change(doc.work === "bend" && material !== "isomalt" ? { material, work: "none" } : { material })
          }
        />
        <Pick
          label="Mould"
          value={doc.mould_id}
          options={moulds.map((m) => ({ key: m.id, name: m.doc.name }))}
          onChange={(mould_id) => change({ mould_id, cavity: 0 })}
        />
        {kinds.length > 1 && (
          <Pick
            label="Cavity"
            value={String(doc.cavity)}
            options={kinds.map((kind, i) => ({
              key: String(i),
              name: kind.name,
              note: shapeName(kind.shape.kind),
            }))}
            onChange={(key) => change({ cavity: Number(key) })}
          />
        )}
        <NumberField
          label="Fill level"
          quantity="length"
          value={doc.fill_m}
          onChange={level}
          error={wrong("fill_m")}
          step={0.1}
          large
          slider={figures ? { low: 0.0002, high: figures.section.depth_m } : { low: 0.0002, high: 0.01 }}
        />
        <NumberField
          label="Volume"
          quantity="volume"
          value={amounts?.volume.value.likely ?? null}
          onChange={(volume_m3) => void by({ volume_m3 })}
          error={wrong("fill_m3")}
        />
        <NumberField
          label="Weight, finished"
          quantity="mass"
          value={amounts?.finished.value.likely ?? null}
          onChange={(finished_kg) => void by({ finished_kg })}
          error={wrong("finished_kg")}
        />
        <Choice
          label="While it is soft"
          value={doc.work}
          options={[
            { key: "none", name: "leave it" },
            ...(doc.material === "isomalt" ? [{ key: "bend" as const, name: "bend it" }] : []),
            { key: "stick", name: "put in a stick" },
          ]}
          onChange={(work) => change({ work, stick: work === "stick" ? (doc.stick ?? FIRST_STICK) : null })}
        />
        {(doc.stays ?? []).length > 0 && (
          <OwnWay stays={doc.stays ?? []} onClear={() => change({ stays: [] })} />
        )}
        {doc.stick && (
          <div className="grid grid-cols-2 gap-5">
            <NumberField
              label="Stick, diameter"
              quantity="length"
              value={doc.stick.diameter_m}
              onChange={(diameter_m) => stick({ diameter_m })}
              error={wrong("stick.diameter_m")}
              step={0.5}
            />
            <NumberField
              label="In the melt"
              quantity="length"
              value={doc.stick.inside_m}
              onChange={(inside_m) => stick({ inside_m })}
              error={wrong("stick.inside_m3") ?? wrong("stick.inside_m")}
              step={1}
            />
          </div>
        )}
        <Button kind="quiet" onClick={() => onRemove(stored.id, thing.version)}>
          Remove this piece
        </Button>
      </section>
    </div>
  );
}

/** A piece may have its own way through places, taken from the heat explorer. */
function OwnWay({ stays, onClear }: { stays: Schemas["Stay"][]; onClear: () => void }) {
  const places = useQuery(kitchenQuery).data?.doc.places ?? [];
  const words = stays.map((stay, i) => {
    const name =
      stay.care === "hand"
        ? "in the hand"
        : (places.find((p) => p.id === stay.place_id)?.name ?? "a place that is gone");
    const kept = stay.care === "wrapped" ? `${name}, wrapped` : name;
    return i === 0 ? kept : `${kept} at ${duration(stay.from_s)}`;
  });
  return (
    <div>
      <span className="block text-sm text-quiet">Goes its own way</span>
      <p className="text-lg font-bold">{words.join(", then ")}</p>
      <Button kind="quiet" onClick={onClear}>
        as the order has it
      </Button>
    </div>
  );
}
