import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf, type Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, Notice, TextField } from "../../shared/ui/plain";
import { useDebounced } from "../../shared/useDebounced";
import { ColourDialog } from "./AtHand";
import { Palettes } from "./Palettes";
import { type Asked, addColour, colourListQuery, recipeQuery } from "./queries";
import { BASES, missWords, nearWords } from "./words";

const PAUSE_MS = 40;
const FIRST: Omit<Asked, "colour_ids"> = {
  base: "clear_isomalt",
  batch_kg: 0.3,
  wanted: "#3f7fd0",
  thicknesses_m: [0.003, 0.012],
  on_white: false,
  already: [],
};

/** From a wanted colour to grams and drops, and how each thickness will look. */
const OIL_WORDS: Record<Schemas["Coloured"]["oil"], string> = {
  "": "",
  thins: ": its oil thins the melt, which may help a thick one.",
  softens: ": so much oil keeps it soft. Take a powder, or a darker base.",
};

export function ColourView() {
  const items = useQuery(colourListQuery).data?.items;
  return items ? <Batch items={items} /> : null;
}

function Batch({ items }: { items: Schemas["StoredColour"][] }) {
  const units = useUnits();
  const queryClient = useQueryClient();
  const [batch, setBatch] = useState(FIRST);
  const [left, setLeft] = useState<string[]>([]);
  const [open, setOpen] = useState<string | null>(null);
  const clear = batch.base === "clear_isomalt";
  const suits = items.filter((c) => (c.doc.kind === "water") === clear);
  const colour_ids = suits.filter((c) => !left.includes(c.id)).map((c) => c.id);
  const query = useQuery({
    ...recipeQuery(useDebounced({ ...batch, colour_ids }, PAUSE_MS)),
    enabled: colour_ids.length > 0,
  });
  const of = query.error ? undefined : query.data;
  const problem = query.error ? problemOf(query.error) : null;
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  const change = (patch: Partial<typeof batch>) => setBatch({ ...batch, ...patch });
  const edited = items.find((c) => c.id === open);
  const refresh = () => void queryClient.invalidateQueries({ queryKey: ["colour"] });
  const add = async () => {
    const id = await addColour(clear ? "water" : "oil");
    refresh();
    setOpen(id);
  };
  const alreadyOf = (id: string) => batch.already.find((row) => row.colour_id === id)?.grams ?? null;
  const setAlready = (colour_id: string, grams: number) =>
    change({
      already: [
        ...batch.already.filter((r) => r.colour_id !== colour_id),
        ...(grams > 0 ? [{ colour_id, grams }] : []),
      ],
    });
  return (
    <div className="grid min-h-full lg:grid-cols-[280px_1fr]">
      <section aria-label="The batch" className="space-y-4 bg-panel px-6 py-6">
        <h2 className="text-xl">The batch</h2>
        <Pick
          label="Of"
          value={batch.base}
          options={BASES}
          onChange={(base) => change({ base, already: [] })}
        />
        <NumberField
          label="How much"
          quantity="mass"
          value={batch.batch_kg}
          onChange={(batch_kg) => change({ batch_kg })}
          error={wrong("batch_kg")}
          step={10}
        />
        <div className="flex items-end gap-4">
          <TextField
            label="Wanted colour"
            value={batch.wanted}
            onChange={(wanted) => change({ wanted })}
            error={wrong("wanted")}
          />
          <input
            type="color"
            aria-label="Wanted colour, picked"
            className="h-11 w-14 shrink-0"
            value={/^#[0-9a-f]{6}$/i.test(batch.wanted) ? batch.wanted : "#888888"}
            onChange={(event) => change({ wanted: event.target.value })}
          />
        </div>
        {clear && (
          <>
            {batch.thicknesses_m.map((thickness, i) => (
              <NumberField
                // biome-ignore lint/suspicious/noArrayIndexKey: a thickness is known by its order
                key={i}
                label={i === 0 ? "Right at a thickness of" : "and shown at"}
                quantity="length"
                value={thickness}
                onChange={(next) =>
                  change({ thicknesses_m: batch.thicknesses_m.map((t, k) => (k === i ? next : t)) })
                }
                error={wrong("thickness_m")}
                step={0.5}
              />
            ))}
            <Choice
              label="Seen"
              value={batch.on_white ? "white" : "light"}
              options={[
                { key: "light", name: "through it" },
                { key: "white", name: "on white" },
              ]}
              onChange={(key) => change({ on_white: key === "white" })}
            />
          </>
        )}
        <h2 className="border-t border-line pt-4 text-xl">Colours at hand</h2>
        <p className="text-quiet">
          {clear
            ? "Water-based, a drop at a time, after the bubbles. Oil-based colour parts from sugar."
            : "Oil-based or powder. A drop of water seizes the bowl. Much oil-based colour thins it."}
        </p>
        <ul className="space-y-1">
          {suits.map((c) => (
            <li key={c.id} className="flex items-center justify-between gap-3">
              <label className="flex min-w-0 items-center gap-2">
                <input
                  type="checkbox"
                  className="h-5 w-5 shrink-0"
                  checked={!left.includes(c.id)}
                  onChange={() =>
                    setLeft(left.includes(c.id) ? left.filter((id) => id !== c.id) : [...left, c.id])
                  }
                />
                <span>{c.doc.name}</span>
              </label>
              <Button kind="quiet" label={`Change ${c.doc.name}`} onClick={() => setOpen(c.id)}>
                {c.doc.mg_per_g === null ? "swatch" : "change"}
              </Button>
            </li>
          ))}
        </ul>
        {items.length > suits.length && (
          <p className="text-sm text-quiet">
            Not for this:{" "}
            {items
              .filter((c) => !suits.includes(c))
              .map((c) => c.doc.name)
              .join("; ")}
            .
          </p>
        )}
        <Button kind="quiet" onClick={() => void add()}>
          Add a colour
        </Button>
      </section>
      <section className="min-w-0 px-7 py-6" aria-label="Recipe">
        <h1 className="text-3xl">Colour</h1>
        {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
        {colour_ids.length === 0 && <p className="mt-4 text-xl">Choose or add a colour that suits this.</p>}
        {/* the place is kept until the recipe is there */}
        <div className="min-h-[34rem]">
          {of && colour_ids.length > 0 && (
            <div className={query.isPlaceholderData ? "opacity-60" : ""}>
              <p className="mt-2 text-xl" role="status">
                <strong>{nearWords(of.delta_e)}</strong> ({of.delta_e.toFixed(1)} CIEDE2000). {missWords(of)}
              </p>
              <Swatches of={of} wanted={batch.wanted} />
              <h2 className="mt-6 border-b border-line pb-1 text-xl">Stir in</h2>
              {of.doses.length === 0 && <p className="mt-2">Nothing: it is as near as it comes.</p>}
              <dl className="mt-2 flex flex-wrap gap-x-12 gap-y-4">
                {of.doses.map((dose) => (
                  <div key={dose.colour_id} className="flex flex-col-reverse">
                    <dt className="text-quiet">
                      {dose.name}, {dose.mg_kg.toFixed(0)} mg of dye a kg
                    </dt>
                    <dd className="text-3xl font-bold">
                      {dose.add_kg === null
                        ? "strength unknown: lay a swatch"
                        : dose.drops !== null
                          ? `${dose.drops < 10 ? dose.drops.toFixed(1) : Math.round(dose.drops)} drops, ${amount(dose.add_kg, "mass", units)}`
                          : amount(dose.add_kg, "mass", units)}
                    </dd>
                  </div>
                ))}
              </dl>
              <p className="mt-3 text-quiet">
                {of.total_mg_kg.toFixed(0)} of {of.most_mg_kg.toFixed(0)} mg a kg, the most that is usual for
                decorations, recalled: check what is allowed where you sell.{" "}
                {!of.clear &&
                  `${amount(of.added_frac, "share", units)} of it is colour by weight${OIL_WORDS[of.oil] ?? "."}`}
                {!of.clear &&
                  " How strongly this base scatters is assumed, and an oil-based colour is mostly pigment: lay a swatch before a whole batch."}
                {of.strong && " A strong colour: it takes much, so buy it for this."}
                {of.better_base && (
                  <strong> Start it from {of.better_base.toLowerCase()}: that comes nearer.</strong>
                )}
              </p>
              <Corrections
                suits={suits}
                alreadyOf={alreadyOf}
                onAlready={setAlready}
                wrong={problem?.path ?? ""}
              />
            </div>
          )}
        </div>
        <Palettes wanted={batch.wanted.toLowerCase()} clear={clear} />
        {edited && (
          <ColourDialog
            key={edited.id}
            stored={edited}
            base={batch.base}
            onClose={(changed) => {
              setOpen(null);
              if (changed) refresh();
            }}
          />
        )}
      </section>
    </div>
  );
}

const LIGHT_WORDS: Record<string, string> = { daylight: "in daylight", warm: "in warm light" };

function Swatches({ of, wanted }: { of: Schemas["Coloured"]; wanted: string }) {
  const units = useUnits();
  const shown = [
    { name: "wanted", look: wanted },
    { name: "uncoloured", look: of.plain },
    ...of.swatches.flatMap((swatch) =>
      Object.entries(swatch.looks).map(([light, look]) => ({
        name: `${of.clear ? `${amount(swatch.thickness_m, "length", units)}, ` : ""}${LIGHT_WORDS[light] ?? light}`,
        look,
      })),
    ),
  ];
  return (
    <div className="mt-4 flex flex-wrap gap-3">
      {shown.slice(0, of.clear ? undefined : 4).map((row) => (
        <figure key={row.name} className="w-32">
          <div
            role="img"
            aria-label={`${row.name}: ${row.look}`}
            className="h-24 border border-line"
            style={{ backgroundColor: row.look }}
          />
          <figcaption className="mt-1 leading-tight">
            {row.name}
            <span className="block text-sm text-quiet">{row.look}</span>
          </figcaption>
        </figure>
      ))}
    </div>
  );
}

/** Colour is only ever added: what is in the batch already stays in it. */
function Corrections({
  suits,
  alreadyOf,
  onAlready,
  wrong,
}: {
  suits: Schemas["StoredColour"][];
  alreadyOf: (id: string) => number | null;
  onAlready: (id: string, grams: number) => void;
  wrong: string;
}) {
  const units = useUnits();
  return (
    <section aria-label="In it already" className="mt-6">
      <h2 className="border-b border-line pb-1 text-xl">In it already</h2>
      <p className="mt-1 text-quiet">Colour can only be added, never taken out.</p>
      <div className="mt-3 grid max-w-3xl gap-4 sm:grid-cols-2 xl:grid-cols-3">
        {suits
          .filter((c) => c.doc.mg_per_g !== null)
          .map((c) => ({ ...c, grams: alreadyOf(c.id) }))
          .map((c) => (
            <NumberField
              key={c.id}
              label={c.doc.name}
              quantity="mass"
              value={c.grams === null ? null : c.grams / 1000}
              onChange={(kg) => onAlready(c.id, kg * 1000)}
              onClear={() => onAlready(c.id, 0)}
              error={wrong.startsWith("already") ? `More in it than can be (${units.mass}).` : undefined}
              step={0.1}
            />
          ))}
      </div>
    </section>
  );
}
