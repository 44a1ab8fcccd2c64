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

export const soundOn = (): boolean => localStorage.getItem(KEY) !== "off";

export function setSound(on: boolean): void {
  localStorage.setItem(KEY, on ? "on" : "off");
}

/** Browsers let a page sound only after a touch or key: called on the first one. */
export function wakeSound(): void {
  context ??= new AudioContext();
  if (context.state === "suspended") void context.resume();
}

export function play(kind: CallKind): void {
  if (!soundOn() || !context) return;
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
