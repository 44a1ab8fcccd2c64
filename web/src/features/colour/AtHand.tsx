import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { saveThing } from "../../api/things";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { removed } from "../../shared/removed";
import { Choice, Dialog, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, Notice, TextField } from "../../shared/ui/plain";
import { type Colour, patchesQuery, removeColour } from "./queries";
import { DYES } from "./words";

/** One colour at hand: its name, dye and kind, and how strong it is, told or by a swatch. */
export function ColourDialog({
  stored,
  base,
  onClose,
}: {
  stored: Schemas["StoredColour"];
  base: string;
  onClose: (changed: boolean) => void;
}) {
  const units = useUnits();
  const [doc, setDoc] = useState<Colour>(stored.doc);
  const [problem, setProblem] = useState<Problem | null>(null);
  const change = (patch: Partial<Colour>) => setDoc({ ...doc, ...patch });
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
      onClose(true);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  return (
    <Dialog open onClose={() => onClose(false)} title={stored.doc.name}>
      <div className="space-y-4">
        <TextField label="Name" value={doc.name} onChange={(name) => change({ name })} />
        <div className="flex flex-wrap gap-6">
          <Pick
            label="Its dye"
            value={doc.dye}
            options={DYES.map(([key, name]) => ({ key, name: `${key.toUpperCase()}, ${name}` }))}
            onChange={(dye) => change({ dye, mg_per_g: null })}
          />
          <Choice
            label="Kind"
            value={doc.kind}
            options={[
              { key: "water", name: "water-based" },
              { key: "oil", name: "oil-based or powder" },
            ]}
            onChange={(kind) => change({ kind })}
          />
        </div>
        <NumberField
          label="Dye in a gram of it, milligrams"
          quantity="count"
          digits={2}
          value={doc.mg_per_g}
          onChange={(mg_per_g) => change({ mg_per_g })}
          onClear={() => change({ mg_per_g: null })}
          hint={doc.mg_per_g === null ? "not known: lay a swatch, below" : undefined}
        />
        <Swatch stored={stored} kind={doc.kind} base={base} onStrength={(mg_per_g) => change({ mg_per_g })} />
        {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
        <div className="flex flex-wrap gap-6">
          <Button
            kind="main"
            onClick={() => void attempt(() => saveThing("colour", stored.id, stored.version, doc))}
          >
            Keep
          </Button>
          <Button kind="quiet" onClick={() => onClose(false)}>
            Leave it
          </Button>
          <Button
            kind="quiet"
            onClick={() =>
              void attempt(async () => {
                await removeColour(stored.id, stored.version);
                removed("colour", stored.doc);
              })
            }
          >
            Remove this colour
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

const SWATCH_BASE_KG = 0.02;
const SWATCH_COLOUR_KG = 0.0002;
const SWATCH_M = 0.003;

/** A weighed pinch in a weighed bit of base, held against patches: the nearest says how strong the colour is. */
function Swatch({
  stored,
  kind,
  base,
  onStrength,
}: {
  stored: Schemas["StoredColour"];
  kind: Colour["kind"];
  base: string;
  onStrength: (mg_per_g: number) => void;
}) {
  const units = useUnits();
  const [baseKg, setBaseKg] = useState(SWATCH_BASE_KG);
  const [colourKg, setColourKg] = useState(SWATCH_COLOUR_KG);
  const over = kind === "water" ? "clear_isomalt" : base === "clear_isomalt" ? "bright_coating" : base;
  const patches = useQuery(patchesQuery(over, stored.id, SWATCH_M)).data ?? [];
  return (
    <section aria-label="Swatch" className="border-t border-line pt-4">
      <h3 className="text-lg">Lay a swatch</h3>
      <p className="text-quiet">
        Stir a weighed bit into a weighed bit of base, {amount(SWATCH_M, "length", units)} thick, let it set,
        and press the patch nearest to it.
      </p>
      <div className="my-3 flex gap-6">
        <NumberField label="Base" quantity="mass" value={baseKg} onChange={setBaseKg} step={1} />
        <NumberField
          label="Of the colour"
          quantity="mass"
          value={colourKg}
          onChange={setColourKg}
          step={0.1}
          digits={2}
        />
      </div>
      <div className="flex flex-wrap gap-1">
        {patches.map((patch, i) => (
          <button
            key={patch.mg_kg}
            type="button"
            aria-label={`Patch ${i + 1}`}
            className="h-14 w-14 border border-line text-sm font-bold"
            style={{ backgroundColor: patch.look }}
            onClick={() => onStrength(Number(((patch.mg_kg * baseKg) / (colourKg * 1000)).toPrecision(3)))}
          >
            <span className="bg-panel px-1 text-ink">{i + 1}</span>
          </button>
        ))}
      </div>
    </section>
  );
}
