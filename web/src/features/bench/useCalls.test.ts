import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { due } from "./useCalls";

const pour = (at_s: number): Schemas["Call"] => ({
  at_s,
  kind: "opens",
  window: "pour",
  subject: { of: "pot", number: 0 },
});

describe("a call", () => {
  it("sounds once when it falls due", () => {
    const sounded = new Map<string, number>();
    expect(due([pour(100)], 99, sounded)).toHaveLength(0);
    expect(due([pour(100)], 100, sounded)).toHaveLength(1);
    expect(due([pour(100)], 101, sounded)).toHaveLength(0);
  });
  it("sounds where a reading moves its time into the past, and once", () => {
    const sounded = new Map<string, number>();
    expect(due([pour(200)], 99, sounded)).toHaveLength(0);
    expect(due([pour(60)], 100, sounded)).toHaveLength(1);
    expect(due([pour(58)], 101, sounded)).toHaveLength(0);
  });
  it("sounds again only where it is due much later after all", () => {
    const sounded = new Map<string, number>();
    due([pour(100)], 100, sounded);
    expect(due([pour(110)], 110, sounded)).toHaveLength(0);
    due([pour(400)], 120, sounded);
    expect(due([pour(400)], 400, sounded)).toHaveLength(1);
  });
});
