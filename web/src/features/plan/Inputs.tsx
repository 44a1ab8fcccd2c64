import { useQuery } from "@tanstack/react-query";
import type { Problem, Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { propertiesQuery } from "../../shared/kitchen";
import { meltsOf } from "../../shared/pieces";
import { Button, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { meltsIn } from "../../shared/wording";
import { Due } from "./Due";
import { familiesOf } from "./families";
import { type Order, waysQuery } from "./queries";
import { WayInputs } from "./Ways";

interface Props {
  thing: { doc: Order; change: (patch: Partial<Order>) => void; problem: Problem | null };
  pieces: Schemas["StoredPiece"][];
  kitchen: Schemas["Kitchen"];
  problem: Problem | null;
  onRemove: () => void;
}

export function Inputs({ thing, pieces, kitchen, problem, onRemove }: Props) {
  const units = useUnits();
  const { doc, change } = thing;
  const wrong = (path: string) => (problem?.path === path ? wordProblem(problem, units) : undefined);
  const known = meltsIn(useQuery(propertiesQuery).data?.groups);
  const usual = useQuery(waysQuery).data?.ways ?? {};
  const used = doc.lines.flatMap((row) => {
    const piece = pieces.find((p) => p.id === row.piece_id)?.doc;
    return (piece ? meltsOf(piece) : []).map(({ material }) => known.find((m) => m.key === material));
  });
  const line = (index: number, patch: Partial<Schemas["OrderLine"]>) =>
    change({ lines: doc.lines.map((row, i) => (i === index ? { ...row, ...patch } : row)) });
  return (
    <section aria-label="The order" className="space-y-5">
      <h2 className="border-b border-line pb-1 text-xl">Order</h2>
      {doc.lines.map((row, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place in the order
        <div key={i}>
          <div className="flex items-end gap-4">
            <div className="w-16 shrink-0">
              <NumberField
                label="How many"
                quantity="count"
                value={row.quantity}
                onChange={(v) => line(i, { quantity: Math.round(v) })}
                step={1}
              />
            </div>
            <div className="min-w-0 flex-1">
              <Pick
                label="Piece"
                value={row.piece_id}
                options={pieces.map((p) => ({ key: p.id, name: p.doc.name }))}
                onChange={(piece_id) => line(i, { piece_id })}
              />
            </div>
            {doc.lines.length > 1 && (
              <Button
                kind="quiet"
                label="Remove this line"
                onClick={() => change({ lines: doc.lines.filter((_, other) => other !== i) })}
              >
                ×
              </Button>
            )}
          </div>
          {wrong(`lines.${i}.quantity`) && (
            <p role="alert" className="mt-1 text-sm font-semibold text-heat">
              {wrong(`lines.${i}.quantity`)}
            </p>
          )}
        </div>
      ))}
      <Button
        kind="quiet"
        onClick={() => change({ lines: [...doc.lines, { piece_id: pieces[0]?.id ?? "", quantity: 6 }] })}
      >
        Add a line
      </Button>
      <Due
        due={doc.due_at}
        zone={kitchen.zone}
        onChange={(due_at) => change({ due_at })}
        error={thing.problem?.path === "due_at" ? wordProblem(thing.problem, units) : undefined}
      />
      <div className="grid grid-cols-2 gap-5">
        <NumberField
          label="Confidence"
          quantity="share"
          value={doc.confidence_frac}
          onChange={(v) => change({ confidence_frac: v })}
          error={wrong("confidence_frac")}
          step={1}
          digits={0}
        />
        <NumberField
          label="Reserve"
          quantity="share"
          value={doc.reserve_frac}
          onChange={(v) => change({ reserve_frac: v })}
          error={wrong("reserve_frac")}
          step={1}
          digits={0}
        />
      </div>
      {familiesOf(used).map((family) => {
        const way = doc.ways[family.key] ?? usual[family.key];
        return (
          way && (
            <WayInputs
              key={family.key}
              way={way}
              family={family}
              kitchen={kitchen}
              onChange={(changed) => change({ ways: { ...doc.ways, [family.key]: changed } })}
              wrong={(name) => wrong(`ways.${family.key}.${name}`)}
            />
          )
        );
      })}
      <Button kind="quiet" onClick={onRemove}>
        Remove this order
      </Button>
    </section>
  );
}
