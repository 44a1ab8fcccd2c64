import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Choice, Notice, Pick, TextField } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { FILLINGS, firstPass, type Of, type Part, type Pass, passName } from "./passes";
import { type PartFigures, solvePass } from "./queries";

interface Props {
  part: Part;
  index: number;
  figures: PartFigures | undefined;
  materials: Schemas["MaterialShown"][];
  colours: string[];
  wrong: (path: string) => string | undefined;
  onChange: (pass: Pass) => void;
}

/** Everything about one pass that can be set, and what it comes to. */
export function PassFields({ part, index, figures, materials, colours, wrong, onChange }: Props) {
  const pass = part.passes[index];
  const units = useUnits();
  const [problem, setProblem] = useState<Problem | null>(null);
  if (!pass) return null;
  const row = figures?.rows.find((r) => r.index === index);
  const fault = figures?.faults.find((f) => f.index === index);
  const depth = figures?.section.depth_m ?? 0.02;
  const at = (name: string) => wrong(`part.passes.${index}.${name}`) ?? wrong(`passes.${index}.${name}`);
  const change = (patch: Partial<Pass>) => {
    setProblem(null);
    onChange({ ...pass, ...patch } as Pass);
  };
  const by = async (given: { finished_kg: number | null; volume_m3: number | null }) => {
    try {
      const value = await solvePass({ part, index, ...given });
      const name = { fill: "level_m", shell: "thick_m", detail: "thick_m", filling: "gap_m" }[
        pass.kind as "fill"
      ];
      change({ [name]: value, ...(pass.kind === "filling" ? { kg: null } : {}) } as Partial<Pass>);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const solved = ["fill", "shell", "detail", "filling"].includes(pass.kind);
  return (
    <div className="space-y-5">
      <h2 className="text-xl">{passName(pass)}</h2>
      {fault && (
        <Notice tone="hot">
          {fault.words}
          {fault.limit !== null && fault.limit !== undefined && <> (limit: {limitWord(fault, units)})</>}.
        </Notice>
      )}
      {"melt" in pass && (
        <MeltFields
          melt={pass.melt}
          materials={materials}
          colours={colours}
          label="Melt"
          onChange={(melt) => change({ melt })}
        />
      )}
      {pass.kind === "fill" && <FillFields pass={pass} {...{ depth, at, change, materials, colours }} />}
      {(pass.kind === "shell" || pass.kind === "detail") && (
        <Layer pass={pass} depth={depth} at={at} change={change} />
      )}
      {pass.kind === "filling" && <FillingFields pass={pass} depth={depth} at={at} change={change} />}
      {pass.kind === "turned" && (
        <NumberField
          label="The whole ball's melt"
          quantity="mass"
          value={pass.ball_kg}
          onChange={(ball_kg) => change({ ball_kg })}
          error={at("ball_kg")}
          step={1}
          large
        />
      )}
      {pass.kind === "stick" && (
        <>
          <NumberField
            label="Stick, diameter"
            quantity="length"
            value={pass.diameter_m}
            onChange={(diameter_m) => change({ diameter_m })}
            error={at("diameter_m")}
            step={0.5}
          />
          <NumberField
            label="Inside"
            quantity="length"
            value={pass.inside_m}
            onChange={(inside_m) => change({ inside_m })}
            error={at("inside_m")}
            step={1}
          />
          <Choice
            label="It"
            value={pass.taken_out ? "out" : "in"}
            options={[
              { key: "in", name: "stays in" },
              { key: "out", name: "only makes the hole" },
            ]}
            onChange={(key) => change({ taken_out: key === "out" })}
          />
        </>
      )}
      {(pass.kind === "dust" || pass.kind === "centre") && (
        <>
          <TextField label="What" value={pass.name} onChange={(name) => change({ name })} />
          <NumberField
            label="A casting takes"
            quantity="mass"
            value={pass.kg}
            onChange={(kg) => change({ kg })}
            error={at("kg")}
            step={0.1}
          />
        </>
      )}
      {pass.kind === "dust" && (
        <Choice
          label="Goes"
          value={pass.on_wet ? "wet" : "empty"}
          options={[
            { key: "empty", name: "into the empty mould" },
            { key: "wet", name: "on the wet melt" },
          ]}
          onChange={(key) => change({ on_wet: key === "wet" })}
        />
      )}
      {pass.kind === "centre" && (
        <NumberField
          label="It displaces"
          quantity="volume"
          value={pass.volume_m3}
          onChange={(volume_m3) => change({ volume_m3 })}
          error={at("volume_m3")}
        />
      )}
      {solved && (
        <div className="grid grid-cols-2 gap-5">
          <NumberField
            label="Volume"
            quantity="volume"
            value={row?.volume_m3 ?? null}
            onChange={(volume_m3) => void by({ volume_m3, finished_kg: null })}
            error={problem?.path === "volume_m3" ? wordProblem(problem, units) : undefined}
          />
          <NumberField
            label="Weight, finished"
            quantity="mass"
            value={row?.finished.value.likely ?? null}
            onChange={(finished_kg) => void by({ finished_kg, volume_m3: null })}
            error={problem?.path === "finished_kg" ? wordProblem(problem, units) : undefined}
          />
        </div>
      )}
      {pass.kind === "shell" && row?.keeps && (
        <Keeps keeps={row.keeps} wanted={pass.thick_m} onSecond={() => change({ emptied: false })} />
      )}
    </div>
  );
}

function limitWord(fault: Schemas["BuildFault"], units: ReturnType<typeof useUnits>): string {
  const limit = fault.limit ?? 0;
  if (fault.code === "melts_shell" || fault.code === "mould_too_weak")
    return amount(limit, "temperature", units);
  if (fault.code === "no_room" || fault.code === "too_large")
    return amount(limit, fault.words.includes("filling") ? "mass" : "length", units);
  if (fault.code === "too_much") return amount(limit, "mass", units);
  return amount(limit, "length", units);
}

/** What a bare wall keeps of a shell that is tipped out, and what helps where that is too little. */
function Keeps({
  keeps,
  wanted,
  onSecond,
}: {
  keeps: Schemas["TooThin"];
  wanted: number;
  onSecond: () => void;
}) {
  const units = useUnits();
  const thin = keeps.coats > 1;
  return (
    <div className={`border-l-4 pl-3 ${thin ? "border-heat" : "border-glass"}`}>
      <p>
        A bare wall keeps <strong>{range(keeps.keeps, "m", units)}</strong> of this melt when it is tipped
        out.
        {thin
          ? ` For ${amount(wanted, "length", units)} it takes ${keeps.coats} coats; or let it cool and thicken first, or leave it longer before it is tipped, so that a skin sets.`
          : " One coat is enough."}
      </p>
      {thin && (
        <button
          type="button"
          className="mt-1 font-bold text-glass underline-offset-4 hover:underline"
          onClick={onSecond}
        >
          Spread it by spoon or brush instead
        </button>
      )}
    </div>
  );
}

export function MeltFields({
  melt,
  materials,
  colours,
  label,
  onChange,
}: {
  melt: Schemas["MeltRef"];
  materials: Schemas["MaterialShown"][];
  colours: string[];
  label: string;
  onChange: (melt: Schemas["MeltRef"]) => void;
}) {
  return (
    <div className="space-y-3">
      <Pick
        label={label}
        value={melt.material}
        options={materials.map((m) => ({ key: m.key, name: m.name }))}
        onChange={(material) => onChange({ ...melt, material })}
      />
      <fieldset>
        <legend className="text-sm text-quiet">Colour</legend>
        <div className="flex flex-wrap items-center gap-2">
          <button
            type="button"
            aria-pressed={melt.colour === null}
            onClick={() => onChange({ ...melt, colour: null })}
            className={`min-h-9 rounded-sm border-2 px-2 ${melt.colour === null ? "border-glass font-bold" : "border-line"}`}
          >
            as it comes
          </button>
          {colours.map((hex) => (
            <button
              key={hex}
              type="button"
              aria-label={`Colour ${hex}`}
              aria-pressed={melt.colour === hex}
              onClick={() => onChange({ ...melt, colour: hex })}
              className={`h-9 w-9 rounded-sm border-2 ${melt.colour === hex ? "border-glass outline-2 outline-glass" : "border-line"}`}
              style={{ background: hex }}
            />
          ))}
          <input
            type="color"
            aria-label={`${label}, another colour`}
            value={melt.colour ?? "#ffffff"}
            onChange={(event) => onChange({ ...melt, colour: event.target.value })}
            className="h-9 w-12"
          />
        </div>
      </fieldset>
    </div>
  );
}

interface Fields<P> {
  pass: P;
  depth: number;
  at: (name: string) => string | undefined;
  change: (patch: Partial<Pass>) => void;
}

function FillFields({
  pass,
  depth,
  at,
  change,
  materials,
  colours,
}: Fields<Of<"fill">> & { materials: Schemas["MaterialShown"][]; colours: string[] }) {
  return (
    <>
      <NumberField
        label="Fill level"
        quantity="length"
        value={pass.level_m}
        onChange={(level_m) => change({ level_m })}
        error={at("level_m")}
        step={0.1}
        large
        slider={{ low: 0.0002, high: depth }}
      />
      <Choice
        label="Of"
        value={pass.second ? "marbled" : "one"}
        options={[
          { key: "one", name: "one melt" },
          { key: "marbled", name: "marbled with a second" },
        ]}
        onChange={(key) =>
          change(
            key === "one"
              ? { second: null, second_frac: 0 }
              : { second: { ...pass.melt, colour: null }, second_frac: 0.3 },
          )
        }
      />
      {pass.second && (
        <>
          <MeltFields
            melt={pass.second}
            materials={materials}
            colours={colours}
            label="Second melt"
            onChange={(second) => change({ second })}
          />
          <NumberField
            label="Share of it"
            quantity="share"
            value={pass.second_frac}
            onChange={(second_frac) => change({ second_frac })}
            error={at("second_frac")}
            step={5}
            slider={{ low: 0.05, high: 0.95 }}
          />
        </>
      )}
    </>
  );
}

function Layer({ pass, depth, at, change }: Fields<Of<"shell"> | Of<"detail">>) {
  return (
    <>
      {pass.kind === "detail" && (
        <>
          <TextField label="What" value={pass.name} onChange={(name) => change({ name })} />
          <NumberField
            label="Of the wall"
            quantity="share"
            value={pass.share_frac}
            onChange={(share_frac) => change({ share_frac })}
            error={at("share_frac")}
            step={1}
            slider={{ low: 0.005, high: 1 }}
          />
        </>
      )}
      <NumberField
        label="Thickness"
        quantity="length"
        value={pass.thick_m}
        onChange={(thick_m) => change({ thick_m })}
        error={at("thick_m")}
        step={0.1}
        large
        slider={{ low: 0.0002, high: Math.min(depth * 0.6, 0.006) }}
      />
      {pass.kind === "shell" && (
        <>
          <Choice
            label="Laid on by"
            value={pass.emptied ? "tipped" : "spread"}
            options={[
              { key: "spread", name: "spoon or brush" },
              { key: "tipped", name: "filling and tipping out" },
            ]}
            onChange={(key) => change({ emptied: key === "tipped" })}
          />
          <Choice
            label="On"
            value={pass.sides ? "sides" : "all"}
            options={[
              { key: "all", name: "all of the wall" },
              { key: "sides", name: "the sides only" },
            ]}
            onChange={(key) => change({ sides: key === "sides" })}
          />
        </>
      )}
    </>
  );
}

function FillingFields({ pass, depth, at, change }: Fields<Of<"filling">>) {
  const first = firstPass("filling", { material: "", colour: null }, depth) as Of<"filling">;
  return (
    <>
      <Choice
        label="Of"
        value={pass.filling}
        options={FILLINGS.map((f) => ({ key: f.key, name: f.name }))}
        onChange={(filling) => change({ filling })}
      />
      {pass.kg === null ? (
        <NumberField
          label="Leaves a gap to the rim of"
          quantity="length"
          value={pass.gap_m}
          onChange={(gap_m) => change({ gap_m })}
          error={at("gap_m")}
          step={0.1}
          large
          slider={{ low: 0, high: depth * 0.8 }}
        />
      ) : (
        <p>
          By its weight.{" "}
          <button
            type="button"
            className="font-bold text-glass"
            onClick={() => change({ kg: null, gap_m: first.gap_m })}
          >
            By the gap it leaves
          </button>
        </p>
      )}
      <NumberField
        label="Goes in at"
        quantity="temperature"
        value={pass.degc}
        onChange={(degc) => change({ degc })}
        error={at("degc")}
        step={1}
      />
      <NumberField
        label="Stays in bag or spoon"
        quantity="share"
        value={pass.loss_frac}
        onChange={(loss_frac) => change({ loss_frac })}
        error={at("loss_frac")}
        step={1}
      />
    </>
  );
}
