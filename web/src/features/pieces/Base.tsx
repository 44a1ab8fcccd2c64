import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { type Is, isOf } from "../../shared/moulds";
import { shapeName } from "../../shared/shapes";
import { Choice, Pick } from "../../shared/ui/controls";
import { type Body, groundOf, lastMelt, type Part } from "./passes";
import { BODY } from "./passWords";
import { bodyQuery, kindsQuery, startsQuery } from "./queries";
import { type Around, NOTHING_ROUND, ShapeField } from "./ShapeField";

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
  const mould = moulds.find((m) => m.id === part.mould_id)?.doc;
  const cavities = mould?.cavities ?? [];
  const is = isOf(mould, part.cavity);
  const [first] = moulds;
  const starts = (useQuery(startsQuery).data ?? []).flatMap((of) => of.piece.parts);
  const dipped = starts.find((of) => of.body)?.body;
  const kinds = useQuery(kindsQuery).data ?? [];
  const ground = (of: Part) => groundOf(of, moulds.find((m) => m.id === of.mould_id)?.doc);
  /** In another cavity, with the passes that go there, or as one is started there. */
  const put = (into: Partial<Part>) => {
    const moved = { ...part, ...into };
    const there = ground(moved);
    const fits = part.passes.every((pass) => kinds.find((of) => of.kind === pass.kind)?.on.includes(there));
    const start = starts.find((of) => ground(of) === there);
    const melt = lastMelt(part);
    const fresh = start?.passes.map((pass) => ("melt" in pass ? { ...pass, melt } : pass));
    onChange(fits || !fresh ? into : { ...into, passes: fresh, bent: false, released: false });
  };
  return (
    <>
      <Choice
        label="Made"
        value={part.body ? "body" : part.mould_id === null ? "hand" : "mould"}
        options={[
          { key: "mould", name: "in a mould, on a sheet or a drawing" },
          { key: "body", name: "on a body, dipped" },
          { key: "hand", name: "by hand, or bought" },
        ]}
        onChange={(key) => {
          if (key === "hand") put({ mould_id: null, body: null });
          else if (key === "mould" && first) put({ mould_id: first.id, body: null, cavity: 0 });
          else if (key === "body" && dipped) put({ mould_id: null, body: dipped });
        }}
      />
      {part.body && <BodyFields body={part.body} wrong={wrong} onChange={(body) => onChange({ body })} />}
      {part.mould_id !== null && (
        <>
          <Pick
            label={GROUNDS[is].name}
            value={part.mould_id}
            options={moulds.map((m) => ({ key: m.id, name: m.doc.name }))}
            onChange={(mould_id) => put({ mould_id, cavity: 0 })}
          />
          {cavities.length > 1 && (
            <Pick
              label={GROUNDS[is].kind}
              value={String(part.cavity)}
              options={cavities.map((kind, i) => ({
                key: String(i),
                name: kind.name,
                note: shapeName(kind.shape.kind),
              }))}
              onChange={(key) => put({ cavity: Number(key) })}
            />
          )}
          <Choice
            label="Seen from"
            value={part.seen}
            options={[
              { key: "mould", name: GROUNDS[is].below },
              { key: "open", name: GROUNDS[is].above },
            ]}
            onChange={(seen) => onChange({ seen })}
          />
          {is === "drawing" && (
            <Link className="block font-bold text-glass" to={`/pieces/moulds/${part.mould_id}`}>
              Its drawing: does it hold?
            </Link>
          )}
        </>
      )}
    </>
  );
}

/** What a mould, sheet or drawing is called, what of it is chosen, and a part's faces in or on it. */
export const GROUNDS: Record<Is, { name: string; kind: string; below: string; above: string }> = {
  mould: { name: "Mould", kind: "Cavity", below: "the mould side", above: "the open side" },
  sheet: { name: "Sheet", kind: "Cutter", below: "the side it lay on", above: "the open side" },
  drawing: { name: "Board of drawings", kind: "Drawing", below: "its flat side", above: "the piped side" },
};

interface BodyProps {
  body: Body;
  wrong: (path: string) => string | undefined;
  onChange: (body: Body) => void;
}

function BodyFields({ body, wrong, onChange }: BodyProps) {
  const fields = useQuery(bodyQuery).data ?? [];
  const around: Around = {
    ...NOTHING_ROUND,
    wrong: (name) => wrong(`part.body.${name}`) ?? wrong(`body.${name}`),
    change: (patch) => onChange({ ...body, ...patch }),
  };
  const field = (of: (typeof fields)[number]) => (
    <ShapeField key={of.name} of={body} field={of} words={BODY[of.name as keyof Body]} {...around} />
  );
  return (
    <>
      {fields.filter((of) => of.sort !== "number").map(field)}
      <div className="grid grid-cols-2 gap-4">{fields.filter((of) => of.sort === "number").map(field)}</div>
    </>
  );
}
