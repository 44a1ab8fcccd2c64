import { useQuery } from "@tanstack/react-query";
import { Link, Navigate, useParams } from "react-router";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { mouldListQuery, pieceListQuery } from "../../shared/kitchen";
import { Notice } from "../../shared/ui/controls";
import { ListPage } from "../../shared/ui/ListPage";
import { useAttempt } from "../../shared/useAttempt";
import { PieceEditor } from "./PieceEditor";
import { createPiece, measure, removePiece } from "./queries";

const WORK_NOTES = { none: "", bend: ", bent warm", stick: ", on a stick" };

export function PiecesView() {
  const { id } = useParams();
  const units = useUnits();
  const list = useQuery(pieceListQuery);
  const moulds = useQuery(mouldListQuery);
  const { problem, attempt } = useAttempt("piece");
  if (!list.data || !moulds.data) return null;
  const items = list.data.items;
  const current = items.find((item) => item.id === id);
  if (!current && items[0]) return <Navigate to={`/pieces/${items[0].id}`} replace />;

  const firstMould = moulds.data.items[0];
  const add = firstMould
    ? () =>
        attempt(async () => {
          const depth = await measureDepth(firstMould.id);
          const doc = {
            name: `New piece, ${firstMould.doc.name}`.slice(0, 60),
            mould_id: firstMould.id,
            cavity: 0,
            fill_m: depth * 0.7,
            material: "isomalt" as const,
            work: "none" as const,
            stick: null,
            stays: [],
          };
          return `/pieces/${(await createPiece(crypto.randomUUID(), doc)).id}`;
        })
    : undefined;
  const remove = (piece: string, version: number) =>
    attempt(async () => {
      await removePiece(piece, version);
      return "/pieces";
    });
  return (
    <ListPage
      title="Pieces"
      base="/pieces"
      items={items.map((item) => ({
        id: item.id,
        name: item.doc.name,
        note: `${item.doc.material}, ${amount(item.doc.fill_m, "length", units)}${WORK_NOTES[item.doc.work]}`,
      }))}
      onAdd={add}
      addWord="Add a piece"
      empty={
        firstMould
          ? "A piece is what you cast: a mould, filled to a level."
          : "A piece needs a mould to be cast in."
      }
    >
      {problem && (
        <div className="px-8 pt-6">
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        </div>
      )}
      {!firstMould && (
        <p className="p-8 text-xl">
          <Link to="/moulds" className="font-bold text-glass underline">
            Add a mould first
          </Link>
        </p>
      )}
      {current && (
        <PieceEditor key={current.id} stored={current} moulds={moulds.data.items} onRemove={remove} />
      )}
    </ListPage>
  );
}

async function measureDepth(mould_id: string): Promise<number> {
  return (await measure({ mould_id, cavity: 0, material: "isomalt", fill_m: 0.0002 })).section.depth_m;
}
