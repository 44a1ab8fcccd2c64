import { type ReactNode, useDeferredValue } from "react";

/** What is large and may come in pieces: it is built up beside what is shown already, and gives way to whatever somebody does. */
export function InTurn({ children }: { children: ReactNode }) {
  return useDeferredValue(children, null);
}
