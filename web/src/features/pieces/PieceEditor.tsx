import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { paletteListQuery } from "../../shared/kitchen";
import { Choice, Pick } from "../../shared/ui/controls";
import { Button, TextField } from "../../shared/ui/plain";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useThing } from "../../shared/useThing";
import { PartEditor } from "./PartEditor";
import type { Part } from "./passes";
import { Together } from "./Together";

interface Props {
  stored: Schemas["StoredPiece"];
  moulds: Schemas["StoredMould"][];
  onRemove: (id: string, version: number) => void;
}

/** A piece with its parts; one part is open at a time. */
export function PieceEditor({ stored, moulds, onRemove }: Props) {
  const thing = useThing("piece", stored);
  const { doc, change } = thing;
  const [open, setOpen] = useState(0);
  const [together, setTogether] = useState(false);
  const index = Math.min(open, doc.parts.length - 1);
  const part = doc.parts[index];
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const used = doc.parts.flatMap((p) =>
    p.passes.flatMap((pass) => ("melt" in pass ? [pass.melt.colour] : [])),
  );
  const colours = [
    ...new Set([
      ...palettes.flatMap((p) => p.doc.colours.map((c) => c.hex)),
      ...used.filter((c) => c !== null),
    ]),
  ];
  if (!part) return null;
  const put = (next: Part) => change({ parts: doc.parts.map((p, i) => (i === index ? next : p)) });
  const rename = (name: string) =>
    change({ name, ...(doc.parts.length === 1 ? { parts: [{ ...part, name: name || part.name }] } : {}) });
  const addPart = () => {
    change({
      parts: [...doc.parts, { ...part, name: `Part ${doc.parts.length + 1}` }],
      stand: doc.stand && { ...doc.stand, spots: [...doc.stand.spots, { x_m: 0, z_m: 0.02 }] },
    });
    setOpen(doc.parts.length);
  };
  /** Without a part its joins go too, and those of later parts follow their parts. */
  const removePart = () => {
    const after = (i: number) => (i > index ? i - 1 : i);
    change({
      parts: doc.parts.filter((_, i) => i !== index),
      joins: doc.joins
        .filter((j) => j.part !== index && j.to !== index)
        .map((j) => ({ ...j, part: after(j.part), to: after(j.to) })),
      stand: doc.stand && { ...doc.stand, spots: doc.stand.spots.filter((_, i) => i !== index) },
    });
  };
  const several = doc.parts.length > 1;
  const top = (
    <>
      <div>
        <TextField large label="Name of the piece" value={doc.name} onChange={rename} />
        <SaveMark thing={thing} />
      </div>
      <Choice
        label="Shown"
        value={together ? "together" : "parts"}
        options={[
          { key: "parts", name: several ? "its parts" : "how it is cast" },
          { key: "together", name: "put together" },
        ]}
        onChange={(key) => setTogether(key === "together")}
      />
    </>
  );
  const foot = (
    <div className="flex flex-col items-start gap-2 border-t border-line pt-4">
      {!together && (
        <Button kind="quiet" onClick={addPart}>
          Add a part
        </Button>
      )}
      {!together && several && (
        <Button kind="quiet" onClick={removePart}>
          Take this part out
        </Button>
      )}
      <Button kind="quiet" onClick={() => onRemove(stored.id, thing.version)}>
        Remove this piece
      </Button>
    </div>
  );
  if (together)
    return (
      <Together
        head={top}
        doc={doc}
        colours={colours}
        onChange={change}
        onOpen={(i) => {
          setOpen(i);
          setTogether(false);
        }}
        foot={foot}
      />
    );
  return (
    <PartEditor
      key={index}
      part={part}
      moulds={moulds}
      colours={colours}
      onChange={put}
      head={
        <>
          {top}
          {several && (
            <>
              <Pick
                label={`Part ${index + 1} of ${doc.parts.length}`}
                value={String(index)}
                options={doc.parts.map((p, i) => ({
                  key: String(i),
                  name: p.name,
                  note: `${p.count} a piece`,
                }))}
                onChange={(key) => setOpen(Number(key))}
              />
              <TextField
                label="Name of the part"
                value={part.name}
                onChange={(name) => put({ ...part, name })}
              />
            </>
          )}
        </>
      }
      foot={foot}
    />
  );
}
