import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { paletteListQuery } from "../../shared/kitchen";
import { savePiece } from "../../shared/pieces";
import { Button, Pick, TextField } from "../../shared/ui/controls";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useThing } from "../../shared/useThing";
import { PartEditor } from "./PartEditor";
import type { Part } from "./passes";
import type { Piece } from "./queries";

interface Props {
  stored: Schemas["StoredPiece"];
  moulds: Schemas["StoredMould"][];
  head: React.ReactNode;
  onRemove: (id: string, version: number) => void;
}

/** A piece with its parts; one part is open at a time. */
export function PieceEditor({ stored, moulds, head, onRemove }: Props) {
  const thing = useThing<Piece>(stored, "piece", savePiece);
  const { doc, change } = thing;
  const [open, setOpen] = useState(0);
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
    change({ parts: [...doc.parts, { ...part, name: `Part ${doc.parts.length + 1}` }] });
    setOpen(doc.parts.length);
  };
  return (
    <PartEditor
      key={index}
      part={part}
      moulds={moulds}
      colours={colours}
      onChange={put}
      head={
        <>
          {head}
          <div>
            <TextField large label="Name of the piece" value={doc.name} onChange={rename} />
            <SaveMark thing={thing} />
          </div>
          {doc.parts.length > 1 && (
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
      foot={
        <div className="flex flex-col items-start gap-2 border-t border-line pt-4">
          <Button kind="quiet" onClick={addPart}>
            Add a part
          </Button>
          {doc.parts.length > 1 && (
            <Button kind="quiet" onClick={() => change({ parts: doc.parts.filter((_, i) => i !== index) })}>
              Take this part out
            </Button>
          )}
          <Button kind="quiet" onClick={() => onRemove(stored.id, thing.version)}>
            Remove this piece
          </Button>
        </div>
      }
    />
  );
}
