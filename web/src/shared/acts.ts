import type { Schemas } from "../api/client";
import { wholeName } from "./named";
import type { Wording } from "./wording";

/** What there is to do: when, of what, and what it is, with its figures. */
export type Act = Schemas["ActView"];
export type View = Schemas["BenchView"];
export type ActKind = Act["what"]["kind"];
export type What<K extends ActKind> = Extract<Act["what"], { kind: K }>;

export interface ActWords {
  title: string;
  detail: string[];
  button: string;
  /** What the countdown says before the act may be done, while it may, and after. */
  before: string;
  during: string;
}

/** A line of the order as it is called; "" for none. */
export const lineName = (view: View, line: number): string => {
  const named = view.lines[line];
  return named ? wholeName(named) : "";
};

export const wordingOf = (act: Act): Wording => act.melt?.wording ?? "sugar";
