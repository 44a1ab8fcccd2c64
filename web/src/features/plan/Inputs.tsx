import { Disclosure, DisclosureButton, DisclosurePanel } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import type { Problem, Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { dayAndTime } from "../../shared/format/zone";
import { propertiesQuery, waysQuery } from "../../shared/kitchen";
import { meltsOf } from "../../shared/pieces";
import { Pick } from "../../shared/ui/controls";
import { Fold } from "../../shared/ui/Fold";
import { NumberField } from "../../shared/ui/NumberField";
import { Button } from "../../shared/ui/plain";
import { meltsIn } from "../../shared/wording";
import { Due } from "./Due";
import { familiesOf } from "./families";
import type { Order } from "./queries";
import { Together } from "./Together";
import { WayInputs, wayNote, wayTitle } from "./Ways";

/** When an order is begun, as far as it may be chosen. */
const BEGINS: { key: Order["begins"]; name: string }[] = [
  { key: "late", name: "as late as it may be" },
  { key: "soon", name: "as soon as it may be" },
];

interface Props {
  id: string;
  thing: { doc: Order; change: (patch: Partial<Order>) => void; problem: Problem | null };
  pieces: Schemas["StoredPiece"][];
  kitchen: Schemas["Kitchen"];
  problem: Problem | null;
  onRemove: () => void;
}

const percent = (frac: number) => `${Math.round(100 * frac)}\u00a0%`;

/** Whose hands are at it: nobody chosen is one pair. */
function AtIt({
  kitchen,
  people,
  onChange,
}: {
  kitchen: Schemas["Kitchen"];
  people: string[];
  onChange: (people: string[]) => void;
}) {
  const known = [...new Set([...kitchen.people, ...people])];
  if (known.length < 2) return null;
  return (
    <fieldset>
      <legend className="text-sm text-quiet">Whose hands (none chosen: one pair)</legend>
      <div className="flex flex-wrap gap-x-5">
        {known.map((name) => (
          <label key={name} className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-5 shrink-0 accent-glass"
              checked={people.includes(name)}
              onChange={(e) =>
                onChange(known.filter((n) => (n === name ? e.target.checked : people.includes(n))))
              }
            />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** What was ordered in a line; its own lines and ways open on demand, and by themselves where something in them is wrong. */
export function OrderFold({ open: opened, ...inputs }: Props & { open: boolean }) {
  const { doc } = inputs.thing;
  const [first, ...more] = doc.lines;
  const name = inputs.pieces.find((piece) => piece.id === first?.piece_id)?.doc.name ?? "";
  const what =
    first && more.length === 0 ? `${first.quantity} × ${name}` : `${doc.lines.length} kinds of piece`;
  const wrong = inputs.problem !== null || inputs.thing.problem !== null;
  return (
    <Disclosure as="section" aria-label="The order" defaultOpen={opened}>
      {({ open }) => (
        <>
          <p className="flex min-h-11 flex-wrap items-center gap-x-4">
            <span className="text-lg">
              {what}, due {dayAndTime(new Date(doc.due_at), inputs.kitchen.zone)};{" "}
              {percent(doc.confidence_frac)} sure, {percent(doc.reserve_frac)} reserve
              {doc.people.length > 0 && `; ${doc.people.join(", ")}`}
            </span>
            <DisclosureButton className="min-h-11 font-bold text-glass underline-offset-4 hover:underline">
              {open ? "Close" : "Change the order"}
            </DisclosureButton>
          </p>
          {(open || wrong) && (
            <DisclosurePanel static className="border-t border-line bg-panel px-5 py-4">
              <Inputs {...inputs} />
            </DisclosurePanel>
          )}
        </>
      )}
    </Disclosure>
  );
}

function Inputs({ id, thing, pieces, kitchen, problem, onRemove }: Props) {
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
    <div className="space-y-5">
      <div className="grid gap-x-10 gap-y-3 md:grid-cols-2 xl:grid-cols-3">
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
      </div>
      <Button
        kind="quiet"
        onClick={() =>
          change({ lines: [...doc.lines, { piece_id: pieces[0]?.id ?? "", quantity: 6, spares: "as_sure" }] })
        }
      >
        Add a line
      </Button>
      <div className="flex flex-wrap items-end gap-x-10 gap-y-4">
        <Due
          due={doc.due_at}
          zone={kitchen.zone}
          onChange={(due_at) => change({ due_at })}
          error={thing.problem?.path === "due_at" ? wordProblem(thing.problem, units) : undefined}
        />
        <div className="w-60">
          <Pick label="Begin" value={doc.begins} options={BEGINS} onChange={(begins) => change({ begins })} />
        </div>
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
        <AtIt kitchen={kitchen} people={doc.people} onChange={(people) => change({ people })} />
      </div>
      <Together id={id} doc={doc} zone={kitchen.zone} onChange={(together) => change({ together })} />
      {familiesOf(used).map((family) => {
        const way = doc.ways[family.key] ?? usual[family.key];
        return (
          way && (
            <Fold
              key={family.key}
              title={wayTitle(way, family.name)}
              note={wayNote(way, kitchen)}
              open={problem?.path?.startsWith(`ways.${family.key}`) === true}
            >
              <div className="grid gap-x-10 gap-y-4 sm:grid-cols-2 lg:grid-cols-4">
                <WayInputs
                  way={way}
                  family={family}
                  kitchen={kitchen}
                  onChange={(changed) => change({ ways: { ...doc.ways, [family.key]: changed } })}
                  wrong={(name) => wrong(`ways.${family.key}.${name}`)}
                />
              </div>
            </Fold>
          )
        );
      })}
      <Button kind="quiet" onClick={onRemove}>
        Remove this order
      </Button>
    </div>
  );
}
