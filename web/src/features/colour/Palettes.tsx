import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { call, client, type Problem, problemOf, type Schemas } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { paletteListQuery } from "../../shared/kitchen";
import { FileButton, FileLink } from "../../shared/ui/files";
import { Button, Notice, TextField } from "../../shared/ui/plain";
import { paletteLookQuery } from "./queries";

type Palette = Schemas["Palette"];
const SHOWN_PAIRS = 3;

/** Colours that go together in an order: contrasts, remelting, the base under a dust; in and out as files. */
export function Palettes({ wanted, clear }: { wanted: string; clear: boolean }) {
  const queryClient = useQueryClient();
  const units = useUnits();
  const items = useQuery(paletteListQuery).data?.items ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
      setProblem(null);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const stored = items.find((p) => p.id === chosen) ?? items[0];
  const fresh = () => queryClient.invalidateQueries({ queryKey: ["palette"] });
  const add = (doc: Palette) =>
    attempt(async () => {
      const made = await call(client.POST("/api/palettes", { body: { id: crypto.randomUUID(), doc } }));
      await fresh();
      setChosen(made.id);
    });
  const save = (doc: Palette) =>
    attempt(async () => {
      if (!stored) return;
      const params = { path: { id: stored.id } };
      await call(client.PUT("/api/palettes/{id}", { params, body: { version: stored.version, doc } }));
      await fresh();
    });
  const bring = (text: string) =>
    attempt(async () => {
      const { colours } = await call(client.POST("/api/figures/palette-file", { body: { text } }));
      await add({ name: "Brought in", colours, dust: null });
    });
  const mine = stored?.doc;
  return (
    <section aria-label="Palette" className="mt-10">
      <div className="flex flex-wrap items-baseline gap-5 border-b border-line pb-1">
        <h2 className="text-xl">Palette</h2>
        {items.map((p) => (
          <Button key={p.id} kind="quiet" onClick={() => setChosen(p.id)}>
            {p.doc.name}
          </Button>
        ))}
        <Button kind="quiet" onClick={() => void add({ name: "New palette", colours: [], dust: null })}>
          Add a palette
        </Button>
        <FileButton label="Palette file" accept=".gpl,.csv,.txt" onText={(text) => void bring(text)}>
          Bring one in
        </FileButton>
      </div>
      {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
      {stored && mine && (
        <div className="mt-4">
          <div className="flex flex-wrap items-end gap-5">
            <TextField
              label="Palette's name"
              value={mine.name}
              onChange={(name) => void save({ ...mine, name })}
            />
            <Button
              kind="quiet"
              onClick={() =>
                void save({
                  ...mine,
                  colours: [
                    ...mine.colours,
                    {
                      name: `Colour ${mine.colours.length + 1}`,
                      hex: /^#[0-9a-f]{6}$/.test(wanted) ? wanted : "#888888",
                      of: clear ? "sugar" : "fat",
                    },
                  ],
                })
              }
            >
              Put the wanted colour in
            </Button>
            <FileLink href={`/api/palettes/${stored.id}/palette.gpl`}>as a palette file</FileLink>
            <FileLink href={`/api/palettes/${stored.id}/palette.csv`}>as CSV</FileLink>
          </div>
          <ul className="mt-4 flex flex-wrap gap-4">
            {mine.colours.map((c, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a colour is known by its place
              <li key={i} className="w-36">
                <div
                  role="img"
                  aria-label={`${c.name}: ${c.hex}`}
                  className="h-16 border border-line"
                  style={{ backgroundColor: c.hex }}
                />
                <TextField
                  label={`${c.hex}, ${c.of}`}
                  value={c.name}
                  onChange={(name) =>
                    void save({
                      ...mine,
                      colours: mine.colours.map((d, k) => (k === i ? { ...d, name } : d)),
                    })
                  }
                />
                <Button
                  kind="quiet"
                  label={`Take ${c.name} out`}
                  onClick={() => void save({ ...mine, colours: mine.colours.filter((_, k) => k !== i) })}
                >
                  ×
                </Button>
              </li>
            ))}
          </ul>
          <label className="mt-3 block text-quiet">
            A dust over it{" "}
            <input
              type="color"
              aria-label="Dust's colour"
              className="ml-2 h-9 w-14 align-middle"
              value={mine.dust ?? "#c9a227"}
              onChange={(event) => void save({ ...mine, dust: event.target.value })}
            />
          </label>
          <Look palette={mine} />
        </div>
      )}
    </section>
  );
}

/** What the palette comes to, in a few lines. */
function Look({ palette }: { palette: Palette }) {
  const { data } = useQuery(paletteLookQuery(palette));
  if (!data || palette.colours.length < 2) return null;
  const close = data.pairs.filter((pair) => !pair.reads);
  const may = data.remelts.filter((r) => r.why_not === null);
  return (
    <div className="mt-4 max-w-3xl space-y-2">
      <p className={close.length > 0 ? "border-l-4 border-heat pl-3" : ""}>
        <strong>Marbled:</strong>{" "}
        {close.length === 0
          ? "every two of them read apart."
          : `too near to read apart: ${close
              .slice(0, SHOWN_PAIRS)
              .map((pair) => `${pair.one} and ${pair.other} (${pair.delta_e.toFixed(0)} CIEDE2000)`)
              .join("; ")}.`}
      </p>
      <p>
        <strong>Left over:</strong>{" "}
        {may.length === 0
          ? "none of them may be melted into another."
          : `${may.map((r) => `${r.of} into ${r.into}`).join(", ")}. Not the other way: only towards a darker colour, and never sugar into fat.`}
      </p>
      {data.under_dust && (
        <p>
          <strong>Under the dust:</strong> {data.under_dust.other}, {data.under_dust.delta_e.toFixed(0)}{" "}
          CIEDE2000 away
          {data.under_dust.reads ? ": a thin place will show." : ": a thin place does not show."}
        </p>
      )}
    </div>
  );
}
