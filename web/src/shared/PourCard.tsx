import type { Schemas } from "../api/client";
import { amount, range, runLength, type Units } from "./format/units";
import { useUnits } from "./format/useUnits";
import { tonesOf } from "./melts";
import { partAndPass } from "./named";
import { dipWords, LAID, sheetSize } from "./pourWords";
import { named, shapedWords } from "./workWords";

interface Props {
  card: Schemas["Card"];
  number: number;
  places: Record<string, string>;
}

/** One filling of a mould as a card: every cavity, pass by pass, with its grams, its height, and where it lies until the next. */
export function PourCard({ card, number, places }: Props) {
  const units = useUnits();
  const first = card.rows[0]?.kind ?? "fill";
  const cut = card.rows.some((row) => row.works.some((of) => of.kind === "cut"));
  const grams = (kg: number) => amount(kg, "mass", units);
  return (
    <article aria-label={`Pour card ${number}`} className="border-t-2 border-ink pt-2">
      <h3 className="flex flex-wrap items-baseline justify-between gap-x-4 text-lg">
        <span>
          {number}. {card.mould}
        </span>
        <Cavities
          count={card.casts}
          word={cut ? "pieces" : (WORD[first] ?? (card.casts === 1 ? "cavity" : "cavities"))}
        />
      </h3>
      {card.sheets && <p className="text-quiet">{sheetSize(card.sheets, units)}</p>}
      <ol>
        {card.rows.map((row, i) => {
          const last = i === card.rows.length - 1;
          const name = partAndPass(row.named) || row.named.piece;
          return (
            <li key={row.line} className="border-t border-line py-1.5">
              {row.first.map((hand) => (
                <p key={hand.name} className="flex gap-3">
                  <strong className="w-20 shrink-0 text-right">
                    {hand.bought ? hand.bought.count : hand.kg > 0 ? grams(hand.kg) : "one"}
                  </strong>
                  <span>{hand.name}, by hand</span>
                </p>
              ))}
              <p className="flex gap-3">
                <strong className="w-20 shrink-0 text-right text-lg">{grams(row.each_kg)}</strong>
                <span className="min-w-0">
                  <span
                    aria-hidden
                    className="mr-2 inline-block h-3.5 w-3.5 border border-ink"
                    style={{ background: tonesOf(row).tone }}
                  />
                  <strong>{name}</strong>, {how(row, units)}
                  {row.works.map((of) => `; then ${thenWords(of, units)}`)}
                  <span className="block text-quiet">
                    melt {row.cook + 1}
                    {row.with_next ? (
                      "; the next at once"
                    ) : (
                      <>
                        ; {row.place_ids.map((id) => places[id] ?? "").join(", then ")};{" "}
                        {last ? leaves(row, cut) : "next pass"} after {range(row.sets, "s", units)}
                      </>
                    )}
                  </span>
                </span>
              </p>
            </li>
          );
        })}
      </ol>
    </article>
  );
}

/** What a card counts, where it is not cavities. */
const WORD: Partial<Record<Schemas["CardRow"]["kind"], string>> = {
  dip: "to dip",
  join: "pieces",
  cluster: "heaps",
  smear: "leaves",
  divide: "portion",
};

function leaves({ kind }: Schemas["CardRow"], cut: boolean): string {
  if (kind === "join") return "move it";
  if (kind === "dip") return "off the tray";
  return cut ? "break out" : "unmould";
}

function thenWords({ kind, on }: Schemas["SoftWork"], units: Units): string {
  const what = named(on).toLowerCase();
  switch (kind) {
    case "bend":
      return "bend it";
    case "stick":
      return "the stick, while it is soft";
    case "sprinkle":
      return `${what}, while it is wet`;
    case "film":
      return `${what} pressed on, once it no longer runs`;
    case "drag":
      return `${what} through its colours, while it is wet`;
    case "comb":
      return `comb it, ${what}, once nothing runs back`;
    case "groove":
      return `${what}, while it is leathery`;
    case "shape":
      return `bent with its film: ${on.flatMap(({ shaped }) => (shaped ? [shapedWords(shaped, units)] : [])).join(", ")}`;
    case "cut":
      return "cut, while it is soft; leave the pieces in the sheet";
  }
}

function how(row: Schemas["CardRow"], units: Units): string {
  const length = (m: number) => amount(m, "length", units);
  switch (row.kind) {
    case "fill":
      return `to ${length(row.fill_m)}`;
    case "tipped":
      return `fill, tip out: ${amount(row.stays_kg, "mass", units)} stay, ${length(row.thick_m)}`;
    case "turned":
      return `into one half, clip, turn: a wall of ${length(row.thick_m)}; scrape the seam`;
    case "stripes":
      return `side by side, ${length(row.thick_m)} high`;
    case "lines":
      return row.piped
        ? `${row.piped.count} lines, ${runLength(row.piped.long_m, units)}, out of ${length(row.piped.bore_m)}`
        : "piped";
    case "swirl":
      return "swirled into the next bowl, one turn";
    case "divide":
      return "into a vessel of its own, and coloured there";
    case "dip":
      return `dipped: a coat of ${length(row.thick_m)}${bathWords(row.bath, units)}`;
    case "drizzle":
      return `lines of ${length(row.thick_m)}`;
    case "smear":
      return `spread ${length(row.thick_m)} thick, each drawn to its point`;
    case "dollop":
    case "cluster":
      return `${length(row.thick_m)} high`;
    case "join":
      return `joined by a layer of ${length(row.thick_m)}`;
    case "detail":
      return `${LAID[row.laid_by].how}, ${length(row.thick_m)}`;
    case "close":
      return `to the rim, level: ${length(row.thick_m)}`;
    default:
      return `${length(row.thick_m)} thick`;
  }
}

/** Between which temperatures a bath is dipped from, and when it is warmed. */
function bathWords(bath: Schemas["CardRow"]["bath"], units: Units): string {
  return bath ? `; ${dipWords(bath.floor_degc.likely, bath.most_degc, bath.warm_after, units)}` : "";
}

/** The cavities as dots to be ticked off by eye. */
function Cavities({ count, word }: { count: number; word: string }) {
  return (
    <span className="flex items-center gap-1 text-base font-normal text-quiet">
      {count <= 24 &&
        Array.from({ length: count }, (_, i) => i + 1).map((n) => (
          <span key={n} aria-hidden className="inline-block h-3 w-3 rounded-full border border-ink" />
        ))}
      <span className="ml-1">
        {count} {word}
      </span>
    </span>
  );
}
