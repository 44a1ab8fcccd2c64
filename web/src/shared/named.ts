import type { Schemas } from "../api/client";
import { capital } from "./format/capital";

/** What a line makes: its piece, part and pass. */
export type Named = Schemas["Named"];

const joined = (words: string[]) => words.filter(Boolean).join(", ");

export const wholeName = ({ piece, part, step }: Named) => joined([piece, part, step]);

/** What is left where the piece is told beside it; "" for a piece of one part and one pass. */
export const partAndPass = ({ part, step }: Named) => joined([part, step]);

/** The part or pass before its piece, so that it is seen where the name is cut off. */
export function passFirst(named: Named): string {
  const inner = partAndPass(named);
  return inner ? joined([capital(inner), named.piece]) : named.piece;
}
