import type { Schemas } from "../api/client";

const DAY_MS = 24 * 3600 * 1000;
const FIRST_COUNT = 12;

/** An order of one piece to begin with, due the day after tomorrow at a full hour. */
export function freshOrder(
  usual: Schemas["Ways"],
  piece_id: string,
  quantity: number = FIRST_COUNT,
): Schemas["Order"] {
  const due = new Date(Math.ceil((Date.now() + 2 * DAY_MS) / 3_600_000) * 3_600_000);
  return {
    name: "New order",
    due_at: due.toISOString(),
    lines: [{ piece_id, quantity, spares: "as_sure" }],
    vessels: [],
    people: [],
    timetable: null,
    together: [],
    wishes: [],
    begins: "late",
    ...usual,
  };
}
