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
import { firstJoin, firstPass, PATHS, type Part, type Pass, type Path } from "./passes";
import { createPiece, removePiece } from "./queries";

const FIRST_DEPTH_M = 0.004;

export function PiecesView() {
  const { id } = useParams();
  const units = useUnits();
  const navigate = useNavigate();
  const list = useQuery(pieceListQuery);
  const moulds = useQuery(mouldListQuery);
  const [choosing, setChoosing] = useState(false);
  const { problem, attempt } = useAttempt("piece");
  if (!list.data || !moulds.data) return null;
  const items = list.data.items;
  const current = items.find((item) => item.id === id);
  if (!current && items[0]) return <Navigate to={`/pieces/${items[0].id}`} replace />;
  const firstMould = moulds.data.items[0];
  const add = (path: Path) => {
    setChoosing(false);
    if (!firstMould) return;
    void attempt(async () => {
      const mould = mouldFor(path.key, moulds.data.items) ?? firstMould;
      const depth = depthOf(mould);
      const melt = { material: path.material, colour: null };
      const passes = path.kinds.map((kind): Pass => firstPass(kind, melt, path.body?.high_m ?? depth));
      const name = `New ${path.name.toLowerCase()}`.slice(0, 60);
      const part: Part = {
        name,
        count: path.count ?? 1,
        mould_id: path.body ? null : mould.id,
        body: path.body ?? null,
        seen: "mould",
        cavity: 0,
        passes,
        bent: path.bent ?? false,
        released: path.released ?? false,
        stays: [],
      };
      const joins = path.joined ? [firstJoin(path.count ?? 1, melt)] : [];
      return `/pieces/${(await createPiece(crypto.randomUUID(), { name, parts: [part], joins, stand: null })).id}`;
    });
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
          {PATHS.map((path) => (
            <li key={path.key}>
              <button
                type="button"
                onClick={() => add(path)}
                className="min-h-16 w-full border-t border-line py-2 text-left hover:bg-raised"
              >
                <span className="block text-xl font-bold text-glass">{path.name}</span>
                <span className="text-quiet">{path.note}</span>
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

/** A mould to start from: a ball wants half balls, a shell something round, a leaf and panels the shallowest, a solid cast a disc. */
function mouldFor(key: string, moulds: Schemas["StoredMould"][]): Schemas["StoredMould"] | undefined {
  const kindOf = (m: Schemas["StoredMould"]) => m.doc.cavities[0]?.shape.kind ?? "";
  const first = (kinds: string[]) => moulds.find((m) => kinds.includes(kindOf(m)));
  const shallow = [...moulds].sort((a, b) => depthOf(a) - depthOf(b));
  if (key === "ball") return first(["half_ball"]);
  if (key === "panels") return shallow.find((m) => kindOf(m) === "bar");
  if (key === "leaf") return shallow[0];
  if (key === "cluster") return first(["bar"]);
  if (key === "pop" || key === "shell") return first(["ellipsoid", "capsule", "cap", "half_ball"]);
  return first(["round", "heart", "star"]);
}

function depthOf(mould: Schemas["StoredMould"]): number {
  const shape = mould.doc.cavities[0]?.shape;
  if (!shape) return FIRST_DEPTH_M;
  if (shape.kind === "half_ball") return shape.diameter_m / 2;
  if (shape.kind === "capsule") return shape.width_m / 2;
  return shape.depth_m ?? FIRST_DEPTH_M;
}
