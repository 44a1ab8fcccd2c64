import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf, type Schemas } from "../../api/client";
import type { View } from "../../shared/acts";
import type { SendEvent } from "../../shared/events";
import { amount, roughly, type Units } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { timeOfDay } from "../../shared/format/zone";
import { TASK_WORDS } from "../../shared/laneWords";
import { wholeName } from "../../shared/named";
import { Dialog } from "../../shared/ui/controls";
import { useDebounced } from "../../shared/useDebounced";
import { onwardQuery, searchOnward } from "./queries";

type WayOn = Schemas["WayOn"];
type GoingOn = Schemas["GoingOn"];

/** Less is as good as in time, and as soon [s]. */
const MINUTE_S = 60;
const QUIET_MS = 4_000;

interface Props {
  view: View;
  zone: string;
}

/** When all will be ready as it is going, where that is late, could be sooner, or something is about to be lost; and the way to choose. */
export function OnwardLine({ view, zone, onOpen }: Props & { onOpen: () => void }) {
  // asked anew once nothing has been told for a moment: hands come first
  const data = useQuery(onwardQuery(view.run_id, useDebounced(view.seq, QUIET_MS))).data;
  const [now] = data?.ways ?? [];
  if (!data || !now || view.paused) return null;
  const { late_s: late, sooner_s: sooner } = data;
  const enough = data.ways.flatMap((way) => way.spared).filter((of) => of.enough);
  if (late < MINUTE_S && sooner === 0 && now.lost.length === 0 && enough.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-5 px-6 py-1 text-xl">
      {late >= MINUTE_S ? (
        <strong className="text-heat">
          Ready about {clockOf(view, now.ends_s, zone)}, {roughly(late)} late.
        </strong>
      ) : (
        <span>Ready about {clockOf(view, now.ends_s, zone)}.</span>
      )}
      {now.lost[0] && (
        <strong className="text-heat">
          {wholeName(now.lost[0].named)}: {TASK_WORDS[now.lost[0].kind]} will be too late.
        </strong>
      )}
      {enough[0] && <span>Enough {enough[0].named.piece}: the rest need not be cast.</span>}
      {sooner > 0 && <span>{roughly(sooner)} sooner in another order.</span>}
      <button type="button" onClick={onOpen} className="min-h-11 font-bold text-glass hover:underline">
        How to go on
      </button>
    </p>
  );
}

interface DialogProps extends Props {
  people: string[];
  onClose: () => void;
  send: SendEvent;
}

/** The ways to go on, each with when it ends and what it loses; and who leaves or is back. */
export function OnwardDialog({ view, zone, people, onClose, send }: DialogProps) {
  const units = useUnits();
  const queryClient = useQueryClient();
  const query = onwardQuery(view.run_id, view.seq);
  const { data } = useQuery(query);
  const search = useMutation({
    mutationFn: (_known: GoingOn) => searchOnward(view.run_id),
    onSuccess: (found) => queryClient.setQueryData(query.queryKey, found),
  });
  const [now] = data?.ways ?? [];
  // by its rounds: what is cast all the same
  const [cast, setCast] = useState<ReadonlySet<string>>(new Set());
  const take = (way: WayOn) => {
    for (const { round, place } of way.chilled) send("moved", { round, place });
    const spared = way.spared.filter((of) => !cast.has(spareKey(of)));
    if (spared.length > 0) send("left_out", { rounds: spared.flatMap((of) => of.rounds) });
    // its order is the one without all of them
    if (way.how !== "colder" && spared.length === way.spared.length)
      send("rearranged", { pours: way.pours, whose: way.whose });
    onClose();
  };
  const toggle = (key: string) =>
    setCast((before) => new Set(before.has(key) ? [...before].filter((of) => of !== key) : [...before, key]));
  return (
    <Dialog open onClose={onClose} title="How to go on" bench wide>
      {data && !now && (
        <p className="text-xl">
          What is left of this run cannot be arranged anew: it goes on by what may be done next.
        </p>
      )}
      <ul className="space-y-1" aria-label="Ways to go on" aria-busy={!data}>
        {now &&
          data?.ways
            .filter((way) => way.offered)
            .map((way) => (
              <li
                key={way.how}
                className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-line py-2.5"
              >
                <div className="min-w-64 flex-1">
                  <strong className="block text-2xl">{HOW_WORDS[way.how]}</strong>
                  <span className="text-lg text-quiet">
                    {[priceWords(now, way, data.due_s), ...way.lost.map(lostWords)].join("; ")}
                  </span>
                  {(way.spared.length > 0 || way.chilled.length > 0) && (
                    <ul className="mt-1 text-lg">
                      {way.spared.map((of) => (
                        <li key={spareKey(of)}>
                          <label className="flex min-h-10 items-center gap-3">
                            <input
                              type="checkbox"
                              className="size-6 shrink-0 accent-glass"
                              checked={!cast.has(spareKey(of))}
                              onChange={() => toggle(spareKey(of))}
                            />
                            {sparedWords(of, units)}
                          </label>
                        </li>
                      ))}
                      {way.chilled.map((of) => (
                        <li key={of.round}>{chilledWords(of, view, zone)}</li>
                      ))}
                    </ul>
                  )}
                </div>
                <span className="font-head text-3xl font-bold">{clockOf(view, way.ends_s, zone)}</span>
                {TAKE_WORDS[way.how] && (
                  <button
                    type="button"
                    disabled={way.spared.length > 0 && way.spared.every((of) => cast.has(spareKey(of)))}
                    onClick={() => take(way)}
                    className="min-h-14 min-w-44 rounded-sm bg-glass px-6 text-xl font-bold text-on-glass"
                  >
                    {TAKE_WORDS[way.how]}
                  </button>
                )}
              </li>
            ))}
      </ul>
      {now && (
        <p className="mt-3 flex flex-wrap items-center gap-x-5 text-lg" aria-live="polite">
          <button
            type="button"
            disabled={search.isPending}
            onClick={() => data && search.mutate(data)}
            className="min-h-12 font-bold text-glass hover:underline"
          >
            {search.isPending ? "Looking…" : "Look for a better order"}
          </button>
          {search.isSuccess && (
            <span className="text-quiet">{foundWords(search.data, search.variables)}</span>
          )}
          {search.isError && <span className="text-heat">{wordProblem(problemOf(search.error), units)}</span>}
        </p>
      )}
      <fieldset className="mt-4 flex flex-wrap items-center gap-x-6">
        <legend className="text-lg text-quiet">Who is there</legend>
        {people.map((name) => (
          <label key={name} className="flex min-h-12 items-center gap-3 text-xl">
            <input
              type="checkbox"
              className="size-6 accent-glass"
              checked={!view.gone.includes(name)}
              onChange={(e) => send("went", { person: name, away: !e.target.checked })}
            />
            {name}
          </label>
        ))}
      </fieldset>
      <button
        type="button"
        onClick={onClose}
        className="mt-5 min-h-16 rounded-sm border-2 border-ink px-8 text-2xl font-bold"
      >
        Close
      </button>
    </Dialog>
  );
}

const HOW_WORDS: Record<WayOn["how"], string> = {
  as_it_goes: "As it is going",
  rearranged: "In another order",
  without_spares: "Without what is only spare",
  colder: "Into the cold now",
  help: "With another pair of hands from now on",
};

/** What is pressed to go on so. */
const TAKE_WORDS: Record<WayOn["how"], string | null> = {
  as_it_goes: null,
  rearranged: "Go by this",
  without_spares: "Leave them out",
  colder: "I put them there",
  help: null,
};

function foundWords(found: GoingOn, known: GoingOn): string {
  const end = (of: GoingOn) => of.ways.find((way) => way.how === "rearranged")?.ends_s;
  const [before, now] = [end(known), end(found)];
  return before !== undefined && now !== undefined && before - now >= MINUTE_S
    ? `Found one that ends ${roughly(before - now)} sooner.`
    : "No better one was found.";
}

const spareKey = ({ rounds }: Schemas["SparedShown"]) => rounds.join();

function sparedWords(
  { named, casts, sure_frac, then_frac, enough }: Schemas["SparedShown"],
  units: Units,
): string {
  const name = named.piece;
  if (enough) return `${name}: ${casts} fewer, enough are in hand`;
  return `${name}: ${casts} fewer, ${amount(then_frac, "share", units)} sure of enough instead of ${amount(sure_frac, "share", units)}`;
}

function chilledWords(
  { named, place, out_s, cracks_s }: Schemas["ChilledShown"],
  view: View,
  zone: string,
): string {
  const out =
    cracks_s === null ? "" : `, and out of the cold by ${clockOf(view, cracks_s, zone)}: then it may crack`;
  return `${named.piece} into the ${view.places[place]}: turn out from ${clockOf(view, out_s, zone)}${out}`;
}

/** What a way brings against going on as it is. */
function priceWords(now: WayOn, way: WayOn, due_s: number): string {
  const late = way.ends_s - due_s;
  const inTime = late >= MINUTE_S ? `${roughly(late)} late` : "in time";
  const by = now.ends_s - way.ends_s;
  if (way.how === "as_it_goes") return inTime;
  return `${inTime}; ${by >= MINUTE_S ? `${roughly(by)} sooner` : by <= -MINUTE_S ? `${roughly(-by)} later` : "no sooner"}`;
}

const lostWords = ({ named, kind }: Schemas["LostShown"]) =>
  `${wholeName(named).toLowerCase()}: ${TASK_WORDS[kind]} too late`;

const clockOf = (view: View, s: number, zone: string) =>
  timeOfDay(new Date(new Date(view.started_at).getTime() + s * 1000), zone);
