import { useLayoutEffect, useRef } from "react";

export interface BenchKeys {
  act: () => void;
  undo: () => void;
  digit: (digit: string) => void;
  rubOut: () => boolean;
  enter: () => boolean;
  clear: () => void;
  select: (by: number) => void;
  method: () => void;
  move: () => void;
  sight: () => void;
  decant: () => void;
  pause: () => void;
  sound: () => void;
  timetable: () => void;
  side: () => void;
  onward: () => void;
  help: () => void;
}

/** The bench's keys. Inside a dialog or a field they belong to that. */
export function useKeys(keys: BenchKeys): void {
  const latest = useRef(keys);
  latest.current = keys;
  // before it is painted: whoever sees an act may press
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.altKey || event.ctrlKey || event.metaKey) return;
      if (target.closest("input, textarea, [role=dialog], [role=listbox]")) return;
      if (handle(event, latest.current)) event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

function handle(event: KeyboardEvent, keys: BenchKeys): boolean {
  const { key } = event;
  if (key === " ") {
    if (!event.repeat) keys.act();
    return true;
  }
  if (/^[0-9.,]$/.test(key)) {
    keys.digit(key === "," ? "." : key);
    return true;
  }
  if (key === "Enter") return keys.enter();
  if (key === "Backspace") return keys.rubOut();
  const plain: Record<string, (() => void) | undefined> = {
    escape: keys.clear,
    arrowleft: keys.undo,
    arrowup: () => keys.select(-1),
    arrowdown: () => keys.select(1),
    m: keys.method,
    v: keys.move,
    w: keys.sight,
    d: keys.decant,
    p: keys.pause,
    s: keys.sound,
    t: keys.timetable,
    n: keys.side,
    g: keys.onward,
    "?": keys.help,
  };
  const action = plain[key.toLowerCase()];
  if (!action || (event.repeat && key === "ArrowLeft")) return false;
  action();
  return true;
}
