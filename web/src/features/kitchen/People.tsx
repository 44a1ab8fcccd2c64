import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { kitchenQuery } from "../../shared/kitchen";
import { NumberField } from "../../shared/ui/NumberField";
import { TextField } from "../../shared/ui/plain";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useThing } from "../../shared/useThing";
import { Hours } from "./Hours";
import { Rosters } from "./Rosters";

/** What this kitchen's hands take, and how long a mould dries before it is filled again. */
const PACES: { key: keyof Schemas["Paces"]; label: string; step: number }[] = [
  { key: "weigh_s", label: "Weigh out a pot", step: 10 },
  { key: "pour_each_s", label: "Pour a cavity", step: 1 },
  { key: "bend_each_s", label: "Bend a piece", step: 1 },
  { key: "stick_each_s", label: "Put in a stick", step: 1 },
  { key: "fill_each_s", label: "Fill by hand", step: 1 },
  { key: "join_each_s", label: "Put a join together", step: 1 },
  { key: "stir_s", label: "Stir a bowl", step: 1 },
  { key: "unmould_each_s", label: "Unmould a piece", step: 1 },
  { key: "clean_s", label: "Clean a mould", step: 30 },
  { key: "dry_s", label: "A mould dries", step: 60 },
  { key: "call_before_s", label: "Call me before", step: 5 },
];

/** Who works here, and how long their hands take. */
export function PeopleView() {
  const stored = useQuery(kitchenQuery).data;
  return stored ? <Editor stored={stored} /> : null;
}

function Editor({ stored }: { stored: Schemas["StoredKitchen"] }) {
  const thing = useThing("kitchen", stored);
  const { doc, change, problem } = thing;
  return (
    <div className="max-w-5xl px-7 py-6">
      <h1 className="text-3xl">People</h1>
      <SaveMark thing={thing} />
      <div className="mt-4 space-y-8">
        <People people={doc.people} onChange={(people) => change({ people })} />
        <Hours hours={doc.hours} onChange={(hours) => change({ hours })} />
        <Rosters people={doc.people} rosters={doc.rosters} onChange={(rosters) => change({ rosters })} />
        <section className="space-y-5">
          <h2 className="border-b border-line pb-1 text-xl">Your hands</h2>
          <div className="grid grid-cols-2 gap-6 sm:grid-cols-3 lg:grid-cols-4">
            {PACES.map(({ key, label, step }) => (
              <NumberField
                key={key}
                label={label}
                quantity="seconds"
                value={doc.paces[key]}
                onChange={(v) => change({ paces: { ...doc.paces, [key]: v } })}
                error={problem?.path === `doc.paces.${key}` ? "out of range, see above" : undefined}
                step={step}
              />
            ))}
          </div>
        </section>
      </div>
    </div>
  );
}

function People({ people, onChange }: { people: string[]; onChange: (people: string[]) => void }) {
  const [text, setText] = useState(people.join(", "));
  return (
    <TextField
      label="People at the bench, with commas between"
      value={text}
      onChange={(next) => {
        setText(next);
        onChange(
          next
            .split(",")
            .map((name) => name.trim())
            .filter((name) => name !== ""),
        );
      }}
    />
  );
}
