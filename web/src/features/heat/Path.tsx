import { memo } from "react";
import type { Schemas } from "../../api/client";
import { Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Button } from "../../shared/ui/plain";
import type { Stay } from "./queries";

type Place = Schemas["Place"];
const LONGEST = 6;
const NEXT_S = 300;

const HAND = "in the hand";
const keyOf = (stay: Stay) => (stay.care === "hand" ? HAND : `${stay.place_id} ${stay.care}`);

/** The path of one way: place after place, from when. */
export const Path = memo(function Path({
  id,
  stays,
  places,
  onWay,
}: {
  id: string;
  stays: Stay[];
  places: Place[];
  onWay: (id: string, stays: Stay[]) => void;
}) {
  const onChange = (next: Stay[]) => onWay(id, next);
  const options = [
    ...places.map((p) => ({ key: `${p.id} none`, name: p.name })),
    ...places
      .filter((p) => p.kind !== "room")
      .map((p) => ({ key: `${p.id} wrapped`, name: `${p.name}, wrapped` })),
    { key: HAND, name: "In the hand" },
  ];
  const set = (i: number, patch: Partial<Stay>) =>
    onChange(stays.map((stay, k) => (k === i ? { ...stay, ...patch } : stay)));
  const choose = (i: number, key: string) => {
    if (key === HAND) return set(i, { care: "hand" });
    const [place_id = "", care] = key.split(" ");
    set(i, { place_id, care: care as Stay["care"] });
  };
  const last = stays.at(-1);
  return (
    <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
      {stays.map((stay, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a stop is known by its order on the path
        <div key={`${i}-${stays.length}`} className="flex items-end gap-3">
          {i > 0 && (
            <div className="w-20">
              <NumberField
                label="then, at"
                quantity="minutes"
                value={stay.from_s}
                onChange={(from_s) => set(i, { from_s })}
                step={0.5}
              />
            </div>
          )}
          <div className="w-40">
            <Pick
              label={i === 0 ? "poured on" : "to"}
              value={keyOf(stay)}
              options={options}
              onChange={(key) => choose(i, key)}
            />
          </div>
          {i > 0 && (
            <Button
              kind="quiet"
              label={`Take stop ${i + 1} off the path`}
              onClick={() => onChange(stays.filter((_, k) => k !== i))}
            >
              ×
            </Button>
          )}
        </div>
      ))}
      {last && stays.length < LONGEST && (
        <Button
          kind="quiet"
          onClick={() => onChange([...stays, { ...last, from_s: last.from_s + NEXT_S, care: "none" }])}
        >
          then…
        </Button>
      )}
    </div>
  );
});
