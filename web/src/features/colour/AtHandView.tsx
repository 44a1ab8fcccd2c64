import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { PutBack } from "../../shared/ui/PutBack";
import { Button } from "../../shared/ui/plain";
import { ColourDialog } from "./AtHand";
import { addColour, type Colour, colourListQuery } from "./queries";
import { DYES } from "./words";

const KINDS: { kind: Colour["kind"]; title: string; note: string; base: string }[] = [
  {
    kind: "water",
    title: "Water-based",
    note: "For isomalt and sugar, a drop at a time, after the bubbles.",
    base: "clear_isomalt",
  },
  {
    kind: "oil",
    title: "Oil-based, or powder",
    note: "For coatings and white couverture. A drop of water seizes the bowl.",
    base: "bright_coating",
  },
];

/** The colours this kitchen has, by what they colour, each with its dye and how strong it is. */
export function ColoursAtHandView() {
  const queryClient = useQueryClient();
  const items = useQuery(colourListQuery).data?.items;
  const [params, setParams] = useSearchParams();
  const open = params.get("open");
  const setOpen = (id: string | null) => setParams(id === null ? {} : { open: id }, { replace: true });
  if (!items) return null;
  const refresh = () => void queryClient.invalidateQueries({ queryKey: ["colour"] });
  const add = async (kind: Colour["kind"]) => {
    const id = await addColour(kind);
    refresh();
    setOpen(id);
  };
  const edited = items.find((c) => c.id === open);
  return (
    <div className="px-7 py-6">
      <h1 className="text-3xl">Colours at hand</h1>
      <PutBack kind="colour" />
      <div className="mt-4 grid max-w-6xl gap-x-14 gap-y-8 lg:grid-cols-2">
        {KINDS.map(({ kind, title, note }) => (
          <section key={kind} aria-label={title}>
            <h2 className="border-b border-ink pb-1 text-xl">{title}</h2>
            <p className="mt-1 text-quiet">{note}</p>
            <ul className="mt-2">
              {items
                .filter((c) => c.doc.kind === kind)
                .map((c) => (
                  <li
                    key={c.id}
                    className="flex items-center justify-between gap-4 border-b border-line py-2"
                  >
                    <span>
                      <strong className="block text-lg leading-tight">{c.doc.name}</strong>
                      <span className="text-quiet">{colourNote(c.doc)}</span>
                    </span>
                    <Button
                      kind="quiet"
                      label={`${c.doc.mg_per_g === null ? "lay a swatch" : "change"}: ${c.doc.name}`}
                      onClick={() => setOpen(c.id)}
                    >
                      {c.doc.mg_per_g === null ? "lay a swatch" : "change"}
                    </Button>
                  </li>
                ))}
            </ul>
            <p className="mt-3">
              <Button
                kind="quiet"
                label={`Add a colour, ${title.toLowerCase()}`}
                onClick={() => void add(kind)}
              >
                Add a colour
              </Button>
            </p>
          </section>
        ))}
      </div>
      {edited && (
        <ColourDialog
          key={edited.id}
          stored={edited}
          base={KINDS.find((of) => of.kind === edited.doc.kind)?.base ?? "clear_isomalt"}
          onClose={(changed) => {
            setOpen(null);
            if (changed) refresh();
          }}
        />
      )}
    </div>
  );
}

const DYE_NAMES = new Map(DYES);

function colourNote({ dye, mg_per_g }: Colour): string {
  const strength =
    mg_per_g === null ? "strength not known yet" : `${mg_per_g.toLocaleString("en-GB")} mg of dye in a gram`;
  return `${dye.toUpperCase()}, ${DYE_NAMES.get(dye) ?? "own"}; ${strength}`;
}
