import { useState } from "react";
import { problemOf, type Schemas } from "../../api/client";
import { saveThing } from "../../api/things";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Button } from "../../shared/ui/plain";
import type { Stay } from "./queries";

/** Makes a way the one a piece takes: its plan and its run follow it. */
export function TakeIntoPiece({
  pieces,
  chosen,
  stays,
  onTaken,
}: {
  pieces: Schemas["StoredPiece"][];
  chosen: string | null;
  stays: Stay[];
  onTaken: () => void;
}) {
  const units = useUnits();
  const [said, setSaid] = useState("");
  const piece = pieces.find((p) => p.id === chosen);
  if (!piece) return <span className="text-quiet">Choose a piece as the cast to give it this way.</span>;
  const take = async () => {
    try {
      const parts = piece.doc.parts.map((part) => ({ ...part, stays }));
      await saveThing("piece", piece.id, piece.version, { ...piece.doc, parts });
      setSaid(`${piece.doc.name} goes this way now.`);
      onTaken();
    } catch (error) {
      setSaid(wordProblem(problemOf(error), units));
    }
  };
  const same = JSON.stringify(piece.doc.parts[0]?.stays) === JSON.stringify(stays);
  return (
    <>
      {!same && <Button onClick={() => void take()}>Take into {piece.doc.name}</Button>}
      <span role="status">{same ? `${piece.doc.name} goes this way.` : said}</span>
    </>
  );
}
