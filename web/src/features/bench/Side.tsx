import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf } from "../../api/client";
import { lineName, type View } from "../../shared/acts";
import type { SendEvent } from "../../shared/events";
import { clock } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Dialog } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { TextField } from "../../shared/ui/plain";
import { sendPicture } from "./queries";

const MINUTE_S = 60;

/** Something noted at this moment, with a picture or without; with minutes it is a timer of that name. */
export function SideDialog({
  open,
  onClose,
  run,
  send,
}: {
  open: boolean;
  onClose: () => void;
  run: string;
  send: SendEvent;
}) {
  const units = useUnits();
  const [text, setText] = useState("");
  const [minutes, setMinutes] = useState("");
  const [file, setFile] = useState<File | null>(null);
  const picture = useMutation({ mutationFn: (taken: File) => sendPicture(run, taken) });
  const seconds = Number(minutes.replace(",", ".")) * MINUTE_S;
  const rings = minutes.trim() !== "";
  const wrong = rings && !(seconds >= 5 && seconds <= 24 * 60 * MINUTE_S);
  const nothing = wrong || !(rings || text.trim() || file) || picture.isPending;
  const say = async () => {
    const name = text.trim();
    // a picture goes out now or not at all: what was typed stays until it has
    const taken = file ? await picture.mutateAsync(file).catch(() => null) : undefined;
    if (taken === null) return;
    if (taken !== undefined) send("note", { picture: taken, text: name });
    if (rings) send("timer", { name: name || "Timer", seconds });
    else if (taken === undefined) send("note", { text: name });
    setText("");
    setMinutes("");
    setFile(null);
    onClose();
  };
  return (
    <Dialog open={open} onClose={onClose} title="A note, or a timer" bench>
      <form
        className="space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          if (!nothing) void say();
        }}
      >
        <label className="block text-sm text-quiet">
          What
          <textarea
            rows={2}
            maxLength={500}
            value={text}
            onChange={(event) => setText(event.target.value)}
            className="mt-1 block w-full resize-y border-b-2 border-ink bg-transparent py-1 text-xl font-bold text-ink"
          />
        </label>
        <TextField
          label="Rings in, minutes (empty: a note)"
          value={minutes}
          onChange={setMinutes}
          error={wrong ? "from 0.1 to 1440 minutes" : undefined}
        />
        <label className="block text-sm text-quiet">
          A picture
          <input
            type="file"
            accept="image/*"
            capture="environment"
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
            className="mt-1 block text-lg text-ink file:mr-4 file:min-h-12 file:rounded-sm file:border-2 file:border-line file:bg-transparent file:px-4 file:text-lg file:text-ink"
          />
        </label>
        {picture.error && (
          <p role="alert" className="font-semibold text-heat">
            {wordProblem(problemOf(picture.error), units)}
          </p>
        )}
        <div className="flex gap-6">
          <button
            type="submit"
            disabled={nothing}
            className="min-h-16 rounded-sm bg-glass px-8 text-2xl font-bold text-on-glass disabled:opacity-50"
          >
            {picture.isPending ? "Sending…" : rings ? "Set the timer" : "Note it"}
          </button>
          <button type="button" onClick={onClose} className="min-h-16 px-4 text-xl font-bold text-glass">
            Leave it
          </button>
        </div>
      </form>
    </Dialog>
  );
}

/** Timers of one's own, until they are heard. */
export function Timers({ view, elapsed, send }: { view: View; elapsed: number; send: SendEvent }) {
  if (view.timers.length === 0) return null;
  return (
    <ul aria-label="Timers" className="mb-3">
      {view.timers.map(({ number, name, rings_s }) => {
        const left = rings_s - elapsed;
        return (
          <li key={number} className="flex items-center gap-3 border-b border-line py-1">
            <span className={`w-[4.5rem] shrink-0 text-2xl font-bold ${left <= 0 ? "text-heat" : ""}`}>
              {left > 0 ? clock(left) : "rings"}
            </span>
            <span className="min-w-0 flex-1 text-xl">{name}</span>
            <button
              type="button"
              aria-label={`${name}: ${left > 0 ? "stop the timer" : "heard"}`}
              onClick={() => send("timer", { timer: number, over: true })}
              className="min-h-16 px-4 text-xl font-bold text-glass"
            >
              {left > 0 ? "stop" : "heard"}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** Castings in hand counted again, against what was recorded. */
export function CountAgain({ view, send }: { view: View; send: SendEvent }) {
  const [typed, setTyped] = useState(new Map<number, number>());
  const change = (line: number, good: number | null) =>
    setTyped(
      new Map([...typed].filter(([of]) => of !== line).concat(good === null ? [] : [[line, good] as const])),
    );
  return (
    <details className="mt-4">
      <summary className="min-h-11 cursor-pointer text-xl font-bold text-glass">Count again</summary>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-3">
        {view.castings.map(({ line, wanted, good }) => (
          <div key={line} className="w-60">
            <NumberField
              label={`${lineName(view, line)}, ${good} of ${wanted} good: in hand`}
              quantity="count"
              value={typed.get(line) ?? null}
              onChange={(count) => change(line, Math.round(count))}
              onClear={() => change(line, null)}
              step={1}
            />
          </div>
        ))}
        <button
          type="button"
          disabled={typed.size === 0}
          onClick={() => {
            for (const [line, good] of typed) send("counted", { line, good });
            setTyped(new Map());
          }}
          className="min-h-16 rounded-sm border-2 border-ink px-6 text-xl font-bold disabled:opacity-50"
        >
          So many are in hand
        </button>
      </div>
    </details>
  );
}
