import type { Schemas } from "../../api/client";
import { amount, type Quantity, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { NozzlePick } from "../../shared/NozzlePick";
import { OutlineFields } from "../../shared/OutlineFields";
import type { Point } from "../../shared/points";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice, TextField } from "../../shared/ui/plain";
import { ColourField } from "./ColourField";
import { MeltFields } from "./MeltFields";
import { MeltShares } from "./MeltShares";
import { fieldOf } from "./passes";
import type { AnyWords } from "./passWords";

type Field = Schemas["FieldShown"];
type Melt = Schemas["MeltRef"];

const QUANTITIES: Record<Schemas["Number"]["unit"], Quantity> = {
  m: "length",
  kg: "mass",
  m3: "volume",
  rad: "angle",
  frac: "share",
  degC: "temperature",
  s: "seconds",
  count: "count",
};

/** What is round a field: what a pass, body or join is in, and what the figures say of it. */
export interface Around {
  materials: Schemas["MaterialShown"][];
  colours: string[];
  /** Depth of the cavity, or height of the body [m]. */
  depth: number;
  across: number;
  rim: Point[];
  /** What the piece's parts are called. */
  parts: string[];
  /** What the figures say of the pass where a field is left untold. */
  row: Schemas["PassRow"] | undefined;
  wrong: (name: string, label: string) => string | undefined;
  change: (patch: Record<string, unknown>) => void;
}

/** Of what has no cavity, no figures and no melts round it. */
export const NOTHING_ROUND = {
  materials: [],
  colours: [],
  depth: 0,
  across: 0,
  rim: [],
  parts: [],
  row: undefined,
} satisfies Partial<Around>;

interface Props extends Around {
  /** The pass, body or join it is a field of. */
  of: object;
  field: Field;
  words: AnyWords | undefined;
}

/** Whether a field is set as the pass, body or join is now. */
export function isSet(of: object, field: Field): boolean {
  if (!field.only) return true;
  const other = fieldOf(of, field.only.field);
  const told = Array.isArray(other) ? other.length > 0 : other !== null && other !== false && other !== 0;
  return told === field.only.so;
}

/** One field, as what it is of tells of it. */
export function ShapeField(props: Props) {
  const { of, field, words, change, row, depth } = props;
  const value = fieldOf(of, field.name);
  const two = typeof words === "object" && "no" in words ? words : null;
  if (field.told && two) {
    const { first, also, instead } = field.told;
    const tell = () => ({
      [field.name]: first && field.number ? sizeAt(first, depth) : firstOf(props),
      ...Object.fromEntries(also.map((of) => [of.field, of.told])),
      ...(instead ? { [instead]: null } : {}),
    });
    const untell = () => ({
      [field.name]: null,
      ...Object.fromEntries(also.map((of) => [of.field, of.untold])),
      ...(instead && row ? { [instead]: row.finished.value.likely } : {}),
    });
    // without the figures there is nothing to tell instead
    const mayUntell = !instead || row !== undefined;
    return (
      <>
        <Choice
          label={two.label}
          value={value === null ? "no" : "yes"}
          options={[
            { key: "no", name: two.no },
            { key: "yes", name: two.yes },
          ]}
          onChange={(key) => (key === "yes" ? change(tell()) : mayUntell && change(untell()))}
        />
        {value !== null && <Control {...props} label={two.value ?? two.label} value={value} />}
      </>
    );
  }
  if (two)
    return (
      <Choice
        label={two.label}
        value={value === true ? "yes" : "no"}
        options={[
          { key: "no", name: two.no },
          { key: "yes", name: two.yes },
        ]}
        onChange={(key) => change({ [field.name]: key === "yes" })}
      />
    );
  if (typeof words === "object" && "of" in words) {
    const options = Object.entries(words.of).map(([key, name]) => ({ key, name }));
    const put = (key: string) => change({ [field.name]: key });
    const Options = options.length > MANY ? Pick : Choice;
    return <Options label={words.label} value={String(value)} options={options} onChange={put} />;
  }
  return <Control {...props} label={String(words ?? field.name)} value={value} />;
}

/** More than these are picked from a list. */
const MANY = 5;

const sizeAt = (size: Schemas["Size"], depth: number) =>
  size.depth_frac === null ? size.of : Math.min(size.of, size.depth_frac * depth);

/** An outline when it is first told: a square in the middle. */
function firstOf({ field, across }: Props): unknown {
  const half = ((field.told?.first?.depth_frac ?? 1) * across) / 2;
  return [
    [-half, -half],
    [half, -half],
    [half, half],
    [-half, half],
  ];
}

/** A field's own control, told. */
function Control({ of, field, label, value, ...around }: Props & { label: string; value: unknown }) {
  const { wrong, change, depth, row } = around;
  const units = useUnits();
  const put = (next: unknown) => change({ [field.name]: next });
  const error = wrong(field.name, label);
  switch (field.sort) {
    case "name":
      return <TextField label={label} value={String(value)} onChange={put} />;
    case "colour":
      return (
        <ColourField colour={value as string | null} colours={around.colours} label={label} onChange={put} />
      );
    case "melt":
      return (
        <MeltFields
          melt={value as Melt}
          materials={around.materials}
          colours={around.colours}
          label={label}
          onChange={put}
        />
      );
    case "melts":
      return (
        field.shares && (
          <MeltShares
            first={fieldOf(of, "melt") as Melt}
            others={value as Schemas["MeltShare"][]}
            shares={field.shares}
            materials={around.materials}
            colours={around.colours}
            label={label}
            error={error}
            wrong={(path) => wrong(`${field.name}.${path}`, "Share")}
            onChange={put}
          />
        )
      );
    case "part":
      return (
        <Pick
          label={label}
          value={String(value)}
          options={around.parts.map((name, i) => ({ key: String(i), name }))}
          onChange={(key) => put(Number(key))}
        />
      );
    case "outline":
      return (
        <>
          <OutlineFields corners={value as [number, number][]} within={around.rim} onChange={put} />
          {error && <Notice tone="hot">{error}</Notice>}
        </>
      );
  }
  const number = field.number;
  if (!number) return null;
  const given = typeof value === "number" ? value : null;
  const reckoned = field.told?.reckoned === true;
  const ball =
    number.rolled && given !== null && row && row.volume_m3 > 0 ? Math.cbrt(BALL * row.volume_m3) : null;
  return (
    <>
      <NumberField
        label={label}
        quantity={QUANTITIES[number.unit]}
        value={given}
        onChange={(v) =>
          put(number.unit === "count" ? Math.round(v) : number.unit === "rad" ? toTenth(v) : v)
        }
        error={error}
        step={number.step}
        large={number.large}
        {...(number.unit === "count" ? { digits: 0 } : {})}
        {...(number.slides
          ? { slider: { low: number.slides.low, high: sizeAt(number.slides.high, depth) } }
          : {})}
        {...(reckoned ? { onClear: () => put(null), hint: reckonedAs(row, units) } : {})}
      />
      {number.bore && given !== null && <NozzlePick bore_m={given} onChange={put} />}
      {ball !== null && given !== null && row && (
        <NumberField
          label="Rolled to a ball, diameter"
          quantity="length"
          value={ball}
          onChange={(d) => put((given / row.volume_m3) * (d ** 3 / BALL))}
          step={number.step}
        />
      )}
    </>
  );
}

const reckonedAs = (row: Props["row"], units: Units) =>
  row ? `what stays on it: ${amount(row.thick_m, "length", units)}` : "what stays on it";

const BALL = 6 / Math.PI;
const TENTH_DEGREE = Math.PI / 1800;
const toTenth = (rad: number) => Math.round(rad / TENTH_DEGREE) * TENTH_DEGREE;
