import type { Payload } from "./events";

/** What a ribbon, an act or a call is about, by its number. */
export interface Subject {
  of: string;
  number: number;
}

export function subjectOf(text: string): Subject {
  const [of = "", number] = text.split(":");
  return { of, number: Number(number) };
}

/** A reading of a pot, a round or a held batch, as it is told. */
export function readingOf(
  subject: Subject,
  degc: number,
  method: Payload<"reading">["method"],
): Payload<"reading"> | null {
  const { of, number } = subject;
  if (of === "pot") return { cook: number, degc, method };
  if (of === "round") return { round: number, degc, method };
  return of === "batch" ? { batch: number, degc, method } : null;
}
