import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Choice, TextField } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { type Fields, Marbled } from "./KindFields";
import { PassNumber } from "./PassNumber";
import { type Of, PASTES } from "./passes";

/** Lines, dollops and clusters. */
export function HeapFields({ pass, at, change }: Fields<Of<"drizzle"> | Of<"dollop"> | Of<"cluster">>) {
  if (pass.kind === "drizzle")
    return (
      <>
        <PassNumber
          {...{ pass, at, change }}
          name="length_m"
          label="All lines, how long"
          quantity="length"
          step={10}
          large
        />
        <PassNumber
          {...{ pass, at, change }}
          name="bore_m"
          label="A line, how thick"
          quantity="length"
          step={0.1}
        />
      </>
    );
  if (pass.kind === "dollop")
    return (
      <>
        <PassNumber
          {...{ pass, at, change }}
          name="count"
          label="How many"
          quantity="count"
          step={1}
          digits={0}
        />
        <PassNumber
          {...{ pass, at, change }}
          name="diameter_m"
          label="Each, how wide"
          quantity="length"
          step={0.5}
          large
        />
      </>
    );
  return (
    <>
      <TextField label="What is in it" value={pass.name} onChange={(name) => change({ name })} />
      <PassNumber
        {...{ pass, at, change }}
        name="inside_kg"
        label="Of that, each"
        quantity="mass"
        step={0.5}
        large
      />
      <PassNumber
        {...{ pass, at, change }}
        name="melt_frac"
        label="Share of melt in the heap"
        quantity="share"
        step={1}
        slider={{ low: 0.1, high: 0.8 }}
      />
    </>
  );
}

const TENTH_DEGREE = Math.PI / 1800;

/** A dip: whole or to a line, straight or at a slant, one melt or marbled; its coat reckoned or told. */
export function DipFields({
  pass,
  depth,
  at,
  change,
  materials,
  colours,
  film,
}: Fields<Of<"dip">> & {
  materials: Schemas["MaterialShown"][];
  colours: string[];
  film: number | undefined;
}) {
  const units = useUnits();
  return (
    <>
      <Choice
        label="Dipped"
        value={pass.line_m === null ? "whole" : "line"}
        options={[
          { key: "whole", name: "whole" },
          { key: "line", name: "to a line" },
        ]}
        onChange={(key) => change({ line_m: key === "whole" ? null : depth * 0.7, slant_rad: 0 })}
      />
      {pass.line_m !== null && (
        <>
          <PassNumber
            {...{ pass, at, change }}
            name="line_m"
            label="Line, over its lowest point"
            quantity="length"
            step={1}
            large
            slider={{ low: 0.001, high: depth }}
          />
          <NumberField
            label="At a slant of"
            quantity="angle"
            value={pass.slant_rad}
            onChange={(slant_rad) =>
              change({ slant_rad: Math.round(slant_rad / TENTH_DEGREE) * TENTH_DEGREE })
            }
            error={at("slant_rad")}
            step={5}
          />
        </>
      )}
      <NumberField
        label="Coat"
        quantity="length"
        value={pass.thick_m}
        hint={film === undefined ? "what stays on it" : `what stays on it: ${amount(film, "length", units)}`}
        onChange={(thick_m) => change({ thick_m })}
        onClear={() => change({ thick_m: null })}
        error={at("thick_m")}
        step={0.1}
      />
      <Marbled pass={pass} {...{ depth, at, change, materials, colours }} />
      {pass.second && (
        <p className="text-quiet">
          The second melt floats on the bath, the good side goes in first. Each piece takes its share along:
          it is planned to be used up with the last one.
        </p>
      )}
    </>
  );
}

const BALL = 6 / Math.PI;

/** A paste by its weight, or by the ball it is rolled to. */
export function PasteFields({
  pass,
  at,
  change,
  volume,
}: Fields<Of<"paste">> & { volume: number | undefined }) {
  return (
    <>
      <Choice
        label="Of"
        value={pass.paste}
        options={PASTES.map((p) => ({ key: p.key, name: p.name }))}
        onChange={(paste) => change({ paste })}
      />
      <PassNumber
        {...{ pass, at, change }}
        name="kg"
        label="A casting takes"
        quantity="mass"
        step={0.5}
        large
      />
      {volume !== undefined && volume > 0 && (
        <NumberField
          label="Rolled to a ball, diameter"
          quantity="length"
          value={Math.cbrt(BALL * volume)}
          onChange={(d) => change({ kg: (pass.kg / volume) * (d ** 3 / BALL) })}
          step={0.5}
        />
      )}
    </>
  );
}
