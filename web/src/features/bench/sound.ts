/** Three calls, told apart by rhythm and pitch: before it opens, before it closes, at the close. */
export type CallKind = "opens" | "closes" | "closed";

const TONES: Record<CallKind, [number, number][]> = {
  opens: [
    [660, 0],
    [880, 0.22],
  ],
  closes: [
    [880, 0],
    [880, 0.18],
    [660, 0.36],
  ],
  closed: [
    [440, 0],
    [440, 0.3],
    [440, 0.6],
  ],
};

const KEY = "umber-pebble-sound";
let context: AudioContext | null = null;

/** Calls sound, are silent, or sound and are said by the browser's own voice. */
export const SOUNDS = ["on", "off", "voice"] as const;
export type Sound = (typeof SOUNDS)[number];

export const soundNow = (): Sound => SOUNDS.find((sound) => sound === localStorage.getItem(KEY)) ?? "on";

/** The next of them; the voice only where the browser has one. */
export function nextSound(): Sound {
  const offered = SOUNDS.filter((sound) => sound !== "voice" || "speechSynthesis" in window);
  const next = offered[(offered.indexOf(soundNow()) + 1) % offered.length] ?? "on";
  localStorage.setItem(KEY, next);
  return next;
}

/** Says a call, where the voice is on: after its tones, and instead of what is still being said. */
function say(text: string): void {
  if (soundNow() !== "voice" || !("speechSynthesis" in window)) return;
  window.speechSynthesis.cancel();
  const words = new SpeechSynthesisUtterance(text);
  words.lang = "en";
  window.speechSynthesis.speak(words);
}

/** Browsers let a page sound only after a touch or key: called on the first one. */
export function wakeSound(): void {
  context ??= new AudioContext();
  if (context.state === "suspended") void context.resume();
}

export function play(kind: CallKind, text: string): void {
  say(text);
  if (soundNow() === "off" || !context) return;
  for (const [pitch, after] of TONES[kind]) {
    const tone = context.createOscillator();
    const loudness = context.createGain();
    const at = context.currentTime + after;
    tone.frequency.value = pitch;
    tone.type = "triangle";
    loudness.gain.setValueAtTime(0.0001, at);
    loudness.gain.exponentialRampToValueAtTime(0.5, at + 0.02);
    loudness.gain.exponentialRampToValueAtTime(0.0001, at + 0.17);
    tone.connect(loudness).connect(context.destination);
    tone.start(at);
    tone.stop(at + 0.2);
  }
}
