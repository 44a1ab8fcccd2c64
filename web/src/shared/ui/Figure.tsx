import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import type { Explained } from "../../api/client";
import { inUnit, range } from "../format/units";
import { useUnits } from "../format/useUnits";
import { sourcesQuery } from "../kitchen";

interface Props {
  of: Explained;
  /** What the number is, for the reader and the explanation's heading. */
  name: string;
  /** Shown instead of the likely value, as for a count within a total. */
  text?: string;
  className?: string;
  dim?: boolean;
}

/** An explained number: press it and it says formula, inputs, sources and spread. */
export function Figure({ of, name, text, className = "", dim }: Props) {
  const units = useUnits();
  const shown = text ?? inUnit(of.value.likely, of.unit, units);
  return (
    <Popover className="inline">
      <PopoverButton
        title={of.formula}
        aria-label={`${name}: ${shown}. Explain`}
        className={`cursor-help font-bold decoration-dotted decoration-2 underline-offset-4 hover:underline ${dim ? "opacity-50" : ""} ${className}`}
      >
        {shown}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: "bottom start", gap: 6, padding: 12 }}
        className="z-50 w-96 max-w-[90vw] border-t-4 border-glass bg-raised p-4 text-base font-normal text-ink shadow-xl"
      >
        <Explanation of={of} name={name} />
      </PopoverPanel>
    </Popover>
  );
}

function Explanation({ of, name }: { of: Explained; name: string }) {
  const units = useUnits();
  const sources = useQuery(sourcesQuery).data?.items ?? [];
  const spread = range(of.value, of.unit, units);
  return (
    <div>
      <div className="flex items-baseline justify-between gap-4">
        <span className="font-head text-lg font-bold">{name}</span>
        <span className="font-bold">{inUnit(of.value.likely, of.unit, units)}</span>
      </div>
      {of.value.low !== of.value.high && <p className="text-sm text-quiet">{spread}, nine times in ten</p>}
      <p className="mt-2">{of.formula}.</p>
      <table className="mt-2 w-full text-sm">
        <tbody>
          {of.inputs.map((input) => (
            <tr key={input.name} className="border-t border-line">
              <th scope="row" className="py-1 pr-3 text-left font-normal text-quiet">
                {input.name}
              </th>
              <td className="py-1 text-right">{range(input.value, input.unit, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {of.limited_by && <p className="mt-2 text-sm">Decided by: {of.limited_by}.</p>}
      {of.sources.length > 0 && (
        <p className="mt-2 text-xs text-quiet">
          {of.sources
            .map((key) => {
              const source = sources.find((s) => s.key === key);
              return source ? `${source.title}${source.memory ? " (from memory)" : ""}` : key;
            })
            .join("; ")}
          .
        </p>
      )}
    </div>
  );
}
