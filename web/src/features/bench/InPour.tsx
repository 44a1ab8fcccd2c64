import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf } from "../../api/client";
import { lineName, type View, type What } from "../../shared/acts";
import type { SendEvent } from "../../shared/events";
import { amount, duration, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { PourCard } from "../../shared/PourCard";
import { Dialog } from "../../shared/ui/controls";
import { Notice } from "../../shared/ui/plain";
import { cardsQuery, shortQuery } from "./queries";

interface Props {
  what: What<"pour">;
  round: number;
  view: View;
  send: SendEvent;
}

/** At a pour: the card of this filling, and what to do when the melt runs short. */
export function InPour({ what, round, view, send }: Props) {
  const [open, setOpen] = useState<"card" | "short" | null>(null);
  return (
    <div className="mt-4 flex flex-wrap gap-2">
      <Large onClick={() => setOpen("short")}>It runs short</Large>
      <Large onClick={() => setOpen("card")}>Pour card</Large>
      <Dialog open={open === "short"} onClose={() => setOpen(null)} title="It runs short" bench>
        <Shortage what={what} view={view} round={round} send={send} onClose={() => setOpen(null)} />
      </Dialog>
      <Dialog open={open === "card"} onClose={() => setOpen(null)} title={lineName(view, what.line)} bench>
        <ThisCard view={view} line={what.line} casts={what.casts} />
      </Dialog>
    </div>
  );
}

function Shortage({ what, view, round, send, onClose }: Props & { onClose: () => void }) {
  const units = useUnits();
  const before = what.filled;
  const casts = before + what.casts;
  const [filled, setFilled] = useState(before + Math.floor((casts - before) / 2));
  const [fills, setFills] = useState(0);
  const query = useQuery(shortQuery(view.run_id, { round, filled, fills }));
  const said = query.data;
  const grams = (kg: number) => amount(kg, "mass", units);
  const stop = () => {
    if (said && said.empty > 0) send("short", { round, filled: said.filled + said.more });
    onClose();
  };
  return (
    <div className="space-y-5 text-2xl">
      <Count name="Full so far" value={filled} most={casts} onChange={setFilled} after={`of ${casts}`} />
      <Count
        name="What is left fills"
        value={Math.min(fills, casts - filled)}
        most={casts - filled}
        onChange={setFills}
        after="more"
      />
      {query.error && <Notice tone="hot">{wordProblem(problemOf(query.error), units)}</Notice>}
      {said && (
        <div role="status" className="space-y-3">
          <p className="text-4xl font-bold text-balance">
            {said.empty === 0
              ? "It is enough: finish them"
              : said.more > 0
                ? `Finish ${said.more} more, then stop`
                : "Stop: leave the rest empty"}
          </p>
          <p>{grams(said.each_kg)} each. Never half a cavity: fill one whole, then the next.</p>
          {said.empty > 0 && (
            <>
              <p>
                Melt <strong>{grams(said.melt_kg)}</strong> now for the {said.empty} that stay empty: about{" "}
                {duration(said.makes_s)}.
              </p>
              <p className={`border-l-4 pl-3 ${said.shows ? "border-heat" : "border-glass"}`}>
                What was poured last stays open for {range(said.open_s, "s", units)}.{" "}
                {said.shows
                  ? "The new melt comes later: in a cavity left half full the join would show. Scrape it out, or finish it as a second pass on purpose."
                  : "The new melt is there in time: a half-full cavity can still be topped up without a join."}
              </p>
            </>
          )}
        </div>
      )}
      {said && <Large onClick={stop}>{said.empty > 0 ? "Stop here, melt for the rest" : "Go on"}</Large>}
    </div>
  );
}

function Count({
  name,
  value,
  most,
  onChange,
  after,
}: {
  name: string;
  value: number;
  most: number;
  onChange: (n: number) => void;
  after: string;
}) {
  return (
    <div className="flex flex-wrap items-center gap-4">
      <span className="w-56">{name}</span>
      <Large onClick={() => onChange(Math.max(0, value - 1))} label={`${name}: one fewer`}>
        −
      </Large>
      <strong className="w-16 text-center text-5xl">{value}</strong>
      <Large onClick={() => onChange(Math.min(most, value + 1))} label={`${name}: one more`}>
        +
      </Large>
      <span>{after}</span>
    </div>
  );
}

function ThisCard({ view, line, casts }: { view: View; line: number; casts: number }) {
  const cards = useQuery(cardsQuery(view.run_id)).data?.items ?? [];
  const of = cards.filter((card) => card.rows.some((row) => row.line === line));
  const card = of.find((c) => c.casts === casts) ?? of[0];
  if (!card) return null;
  return <PourCard card={card} number={cards.indexOf(card) + 1} places={view.places} />;
}

function Large({
  children,
  onClick,
  label,
}: {
  children: React.ReactNode;
  onClick: () => void;
  label?: string;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="min-h-16 min-w-16 rounded-sm border border-line px-4 text-xl hover:border-glass"
    >
      {children}
    </button>
  );
}
