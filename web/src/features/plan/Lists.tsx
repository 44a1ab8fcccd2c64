import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { dustOf, liquidOf } from "../../shared/finishWords";
import { amount, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { paletteListQuery } from "../../shared/kitchen";
import { measureWords } from "../../shared/measures";
import { meltName } from "../../shared/melts";
import { wholeName } from "../../shared/named";
import { FileLink } from "../../shared/ui/files";
import { filmWords } from "../../shared/workWords";
import { Part } from "./Part";
import { type Asked, atHandQuery } from "./queries";

const LISTS = [
  {
    file: "prep-list.pdf",
    name: "At hand, PDF",
    what: "what is bought, mixed and put ready before it begins, as it stands here",
  },
  {
    file: "day-sheets.pdf",
    name: "Day sheets, PDF",
    what: "a page for each person: what to do when, one thing after the other",
  },
  {
    file: "melt-list.pdf",
    name: "Melt list, PDF",
    what: "each melt to weigh out, its vessel, its colours, its bursts or time on the ring",
  },
  { file: "pour-list.pdf", name: "Pour list, PDF", what: "a card for every filling of a mould, to tick off" },
  {
    file: "hand-list.pdf",
    name: "By-hand list, PDF",
    what: "what goes in or is pressed by hand, and what it is mixed of",
  },
  {
    file: "timetable.pdf",
    name: "Timetable, PDF",
    what: "the rows as they are drawn, and what the hands do when",
  },
  {
    file: "timetable.ics",
    name: "Timetable, iCalendar",
    what: "for the calendar of a phone or another program",
  },
];

interface Props {
  asked: Asked;
  orderId: string;
  kitchen: Schemas["Kitchen"];
  pieces: Schemas["StoredPiece"][];
}

/** What must be at hand, and what goes on the kitchen's wall and into the calendar. */
export function Lists({ asked, orderId, kitchen, pieces }: Props) {
  return (
    <>
      <Part query={atHandQuery(asked)} place="min-h-80">
        {(of) => <AtHand of={of} kitchen={kitchen} />}
      </Part>
      <div className="mb-7">
        <Rows title="To put together" rows={together(asked, pieces)} />
      </div>
      <Papers orderId={orderId} />
    </>
  );
}

/** Less than a scale of a tenth of a gram shows. */
const TRACE_KG = 0.00005;

/** Which parts go into which piece, of those that have more than one. */
function together({ order }: Asked, pieces: Schemas["StoredPiece"][]): [string, string][] {
  return order.lines.flatMap(({ piece_id, quantity }): [string, string][] => {
    const piece = pieces.find((of) => of.id === piece_id)?.doc;
    if (!piece || piece.parts.reduce((sum, part) => sum + part.count, 0) < 2) return [];
    const parts = piece.parts.map((part) => `${part.count} × ${part.name.toLowerCase()}`);
    return [[String(quantity), `${piece.name}: ${parts.join(", ")}`]];
  });
}

function AtHand({ of: { needs, colours }, kitchen }: { of: Schemas["AtHand"]; kitchen: Schemas["Kitchen"] }) {
  const units = useUnits();
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const things = [...kitchen.vessels, ...kitchen.rings, ...kitchen.microwaves, ...kitchen.baths];
  const named = (ids: string[]) => things.filter(({ id }) => ids.includes(id)).map(({ name }) => name);
  const drops = (colour: Schemas["ColourNeed"]) =>
    colour.drops === null ? "" : `, about ${Math.ceil(colour.drops)} drops`;
  return (
    <section aria-label="At hand" className="mb-7 grid gap-x-12 gap-y-6 md:grid-cols-2 xl:grid-cols-3">
      <Rows
        title="To weigh out in all"
        rows={[
          ...needs.melts.map((melt): [string, string] => [
            amount(melt.kg, "mass", units),
            `${meltName(melt, palettes)}${melt.measured ? `, ${measureWords(melt.measured)}` : ""}`,
          ]),
          ...needs.pastes.map((paste): [string, string] => [
            amount(paste.kg - paste.of_others_kg, "mass", units),
            meltName({ material: paste.key, name: paste.name, colour: paste.colour }, palettes),
          ]),
        ]}
      />
      <Rows
        title="Colours"
        rows={colours.map((colour) => [
          colour.kg === null
            ? "to taste"
            : colour.kg < TRACE_KG
              ? "a trace"
              : amount(colour.kg, "mass", units),
          `${colour.name}${drops(colour)}`,
        ])}
      />
      <Rows
        title="By hand"
        rows={needs.by_hand.map((row) => [amount(row.kg, "mass", units), `${row.name}, ${row.count} times`])}
      />
      <Rows
        title="Moulds, sticks, films"
        rows={[
          ...needs.moulds.map((mould): [string, string] => [
            String(mould.count),
            `${mould.name}, filled ${mould.fillings === 1 ? "once" : `${mould.fillings} times`}`,
          ]),
          ...needs.films.map((of): [string, string] => [
            String(of.count),
            `${of.name}, ${filmWords(of.film, units)}${of.uses > of.count ? `; laid on ${of.uses} times in all` : ""}`,
          ]),
          ...needs.sticks.map((stick): [string, string] => [
            String(stick.count),
            `sticks, ${wholeName(stick.named).toLowerCase()}`,
          ]),
        ]}
      />
      <Rows
        title="Bought"
        rows={needs.bought.map((of): [string, string] => [String(of.count), boughtRow(of, units)])}
      />
      <Rows
        title="Finishes"
        rows={needs.finishes.map((of): [string, string] => [String(of.pots), finishRow(of, units)])}
      />
      <Rows
        title="Vessels and heat"
        rows={[...named(needs.vessels), ...named(needs.heaters)].map((name) => ["1", name])}
      />
    </section>
  );
}

/** What is bought, how long it is cut, and what of it is not eaten. */
function boughtRow({ name, long_m, status }: Schemas["BoughtNeed"], units: Units): string {
  const cut = long_m > 0 ? `, each ${amount(long_m, "length", units)}` : "";
  return `${name}${cut}${status === "food" ? "" : ", not eaten"}`;
}

const POTS: Record<Schemas["FinishNeed"]["sort"], string> = { dust: "pot", paint: "pot", lacquer: "can" };

/** What a finish takes, out of so many pots. */
function finishRow(
  { name, sort, pots, dust_kg, liquid_m3, status }: Schemas["FinishNeed"],
  units: Units,
): string {
  const takes = [
    ...(dust_kg > 0 ? [`${dustOf(dust_kg, units)} of dust`] : []),
    ...(liquid_m3 > 0 ? [`${liquidOf(liquid_m3, units)}${sort === "paint" ? " of spirit" : ""}`] : []),
  ].join(" in ");
  const vessel = pots === 1 ? POTS[sort] : `${POTS[sort]}s`;
  return `${vessel}, ${name}: ${takes}${status === "food" ? "" : ", not food"}`;
}

function Rows({ title, rows }: { title: string; rows: [string, string][] }) {
  if (rows.length === 0) return null;
  return (
    <div>
      <h2 className="border-b border-line pb-1 text-xl">{title}</h2>
      <ul aria-label={title}>
        {rows.map(([count, what]) => (
          <li key={`${count} ${what}`} className="flex gap-4 border-b border-line py-1.5">
            <strong className="w-20 shrink-0 text-right">{count}</strong>
            <span className="min-w-0">{what}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What goes on the kitchen's wall, and into the calendar. */
function Papers({ orderId }: { orderId: string }) {
  return (
    <dl className="grid gap-x-12 sm:grid-cols-2">
      {LISTS.map(({ file, name, what }) => (
        <div key={file} className="border-t border-line py-3">
          <dt className="text-xl">
            <FileLink href={`/api/orders/${orderId}/${file}`}>{name}</FileLink>
          </dt>
          <dd className="text-quiet">{what}</dd>
        </div>
      ))}
    </dl>
  );
}
