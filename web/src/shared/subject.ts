import type { Schemas } from "../api/client";
import type { Payload } from "./events";

/** What a ribbon, an act or a call is about. */
export type Subject = Schemas["Subject"];

/** The same as one text, to find it again by. */
export const keyOf = ({ of, number }: Subject) => `${of} ${number}`;

export const isSame = (a: Subject, b: Subject) => a.of === b.of && a.number === b.number;

/** A reading of a pot, a round or a held batch, as it is told; nothing else has a temperature. */
export function readingOf(
  { of, number }: Subject,
  degc: number,
  method: Payload<"reading">["method"],
): Payload<"reading"> | null {
  switch (of) {
    case "pot":
      return { cook: number, degc, method };
    case "round":
      return { round: number, degc, method };
    case "batch":
      return { batch: number, degc, method };
    case "run":
    case "hand":
    case "sample":
    case "timer":
      return null;
  }
}
