import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Choice, TextField } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { type Fields, Marbled } from "./KindFields";
import { type Of, PASTES } from "./passes";

/** Lines, dollops and clusters. */
export function HeapFields({ pass, at, change }: Fields<Of<"drizzle"> | Of<"dollop"> | Of<"cluster">>) {
  if (pass.kind === "drizzle")
    return (
      <>
        <NumberField
          label="All lines, how long"
          quantity="length"
          value={pass.length_m}
          onChange={(length_m) => change({ length_m })}
          error={at("length_m")}
          step={10}
          large
        />
        <NumberField
          label="A line, how thick"
          quantity="length"
          value={pass.bore_m}
          onChange={(bore_m) => change({ bore_m })}
          error={at("bore_m")}
          step={0.1}
        />
      </>
    );
  if (pass.kind === "dollop")
    return (
      <>
        <NumberField
          label="How many"
          quantity="count"
          value={pass.count}
          onChange={(count) => change({ count: Math.round(count) })}
          error={at("count")}
          step={1}
          digits={0}
        />
        <NumberField
          label="Each, how wide"
          quantity="length"
          value={pass.diameter_m}
          onChange={(diameter_m) => change({ diameter_m })}
          error={at("diameter_m")}
          step={0.5}
          large
        />
      </>
    );
  return (
    <>
      <TextField label="What is in it" value={pass.name} onChange={(name) => change({ name })} />
      <NumberField
        label="Of that, each"
        quantity="mass"
        value={pass.inside_kg}
        onChange={(inside_kg) => change({ inside_kg })}
        error={at("inside_kg")}
        step={0.5}
        large
      />
      <NumberField
        label="Share of melt in the heap"
        quantity="share"
        value={pass.melt_frac}
        onChange={(melt_frac) => change({ melt_frac })}
        error={at("melt_frac")}
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
          <NumberField
            label="Line, over its lowest point"
            quantity="length"
            value={pass.line_m}
            onChange={(line_m) => change({ line_m })}
            error={at("line_m")}
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
      <NumberField
        label="A casting takes"
        quantity="mass"
        value={pass.kg}
        onChange={(kg) => change({ kg })}
        error={at("kg")}
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
