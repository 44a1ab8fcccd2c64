import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { mouldListQuery, pieceListQuery } from "../../shared/kitchen";
import { Button, Dialog, Notice, Pick } from "../../shared/ui/controls";
import { useAttempt } from "../../shared/useAttempt";
import { PieceEditor } from "./PieceEditor";
import { createPiece, removePiece, startsQuery } from "./queries";
import { STARTS } from "./starts";

export function PiecesView() {
  const { id } = useParams();
  const units = useUnits();
  const navigate = useNavigate();
  const list = useQuery(pieceListQuery);
  const moulds = useQuery(mouldListQuery);
  const starts = useQuery(startsQuery);
  const [choosing, setChoosing] = useState(false);
  const { problem, attempt } = useAttempt("piece");
  if (!list.data || !moulds.data) return null;
  const items = list.data.items;
  const current = items.find((item) => item.id === id);
  if (!current && items[0]) return <Navigate to={`/pieces/${items[0].id}`} replace />;
  const firstMould = moulds.data.items[0];
  const add = ({ key, piece }: Schemas["StartShown"]) => {
    setChoosing(false);
    const name = `New ${STARTS[key].name.toLowerCase()}`.slice(0, 60);
    const doc = { ...piece, name, parts: piece.parts.map((part) => ({ ...part, name })) };
    void attempt(async () => `/pieces/${(await createPiece(crypto.randomUUID(), doc)).id}`);
  };
  const remove = (piece: string, version: number) =>
    attempt(async () => {
      await removePiece(piece, version);
      return "/pieces";
    });
  const head = (
    <div className="space-y-3">
      <div className="flex items-baseline justify-between">
        <h1 className="text-xl">Pieces</h1>
        {firstMould && (
          <Button kind="quiet" onClick={() => setChoosing(true)}>
            Add a piece
          </Button>
        )}
      </div>
      {current && (
        <Pick
          label="Open"
          value={current.id}
          options={items.map((item) => ({ key: item.id, name: item.doc.name, note: noteOf(item.doc) }))}
          onChange={(piece) => navigate(`/pieces/${piece}`)}
        />
      )}
      <Link to="/pieces/by-hand" className="block font-bold text-glass hover:underline">
        By hand
      </Link>
      {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
    </div>
  );
  return (
    <>
      {current ? (
        <PieceEditor
          key={current.id}
          stored={current}
          moulds={moulds.data.items}
          head={head}
          onRemove={(piece, version) => void remove(piece, version)}
        />
      ) : (
        <div className="max-w-prose space-y-4 p-8">
          {head}
          <p className="text-xl">
            {firstMould
              ? "A piece is built of passes in a mould: choose a way of casting to start from."
              : "A piece needs a mould to be cast in."}
          </p>
          {!firstMould && (
            <Link to="/moulds" className="text-xl font-bold text-glass underline">
              Add a mould first
            </Link>
          )}
        </div>
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
    </>
  );
}

function noteOf(piece: Schemas["Piece"]): string {
  const passes = piece.parts.reduce((n, part) => n + part.passes.length, 0);
  const parts = piece.parts.length > 1 ? `${piece.parts.length} parts, ` : "";
  return `${parts}${passes} ${passes === 1 ? "pass" : "passes"}`;
}
