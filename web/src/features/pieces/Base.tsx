import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { shapeName } from "../../shared/shapes";
import { Choice, Pick, TextField } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { BODIES, type Body, type Part } from "./passes";
import { startsQuery } from "./queries";

/** What a part is cast in or made on: a mould and one of its cavities, or a body that is dipped. */
export function Base({
  part,
  moulds,
  wrong,
  onChange,
}: {
  part: Part;
  moulds: Schemas["StoredMould"][];
  wrong: (path: string) => string | undefined;
  onChange: (patch: Partial<Part>) => void;
}) {
  const kinds = moulds.find((m) => m.id === part.mould_id)?.doc.cavities ?? [];
  const [first] = moulds;
  const dipped = useQuery(startsQuery)
    .data?.flatMap((of) => of.piece.parts)
    .find((of) => of.body)?.body;
  return (
    <>
      <Choice
        label="Made"
        value={part.body ? "body" : "mould"}
        options={[
          { key: "mould", name: "in a mould" },
          { key: "body", name: "on a body, dipped" },
        ]}
        onChange={(key) =>
          key === "body"
            ? dipped && onChange({ mould_id: null, body: dipped, bent: false, released: false })
            : first && onChange({ mould_id: first.id, body: null, cavity: 0 })
        }
      />
      {part.body ? (
        <BodyFields body={part.body} wrong={wrong} onChange={(body) => onChange({ body })} />
      ) : (
        <>
          <Pick
            label="Mould"
            value={part.mould_id ?? ""}
            options={moulds.map((m) => ({ key: m.id, name: m.doc.name }))}
            onChange={(mould_id) => onChange({ mould_id, cavity: 0 })}
          />
          {kinds.length > 1 && (
            <Pick
              label="Cavity"
              value={String(part.cavity)}
              options={kinds.map((kind, i) => ({
                key: String(i),
                name: kind.name,
                note: shapeName(kind.shape.kind),
              }))}
              onChange={(key) => onChange({ cavity: Number(key) })}
            />
          )}
          <Choice
            label="Seen from"
            value={part.seen}
            options={[
              { key: "mould", name: "the mould side" },
              { key: "open", name: "the open side" },
            ]}
            onChange={(seen) => onChange({ seen })}
          />
        </>
      )}
    </>
  );
}

const SHAPES = [
  { key: "ball", name: "ball, egg" },
  { key: "cone", name: "cone on its tip" },
  { key: "rod", name: "rod" },
] as const;

function BodyFields({
  body,
  wrong,
  onChange,
}: {
  body: Body;
  wrong: (path: string) => string | undefined;
  onChange: (body: Body) => void;
}) {
  const field = (
    key: "diameter_m" | "high_m" | "degc" | "tray",
    label: string,
    quantity: "length" | "temperature" | "count",
  ) => (
    <NumberField
      label={label}
      quantity={quantity}
      value={body[key]}
      onChange={(v) => onChange({ ...body, [key]: quantity === "count" ? Math.round(v) : v })}
      error={wrong(`part.body.${key}`) ?? wrong(`body.${key}`)}
      step={1}
      {...(quantity === "count" ? { digits: 0 } : {})}
    />
  );
  return (
    <>
      <TextField label="What is dipped" value={body.name} onChange={(name) => onChange({ ...body, name })} />
      <Pick
        label="Of"
        value={body.made_of}
        options={BODIES.map(({ key, name }) => ({ key, name }))}
        onChange={(made_of) => onChange({ ...body, made_of: made_of as Body["made_of"] })}
      />
      <Choice
        label="Shape"
        value={body.shape}
        options={SHAPES.map(({ key, name }) => ({ key, name }))}
        onChange={(shape) => onChange({ ...body, shape })}
      />
      <div className="grid grid-cols-2 gap-4">
        {field("diameter_m", "Wide", "length")}
        {field("high_m", "High", "length")}
        {field("degc", "Dipped at", "temperature")}
        {field("tray", "Side by side", "count")}
      </div>
    </>
  );
}
