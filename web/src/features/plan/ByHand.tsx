import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { amount, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { paletteListQuery } from "../../shared/kitchen";
import { feelWords, measureWords, mixedWords } from "../../shared/measures";
import { doseWords, meltName, tonesOf } from "../../shared/melts";
import { Part } from "./Part";
import { type Asked, atHandQuery, type Summary } from "./queries";

/** What goes in or is pressed by hand over the whole order, what it is mixed of, and its pastes in their colours. */
export function ByHand({ rows, asked }: { rows: Summary["by_hand"]; asked: Asked }) {
  const units = useUnits();
  if (rows.length === 0) return <p className="text-xl text-quiet">Nothing goes in or is pressed by hand.</p>;
  return (
    <>
      <Part query={atHandQuery(asked)} place="min-h-0">
        {(of) => <Pastes needs={of.needs.pastes} doses={of.pastes} />}
      </Part>
      <ul aria-label="By hand" className="grid gap-x-10 border-t border-line sm:grid-cols-2">
        {rows.map((row) => (
          <li key={row.name} className="border-b border-line py-1.5">
            <span className="flex items-baseline justify-between gap-3">
              <span className="min-w-0">
                {row.count} × {row.name.toLowerCase()}
                {row.each && <span className="ml-2 text-quiet">{measureWords(row.each)} each</span>}
              </span>
              <strong className="whitespace-nowrap">{grams(row.kg, units)}</strong>
            </span>
            <Mixed of={row.of} feel={row.feel} />
          </li>
        ))}
      </ul>
    </>
  );
}

/** What it is mixed of, and what is added by feel. */
function Mixed({ of, feel }: { of: Schemas["Ingredient"][]; feel: Schemas["Feel"] | null }) {
  const units = useUnits();
  if (of.length === 0) return null;
  return (
    <span className="block text-quiet">
      {mixedWords(of, units)}. {feel && feelWords(feel, units).join(" ")}
    </span>
  );
}

function Pastes({ needs, doses }: { needs: Schemas["PasteNeed"][]; doses: Schemas["PasteDose"][] }) {
  const units = useUnits();
  const palettes = useQuery(paletteListQuery).data?.items ?? [];
  const called = (key: string, name: string, colour: string | null) =>
    meltName({ material: key, name, colour }, palettes);
  if (needs.length === 0) return null;
  return (
    <ul aria-label="Pastes to have ready" className="mb-5 flex flex-wrap gap-x-12 gap-y-4">
      {needs.map((paste) => {
        const dose = doses.find((of) => of.paste === paste.key && of.wanted === paste.colour);
        return (
          <li key={`${paste.key} ${paste.colour}`} className="max-w-sm">
            <strong className="block text-3xl">{grams(paste.kg - paste.of_others_kg, units)}</strong>
            <span>
              <span
                aria-hidden
                className="mr-2 inline-block h-3.5 w-3.5 border border-ink"
                style={{ background: tonesOf({ material: paste.key, colour: paste.colour }).tone }}
              />
              {called(paste.key, paste.name, paste.colour)}
            </span>
            <span className="block text-quiet">{kneaded(dose, units)}</span>
            {paste.of_others_kg > 0 && (
              <span className="block text-quiet">
                and {grams(paste.of_others_kg, units)} of lighter off-cuts, kneaded in
              </span>
            )}
            {paste.left_kg >= LEAST_KG && (
              <span className="block text-quiet">
                off-cuts left in the end: {grams(paste.left_kg, units)}
                {paste.into === null
                  ? ", wrapped airtight"
                  : `, beside what goes into ${called(paste.key, paste.name, paste.into)}`}
              </span>
            )}
            {paste.left_kg < LEAST_KG && paste.into !== null && (
              <span className="block text-quiet">
                its off-cuts go into {called(paste.key, paste.name, paste.into)}
              </span>
            )}
            <Mixed of={paste.of} feel={paste.feel} />
          </li>
        );
      })}
    </ul>
  );
}

/** What colours a paste. */
function kneaded(dose: Schemas["PasteDose"] | undefined, units: Units): string {
  if (!dose) return "";
  if (dose.why === "no_colours") return "no colour of its kind is at hand";
  const of = dose.doses.map((row) => doseWords(row, units)).join(", ");
  return of ? `kneaded in: ${of}` : "needs no colour";
}

/** Of less there is only a dab. */
const LEAST_KG = 0.0001;

const grams = (kg: number, units: Units) => (kg < LEAST_KG ? "a dab" : amount(kg, "mass", units));
