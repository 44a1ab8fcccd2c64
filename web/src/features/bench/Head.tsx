import type { Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { dayAndTime, timeOfDay } from "../../shared/format/zone";
import { setPerson } from "../../shared/person";
import { Dialog } from "../../shared/ui/controls";
import type { Sound } from "./sound";

export function Head({
  view,
  elapsed,
  kitchen,
  sound,
  onSound,
  onHelp,
  onPause,
  onEnd,
  onTimetable,
  actor,
}: {
  view: Schemas["BenchView"];
  elapsed: number;
  kitchen: Schemas["Kitchen"];
  sound: Sound;
  onSound: () => void;
  onHelp: () => void;
  onPause: () => void;
  onEnd: () => void;
  onTimetable: () => void;
  actor: string;
}) {
  const units = useUnits();
  const start = new Date(view.started_at).getTime();
  const due = new Date(view.due_at);
  const nextPerson = kitchen.people[(kitchen.people.indexOf(actor) + 1) % kitchen.people.length] ?? actor;
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-0 border-b border-line px-6 py-1.5 lg:flex-nowrap lg:whitespace-nowrap">
      <h1 className="text-2xl lg:min-w-0 lg:truncate" title={view.name}>
        {view.name}
      </h1>
      <span className="hidden text-lg 2xl:inline">for {dayAndTime(due, kitchen.zone)}</span>
      <span className="hidden text-quiet xl:inline">
        {view.rounds_done} of {view.rounds_total} rounds out
      </span>
      <span className="hidden text-quiet 2xl:inline">
        room {amount(view.room_degc, "temperature", units)}, {amount(view.humidity_frac, "share", units)} damp
      </span>
      <span className="ml-auto flex flex-wrap items-center gap-x-1 lg:shrink-0 lg:flex-nowrap">
        <HeadButton onClick={() => setPerson(nextPerson)} label={`At this screen: ${actor}. Change`}>
          {actor}
        </HeadButton>
        <HeadButton onClick={onTimetable} label="What runs, as a timetable">
          timetable
        </HeadButton>
        <HeadButton onClick={onSound} label={SOUND_WORDS[sound].label}>
          {SOUND_WORDS[sound].word}
        </HeadButton>
        <HeadButton onClick={onPause} label={view.paused ? "Go on after the pause" : "Pause: nothing calls"}>
          {view.paused ? "go on" : "pause"}
        </HeadButton>
        <HeadButton onClick={onEnd} label="End the run early: what is left can become an order">
          end early
        </HeadButton>
        <span className="hidden sm:inline">
          <HeadButton onClick={onHelp} label="Keys">
            keys ?
          </HeadButton>
        </span>
      </span>
      <time className="order-first ml-0 sm:order-none text-3xl font-bold">
        {timeOfDay(new Date(start + elapsed * 1000), kitchen.zone, true)}
      </time>
    </header>
  );
}

const SOUND_WORDS: Record<Sound, { word: string; label: string }> = {
  on: { word: "sound on", label: "Sound is on" },
  off: { word: "sound off", label: "Sound is off" },
  voice: { word: "voice on", label: "Calls sound and are said" },
};

function HeadButton({ children, onClick, label }: { children: string; onClick: () => void; label: string }) {
  return (
    <button
      type="button"
      title={label}
      onClick={onClick}
      className="min-h-11 px-1.5 whitespace-nowrap text-quiet hover:text-ink sm:px-2 sm:text-lg"
    >
      {children}
    </button>
  );
}

const KEYS: [string, string][] = [
  ["Space", "do the large act"],
  ["← or Backspace", "take the last one back"],
  ["0 to 9, Enter", "a reading, for the selected ribbon"],
  ["↑ ↓", "select a ribbon"],
  ["M", "how the reading was taken"],
  ["W", "what you see of the selected round"],
  ["V", "move the selected round to the next place"],
  ["P", "pause, and go on"],
  ["S", "sound on, off, or with a voice"],
  ["Esc", "clear what was typed"],
  ["T", "the timetable of what runs"],
  ["G", "how to go on: when it ends, another order, who is there"],
  ["N", "a note of this moment, or a timer"],
  ["/", "find, or ask"],
  ["Alt + O P W B L K", "orders, pieces, work out, bench, log, kitchen"],
  ["?", "this help"],
];

export function KeyHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keys" bench>
      <dl className="grid grid-cols-[auto_1fr] gap-x-8 gap-y-2 text-xl">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="font-bold">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <button
        type="button"
        onClick={onClose}
        className="mt-6 min-h-16 rounded-sm bg-glass px-8 text-2xl font-bold text-on-glass"
      >
        Close
      </button>
    </Dialog>
  );
}
