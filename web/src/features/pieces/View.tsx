import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { makeThing } from "../../api/things";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { mouldListQuery, pieceListQuery } from "../../shared/kitchen";
import { takeReady } from "../../shared/ready";
import { removed } from "../../shared/removed";
import { Dialog } from "../../shared/ui/controls";
import { ListPage } from "../../shared/ui/ListPage";
import { Notice } from "../../shared/ui/plain";
import { useAttempt } from "../../shared/useAttempt";
import { PieceEditor } from "./PieceEditor";
import { removePiece, startsQuery } from "./queries";
import { ReadyPieces } from "./ReadyPieces";
import { STARTS } from "./starts";

export function PiecesView() {
  const { id } = useParams();
  const units = useUnits();
  const queryClient = useQueryClient();
  const list = useQuery(pieceListQuery);
  const moulds = useQuery(mouldListQuery);
  const starts = useQuery(startsQuery);
  const [choosing, setChoosing] = useState(false);
  const { problem, attempt } = useAttempt("piece");
  if (!list.data || !moulds.data) return null;
  const items = list.data.items;
  const current = items.find((item) => item.id === id);
  const firstMould = moulds.data.items[0];
  const add = ({ key, piece }: Schemas["StartShown"]) => {
    setChoosing(false);
    const name = `New ${STARTS[key].name.toLowerCase()}`.slice(0, 60);
    const doc = { ...piece, name, parts: piece.parts.map((part) => ({ ...part, name })) };
    void attempt(async () => `/pieces/${await makeThing("piece", doc)}`);
  };
  const remove = (piece: string, version: number) =>
    attempt(async () => {
      await removePiece(piece, version);
      if (current) removed("piece", current.doc);
      return "/pieces";
    });
  return (
    <ListPage
      title="Pieces"
      base="/pieces"
      open={id}
      kind="piece"
      items={items.map((item) => ({ id: item.id, name: item.doc.name, note: noteOf(item.doc) }))}
      add={firstMould && { word: "Add a piece", onAdd: () => setChoosing(true) }}
      empty={
        firstMould
          ? "A piece is built of passes in a mould: choose a way of casting to start from."
          : "A piece needs a mould to be cast in."
      }
    >
      {!firstMould && (
        <p className="mt-4">
          <Link to="/pieces/moulds" className="text-xl font-bold text-glass underline">
            Add a mould first
          </Link>
        </p>
      )}
      {id === undefined && (
        <ReadyPieces
          onTake={(shape) =>
            void attempt(async () => {
              const made = await takeReady({ shape });
              await queryClient.invalidateQueries({ queryKey: ["mould"] });
              return `/pieces/${made}`;
            })
          }
        />
      )}
      {problem && (
        <div className="my-3">
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        </div>
      )}
      {current && (
        <PieceEditor
          key={current.id}
          stored={current}
          moulds={moulds.data.items}
          onRemove={(piece, version) => void remove(piece, version)}
        />
      )}
      <Dialog open={choosing} onClose={() => setChoosing(false)} title="How is it cast?">
        <ul className="grid gap-x-8 sm:grid-cols-2">
          {(starts.data ?? []).map((start) => (
            <li key={start.key}>
              <button
                type="button"
                onClick={() => add(start)}
                className="min-h-16 w-full border-t border-line py-2 text-left hover:bg-raised"
              >
                <span className="block text-xl font-bold text-glass">{STARTS[start.key].name}</span>
                <span className="text-quiet">{STARTS[start.key].note}</span>
              </button>
            </li>
          ))}
        </ul>
      </Dialog>
    </ListPage>
  );
}

function noteOf(piece: Schemas["Piece"]): string {
  const passes = piece.parts.reduce((n, part) => n + part.passes.length, 0);
  const parts = piece.parts.length > 1 ? `${piece.parts.length} parts, ` : "";
  return `${parts}${passes} ${passes === 1 ? "pass" : "passes"}`;
}
