import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { problemOf, type Schemas } from "../../api/client";
import { makeThing } from "../../api/things";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { propertiesQuery, sourcesQuery } from "../../shared/kitchen";
import { removed } from "../../shared/removed";
import { ListPage } from "../../shared/ui/ListPage";
import { Button, Notice, TextField } from "../../shared/ui/plain";
import { SaveMark } from "../../shared/ui/SaveMark";
import { useAttempt } from "../../shared/useAttempt";
import { useThing } from "../../shared/useThing";
import { materialListQuery, removeMaterial } from "./queries";
import { propertyWords } from "./words";

type Own = Schemas["OwnMaterial"];
type Shown = Schemas["MaterialShown"];

const GROUPS: Record<string, string> = {
  own: "Your own",
  melts: "Melts",
  fillings: "Fillings, films",
  moulds: "Moulds",
  surfaces: "Surfaces",
};

/** Every value the engine reckons with, and materials of one's own from a maker's sheet. */
export function MaterialsView() {
  const { id } = useParams();
  const navigate = useNavigate();
  const units = useUnits();
  const groups = useQuery(propertiesQuery).data?.groups;
  const own = useQuery(materialListQuery).data?.items;
  const { problem, attempt } = useAttempt("material");
  if (!groups || !own) return null;
  const rows = Object.keys(GROUPS).flatMap((name) =>
    (groups.find((g) => g.name === name)?.rows ?? []).map((row) => ({ row, group: name })),
  );
  const current = rows.find(({ row }) => row.key === id);
  const stored = own.find((item) => item.id === current?.row.key);
  const start = (relative: Shown) =>
    attempt(async () => {
      const doc: Own = { name: `Own ${relative.name}`.slice(0, 60), like: relative.key, sheet: [] };
      return `/kitchen/materials/${await makeThing("material", doc)}`;
    });
  const relative = rows.find(({ row }) => row.key === stored?.doc.like)?.row;
  return (
    <ListPage
      title="Materials"
      base="/kitchen/materials"
      open={id}
      kind="material"
      items={rows.map(({ row, group }) => ({ id: row.key, name: row.name, note: GROUPS[group] ?? group }))}
      empty="No material is known."
    >
      <div className="px-8 py-6">
        {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
        {stored && relative ? (
          <OwnMaterial
            key={stored.id}
            stored={stored}
            relative={relative}
            onRemove={(version) =>
              void removeMaterial(stored.id, version).then(
                () => {
                  removed("material", stored.doc);
                  navigate("/kitchen/materials");
                },
                (error) => problemOf(error),
              )
            }
          />
        ) : (
          current && (
            <>
              <h1 className="mt-3 text-3xl">{current.row.name}</h1>
              {current.group === "melts" && (
                <p className="mt-2">
                  <Button kind="quiet" onClick={() => void start(current.row)}>
                    Start one of your own from this
                  </Button>
                </p>
              )}
              <Values of={current.row} />
            </>
          )
        )}
      </div>
    </ListPage>
  );
}

function OwnMaterial({
  stored,
  relative,
  onRemove,
}: {
  stored: Schemas["StoredMaterial"];
  relative: Shown;
  onRemove: (version: number) => void;
}) {
  const thing = useThing("material", stored);
  const { doc, change } = thing;
  const set = (row: Schemas["SheetRow"]) =>
    change({ sheet: [...doc.sheet.filter((old) => old.name !== row.name), row] });
  const drop = (name: string) => change({ sheet: doc.sheet.filter((row) => row.name !== name) });
  return (
    <>
      <TextField large label="Name of the material" value={doc.name} onChange={(name) => change({ name })} />
      <SaveMark thing={thing} />
      <p className="mt-2">
        As {relative.name.toLowerCase()}, but for what its maker&apos;s sheet says: type it over the value.
      </p>
      <Values of={relative} sheet={doc.sheet} onSet={set} onDrop={drop} />
      <p className="mt-6">
        <Button kind="quiet" onClick={() => onRemove(thing.version)}>
          Remove this material
        </Button>
      </p>
    </>
  );
}

function Values({
  of,
  sheet,
  onSet,
  onDrop,
}: {
  of: Shown;
  sheet?: Schemas["SheetRow"][];
  onSet?: (row: Schemas["SheetRow"]) => void;
  onDrop?: (name: string) => void;
}) {
  const sources = useQuery(sourcesQuery).data?.items;
  if (!sources) return null;
  const title = (key: string) => sources.find((s) => s.key === key)?.title ?? key;
  return (
    <div className="overflow-x-auto">
      <table className="mt-4 w-full max-w-5xl border-collapse text-left">
        <thead>
          <tr className="border-b border-ink text-quiet">
            <th className="py-1 pr-4 font-normal">value</th>
            <th className="py-1 pr-4 text-right font-normal">likely</th>
            <th className="py-1 pr-4 text-right font-normal">from</th>
            <th className="py-1 pr-4 text-right font-normal">to</th>
            <th className="py-1 pr-4 font-normal">unit</th>
            <th className="py-1 font-normal">where it is from</th>
          </tr>
        </thead>
        <tbody>
          {of.properties.map((p) => {
            const typed = sheet?.find((row) => row.name === p.name);
            const shown = typed ?? p;
            return (
              <tr key={p.name} className={`border-b border-line align-baseline ${typed ? "bg-panel" : ""}`}>
                <th className="py-1 pr-4 font-normal">{propertyWords(p.name)}</th>
                <td className="py-1 pr-4 text-right font-bold">
                  {onSet ? (
                    <Cell
                      label={propertyWords(p.name)}
                      value={shown.likely}
                      onType={(likely) => onSet(around(p, likely))}
                    />
                  ) : (
                    figure(shown.likely)
                  )}
                </td>
                <td className="py-1 pr-4 text-right">{figure(shown.low)}</td>
                <td className="py-1 pr-4 text-right">{figure(shown.high)}</td>
                <td className="py-1 pr-4 text-quiet">{p.unit === "1" ? "" : p.unit}</td>
                <td className="py-1 text-quiet">
                  {typed ? "the maker's sheet " : title(p.source)}
                  {typed && onDrop && (
                    <Button
                      kind="quiet"
                      label={`Take ${propertyWords(p.name)} back`}
                      onClick={() => onDrop(p.name)}
                    >
                      take back
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** A value a maker states is known better than the relative's: its range is half as wide, about the new value. */
function around(p: Schemas["PropertyShown"], likely: number): Schemas["SheetRow"] {
  return {
    name: p.name,
    low: likely - (p.likely - p.low) / 2,
    likely,
    high: likely + (p.high - p.likely) / 2,
  };
}

function Cell({ label, value, onType }: { label: string; value: number; onType: (value: number) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed !== null && !Number.isFinite(Number(typed.replace(",", ".")));
  return (
    <input
      aria-label={label}
      inputMode="decimal"
      aria-invalid={wrong ? true : undefined}
      className={`w-28 border-b bg-transparent text-right font-bold ${wrong ? "border-heat text-heat" : "border-ink"}`}
      value={typed ?? figure(value)}
      onChange={(event) => {
        setTyped(event.target.value);
        const next = Number(event.target.value.replace(",", "."));
        if (event.target.value.trim() !== "" && Number.isFinite(next)) onType(next);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

const figure = (value: number): string =>
  value !== 0 && (Math.abs(value) < 1e-3 || Math.abs(value) >= 1e6)
    ? value.toExponential(1)
    : String(Number(value.toPrecision(4)));
