import { useState } from "react";
import type { Schemas } from "../../api/client";
import type { SendEvent } from "../../shared/events";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { SPOTS, type Spot } from "../../shared/spots";
import { Choice, Dialog } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, TextField } from "../../shared/ui/plain";

interface Part {
  id: string;
  name: string;
  kg: number;
  colour: string | null;
}

const HOLDERS = [
  { key: "bag", name: "bags" },
  { key: "bowl", name: "bowls" },
  { key: "jug", name: "jugs" },
  { key: "silicone_cup", name: "silicone cups" },
];
const FIRST_KG = 0.05;
const TIP_M = 0.004;
const MOST = 12;

const part = (n: number): Part => ({ id: crypto.randomUUID(), name: `Bag ${n}`, kg: FIRST_KG, colour: null });

/** Out of the selected bowl into bags, bowls or jugs of their own, each in its colour. */
export function DecantDialog({
  open,
  onClose,
  from,
  send,
}: {
  open: boolean;
  onClose: () => void;
  from: Schemas["Ribbon"];
  send: SendEvent;
}) {
  const units = useUnits();
  const [parts, setParts] = useState(() => [part(1)]);
  const [holder, setHolder] = useState("bag");
  const [spot, setSpot] = useState<Spot>("towel");
  const { of, number } = from.subject;
  const has = from.melt_kg;
  if (has === null) return null;
  const taken = parts.reduce((sum, p) => sum + p.kg, 0);
  const set = (id: string, patch: Partial<Part>) =>
    setParts(parts.map((p) => (p.id === id ? { ...p, ...patch } : p)));
  const fill = () => {
    const tip_m = holder === "bag" ? TIP_M : null;
    const into = parts.map(({ name, kg, colour }) => ({ name, kg, colour, holder, spot, tip_m }));
    send("decanted", of === "pot" ? { cook: number, into } : { batch: number, into });
    setParts([part(1)]);
    onClose();
  };
  return (
    <Dialog open={open} onClose={onClose} title={`Out of the ${from.name.toLowerCase()}`} bench>
      <div className="grid gap-4">
        <Choice label="Into" value={holder} options={HOLDERS} onChange={setHolder} />
        <Choice
          label="Kept"
          value={spot}
          options={SPOTS.map(([key, name]) => ({ key, name }))}
          onChange={setSpot}
        />
        <ol className="grid gap-2">
          {parts.map((p, i) => (
            <li key={p.id} className="grid grid-cols-[1fr_7rem_auto_auto] items-end gap-4">
              <TextField label={`Name ${i + 1}`} value={p.name} onChange={(name) => set(p.id, { name })} />
              <NumberField
                label={`Weight ${i + 1}`}
                quantity="mass"
                value={p.kg}
                onChange={(kg) => set(p.id, { kg })}
                large
              />
              <label className="text-sm text-quiet">
                Colour {i + 1}
                <input
                  type="color"
                  value={p.colour ?? "#f1e7d0"}
                  onChange={(event) => set(p.id, { colour: event.target.value })}
                  className="block h-12 w-16 cursor-pointer bg-transparent"
                />
              </label>
              <Button
                kind="quiet"
                label={`Take ${i + 1} away`}
                onClick={() => setParts(parts.filter((q) => q.id !== p.id))}
              >
                ×
              </Button>
            </li>
          ))}
        </ol>
        {parts.length < MOST && (
          <Button kind="quiet" onClick={() => setParts([...parts, part(parts.length + 1)])}>
            One more
          </Button>
        )}
        <p className={`text-lg ${taken > has ? "font-bold text-heat" : ""}`}>
          {amount(taken, "mass", units)} of {amount(has, "mass", units)}
          {taken > has ? ": more than is in it" : ""}
        </p>
        <div className="flex items-center gap-6">
          <button
            type="button"
            onClick={fill}
            disabled={parts.length === 0 || taken > has}
            className="min-h-16 rounded-sm bg-glass px-8 text-2xl font-bold text-on-glass disabled:opacity-40"
          >
            Filled
          </button>
          <Button kind="quiet" onClick={onClose}>
            Leave it
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
