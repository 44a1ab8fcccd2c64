import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { kitchenQuery, propertiesQuery } from "../../shared/kitchen";
import { meltsIn } from "../../shared/wording";
import { Bursts } from "./Bursts";
import { CaramelPan } from "./CaramelPan";
import { Cook } from "./Cook";
import { Dipping } from "./Dipping";
import { Fluid } from "./Fluid";
import { Oven } from "./Oven";

const TABS = {
  bursts: "Wafers by bursts",
  cook: "Isomalt and sugar",
  pan: "Dry caramel",
  dip: "A bath to dip in",
  fluid: "How fluid is it",
  oven: "My oven's power",
} as const;
type Tab = keyof typeof TABS;

/** What happens in bowl and pot before the pour, asked apart from any order. */
export function MeltView() {
  const kitchen = useQuery(kitchenQuery).data?.doc;
  const groups = useQuery(propertiesQuery).data?.groups;
  const [tab, setTab] = useState<Tab>("bursts");
  if (!kitchen || !groups) return null;
  const fats = meltsIn(groups).filter((row) => row.family?.skins);
  const sugars = meltsIn(groups).filter((row) => row.family?.made === "cooked");
  return (
    <div>
      <header className="px-7 pt-6">
        <h1 className="text-3xl">Melt</h1>
        <div role="tablist" aria-label="What is melted" className="mt-3 flex flex-wrap gap-x-6 gap-y-1">
          {(Object.keys(TABS) as Tab[]).map((key) => (
            <button
              key={key}
              type="button"
              role="tab"
              aria-selected={key === tab}
              onClick={() => setTab(key)}
              className={`min-h-11 border-b-4 text-lg font-bold ${key === tab ? "border-glass text-ink" : "border-transparent text-glass hover:border-line"}`}
            >
              {TABS[key]}
            </button>
          ))}
        </div>
      </header>
      {tab === "bursts" && <Bursts kitchen={kitchen} fats={fats} />}
      {tab === "cook" && <Cook kitchen={kitchen} sugars={sugars} />}
      {tab === "pan" && <CaramelPan kitchen={kitchen} />}
      {tab === "dip" && <Dipping fats={fats} />}
      {tab === "fluid" && <Fluid fats={fats} />}
      {tab === "oven" && <Oven />}
    </div>
  );
}
