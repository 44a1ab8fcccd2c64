import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { sends } from "../../shared/events";
import { eventWords } from "../../shared/eventWords";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { dayAndTime } from "../../shared/format/zone";
import { kitchenQuery } from "../../shared/kitchen";
import { Outcomes } from "../../shared/Outcomes";
import { usePerson } from "../../shared/person";
import { useRunEvents } from "../../shared/runEvents";
import { Figure } from "../../shared/ui/Figure";
import { FileButton, FileLink } from "../../shared/ui/files";
import { Button, Notice } from "../../shared/ui/plain";
import { Whose } from "../../shared/Whose";
import { CoolingChart } from "./CoolingChart";
import { Happened } from "./Happened";
import { addReadings, planRest } from "./queries";

type Log = Schemas["RunLog"];

export function RunLog({ log, zone }: { log: Log; zone: string }) {
  const units = useUnits();
  const people = useQuery(kitchenQuery).data?.doc.people ?? [];
  const actor = usePerson(people);
  const events = useRunEvents(actor);
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [refused, setRefused] = useState<Problem | null>(null);
  const [added, setAdded] = useState<number | null>(null);
  const readings = async (csv: string) => {
    setRefused(null);
    try {
      setAdded((await addReadings(log.summary.id, csv, actor)).added);
      await queryClient.invalidateQueries({ queryKey: ["log"] });
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  const rest = async () => {
    try {
      const made = await planRest(log.summary.id, crypto.randomUUID());
      await queryClient.invalidateQueries({ queryKey: ["order"] });
      navigate(`/orders/${made.id}`);
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  const ending = log.ending_id;
  const send = sends((told) => events.send(log.summary.id, told));
  return (
    <div className="space-y-9 px-8 py-6">
      <header>
        <h1 className="text-3xl">{log.summary.name}</h1>
        <p className="text-quiet">
          {dayAndTime(new Date(log.summary.started_at), zone)}, {log.summary.readings} readings, {log.events}{" "}
          events
        </p>
        {log.summary.recomputed && (
          <p className="mt-2 max-w-2xl">
            What this run showed when it ended was not kept yet: its figures are reckoned anew by this version
            and may differ a little from that night.
          </p>
        )}
        {log.aside.length > 0 && (
          <p className="mt-2 max-w-2xl" role="status">
            <strong>Set aside, as it does not fit the rest:</strong>{" "}
            {log.aside.map((a) => `${eventWords(a.kind)} (${a.why})`).join("; ")}
          </p>
        )}
      </header>
      <section aria-label="What changed" className="space-y-3">
        <h2 className="border-b border-line pb-1 text-xl">What the next plan does with it</h2>
        {log.lines
          .filter((line) => line.last)
          .map((line) => (
            <p key={line.name} className="text-2xl leading-snug">
              {line.name}: {line.cast} cast, {line.unusable} unusable
              {flaws(line)}: next time <Figure of={line.next_casts} name="Castings next time" /> for{" "}
              {line.quantity} at {amount(log.confidence_frac, "share", units)}
              {line.planned !== line.next_casts.value.likely && (
                <span className="text-quiet"> instead of {line.planned}</span>
              )}
              .
              {line.recorded < line.cast && (
                <span className="text-quiet"> {line.cast - line.recorded} not recorded yet.</span>
              )}
            </p>
          ))}
        <Whose orders={log.orders} zone={zone} />
        {log.left > 0 && log.summary.ended_at && (
          <p className="flex flex-wrap items-center gap-5 text-lg">
            {log.left} still owed, as far as outcomes are recorded.
            <Button onClick={() => void rest()}>Plan what is left</Button>
            {ending !== null && (
              <Button kind="quiet" onClick={() => send("cancels", { id: ending })}>
                Take the ending back
              </Button>
            )}
          </p>
        )}
        {refused && <Notice tone="hot">{wordProblem(refused, units)}</Notice>}
        {log.vessels.map((vessel) => (
          <p key={vessel.name} className="text-lg">
            {vessel.name} is taken to lose <Figure of={vessel.loss} name="Heat loss against the model" /> of
            what the model says ({range(vessel.loss.value, "frac", units)}; this run was planned with{" "}
            {range(vessel.loss_before, "frac", units)}
            {log.summary.readings > 0 ? "" : ", and nobody took a reading"}). It keeps{" "}
            <Figure of={vessel.residue} name="Melt kept against the film model" /> of the computed film.
          </p>
        ))}
        {log.ovens.map((oven) => (
          <p key={oven.name} className="text-lg">
            {oven.name} is taken to put{" "}
            <Figure of={oven.couples} name="What the oven couples against the usual share" /> of the usual
            share of its power into a bowl ({range(oven.couples.value, "frac", units)}; before it was{" "}
            {range(oven.couples_before, "frac", units)}).
          </p>
        ))}
      </section>
      {log.coolings.length > 0 && (
        <section aria-label="Cooling">
          <h2 className="border-b border-line pb-1 text-xl">Predicted and measured cooling</h2>
          <p className="mt-2 flex flex-wrap items-center gap-x-7 gap-y-2">
            <FileLink href={`/api/runs/${log.summary.id}/readings.csv`}>readings, CSV</FileLink>
            <FileButton label="Readings file" accept=".csv,text/csv" onText={(text) => void readings(text)}>
              Bring in readings
            </FileButton>
            {added !== null && <span role="status">{added} readings brought in.</span>}
          </p>
          <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-8 2xl:grid-cols-2">
            {log.coolings.map((cooling) => (
              <CoolingChart key={cooling.off_at_s} cooling={cooling} />
            ))}
          </div>
        </section>
      )}
      <Happened id={log.summary.id} zone={zone} />
      <section aria-label="Outcomes" className="space-y-5">
        <h2 className="border-b border-line pb-1 text-xl">Outcomes, cavity by cavity</h2>
        {events.refused && <Notice tone="hot">{wordProblem(events.refused, units)}</Notice>}
        {log.rounds.map((round) => (
          <div key={round.number}>
            <h3 className="mb-2 text-lg">
              {log.lines[round.line]?.name}, round {round.number + 1}
            </h3>
            <Why round={round} />
            {round.poured ? (
              <Outcomes
                round={round.number}
                casts={round.casts}
                outcomes={round.outcomes}
                flaws={round.flaws}
                send={send}
              />
            ) : (
              <p className="text-quiet">not poured</p>
            )}
          </div>
        ))}
      </section>
    </div>
  );
}

function flaws(line: Schemas["LineResult"]): string {
  const kinds = Object.entries(line.flaws).map(([kind, n]) => `${n} ${kind}`);
  return kinds.length > 0 ? ` (${kinds.join(", ")})` : "";
}

const TEMPERS: Record<string, string> = {
  tempered: "it was in temper when it was poured",
  under: "it was poured before a smear had set with gloss",
  unseeded: "it was poured untempered",
};

/** What the bowl's record says of pieces that stuck, bloomed or came out dull. */
function Why({ round }: { round: Schemas["RoundRecord"] }) {
  const asks = Object.values(round.flaws).some((kinds) =>
    kinds.some((kind) => ["stuck", "bloomed", "dull"].includes(kind)),
  );
  const said = [
    ...(round.temper ? [TEMPERS[round.temper] ?? round.temper] : []),
    ...(round.overheated ? ["its melt had been too hot"] : []),
  ];
  if (said.length === 0 || (!asks && round.temper === "tempered" && !round.overheated)) return null;
  return (
    <p className={`mb-2 ${asks ? "border-l-4 border-heat pl-3 font-bold" : "text-quiet"}`}>
      {asks ? "The bowl's record: " : ""}
      {said.join("; ")}.
    </p>
  );
}
