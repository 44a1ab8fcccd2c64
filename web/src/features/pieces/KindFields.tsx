import type { Schemas } from "../../api/client";
import { OutlineFields } from "../../shared/OutlineFields";
import { Choice, Notice, TextField } from "../../shared/ui/controls";
import { MeltFields } from "./MeltFields";
import { PassNumber } from "./PassNumber";
import { FILLINGS, firstPass, type Of, type Pass } from "./passes";

export interface Fields<P> {
  pass: P;
  depth: number;
  at: (name: string) => string | undefined;
  change: (patch: Partial<Pass>) => void;
}

export function FillFields({
  pass,
  depth,
  at,
  change,
  materials,
  colours,
}: Fields<Of<"fill">> & { materials: Schemas["MaterialShown"][]; colours: string[] }) {
  return (
    <>
      <PassNumber
        {...{ pass, at, change }}
        name="level_m"
        label="Fill level"
        quantity="length"
        step={0.1}
        large
        slider={{ low: 0.0002, high: depth }}
      />
      <Marbled pass={pass} {...{ depth, at, change, materials, colours }} />
    </>
  );
}

/** One melt, or marbled with a share of a second. */
export function Marbled({
  pass,
  at,
  change,
  materials,
  colours,
}: Fields<Of<"fill"> | Of<"dip">> & { materials: Schemas["MaterialShown"][]; colours: string[] }) {
  return (
    <>
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
          <PassNumber
            {...{ pass, at, change }}
            name="second_frac"
            label="Share of it"
            quantity="share"
            step={5}
            slider={{ low: 0.05, high: 0.95 }}
          />
        </>
      )}
    </>
  );
}

const square = (side: number): [number, number][] =>
  [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([x, y]) => [((x ?? 0) * side) / 2, ((y ?? 0) * side) / 2]);

export function Layer({
  pass,
  depth,
  across,
  rim,
  at,
  change,
}: Fields<Of<"shell"> | Of<"detail">> & { across: number; rim: number[][] }) {
  return (
    <>
      {pass.kind === "detail" && (
        <>
          <TextField label="What" value={pass.name} onChange={(name) => change({ name })} />
          <Choice
            label="Where"
            value={pass.outline ? "outline" : "share"}
            options={[
              { key: "share", name: "a share of the wall" },
              { key: "outline", name: "its own outline" },
            ]}
            onChange={(key) => change({ outline: key === "outline" ? square(across / 3) : null })}
          />
          {pass.outline ? (
            <OutlineFields
              corners={pass.outline as [number, number][]}
              within={rim}
              onChange={(outline) => change({ outline })}
            />
          ) : (
            <PassNumber
              {...{ pass, at, change }}
              name="share_frac"
              label="Of the wall"
              quantity="share"
              step={1}
              slider={{ low: 0.005, high: 1 }}
            />
          )}
          {at("outline") && <Notice tone="hot">{at("outline")}</Notice>}
        </>
      )}
      <PassNumber
        {...{ pass, at, change }}
        name="thick_m"
        label="Thickness"
        quantity="length"
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

export function FillingFields({ pass, depth, at, change }: Fields<Of<"filling">>) {
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
        <PassNumber
          {...{ pass, at, change }}
          name="gap_m"
          label="Leaves a gap to the rim of"
          quantity="length"
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
      <PassNumber {...{ pass, at, change }} name="degc" label="Goes in at" quantity="temperature" step={1} />
      <PassNumber
        {...{ pass, at, change }}
        name="loss_frac"
        label="Stays in bag or spoon"
        quantity="share"
        step={1}
      />
    </>
  );
}
