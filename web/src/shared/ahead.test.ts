import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { movedOn, standing } from "./ahead";
import type { Item } from "./outbox";
import { keyOf, type Subject } from "./subject";

const START = "2031-05-02T13:00:00Z";
const POT = { of: "pot", number: 0 } as const;
const ROUND = { of: "round", number: 0 } as const;
const NEXT = { of: "round", number: 1 } as const;
const act = (kind: string, subject: Subject, opens_s: number, closes_s: number | null = null) =>
  ({
    what: { kind, casts: 3 },
    subject,
    tells: null,
    opens_s,
    closes_s,
    sure: true,
    forecast: false,
  }) as unknown as Schemas["ActView"];
const link = (
  kind: string,
  subject: Subject,
  at_s: number,
  after: number | null,
  told: [string, Record<string, unknown>],
  closes_s: number | null = null,
): Schemas["LinkView"] =>
  ({
    act: act(kind, subject, at_s, closes_s),
    after,
    at_s,
    told: { kind: told[0], says: told[1] },
    calls: [{ at_s: at_s - 30, kind: "opens", window: kind, subject }],
  }) as unknown as Schemas["LinkView"];

// a pot put on, off, poured twice; the first round comes out
const LINKS = [
  link("heat", POT, 0, null, ["heated", { cook: 0 }]),
  link("off", POT, 600, 0, ["rested", { cook: 0 }], 660),
  link("pour", ROUND, 700, 1, ["poured", { round: 0 }], 900),
  link("pour", NEXT, 740, 1, ["poured", { round: 1 }], 900),
  link("unmould", ROUND, 2000, 2, ["unmoulded", { round: 0 }]),
  link("outcomes", ROUND, 2000, 4, ["outcome", { round: 0 }]),
];
const AHEAD = { run_id: "r", seq: 4, links: LINKS } as Schemas["Ahead"];
const view = (acts = [act("heat", POT, 0)]) =>
  ({
    run_id: "r",
    seq: 4,
    started_at: START,
    acts,
    calls: [],
    ribbons: [],
    last: { id: "before", told: { kind: "acknowledged", payload: {} } },
  }) as unknown as Schemas["BenchView"];

let n = 0;
const noted = (kind: string, payload: Record<string, unknown>, at_s: number): Item => {
  const done = new Date(Date.parse(START) + at_s * 1000).toISOString();
  const event = { id: `e${++n}`, kind, payload, happened_at: done } as unknown as Item["event"];
  return { n, run: "r", event, done, refused: null };
};
const kinds = (of: Schemas["BenchView"]) =>
  of.acts.map(({ what, subject }) => `${what.kind} ${keyOf(subject)}`);

describe("a bench that cannot ask", () => {
  it("stays as the server said while nothing waits", () => {
    const said = view();
    expect(movedOn(said, AHEAD, [])).toBe(said);
    // on its way, its answer is waited for
    const sent = noted("heated", { cook: 0 }, 0);
    expect(movedOn(said, AHEAD, [{ ...sent, event: { ...sent.event, happened_at: null } }])).toBe(said);
    expect(movedOn(said, AHEAD, [{ ...noted("heated", { cook: 0 }, 0), run: "another" }])).toBe(said);
  });

  it("moves on along the chain, and what follows comes later by as much", () => {
    const moved = movedOn(view(), AHEAD, [noted("heated", { cook: 0 }, 100)]);
    expect(kinds(moved)[0]).toBe("off pot 0");
    expect(moved.acts[0]).toMatchObject({ opens_s: 700, closes_s: 760, forecast: false });
    // what waits for the pot is later too, and only likely; it is not called for yet
    expect(moved.acts[1]).toMatchObject({ opens_s: 800, closes_s: 1000, forecast: true });
    expect(moved.calls.map((call) => [call.window, call.at_s])).toEqual([["off", 670]]);
  });

  it("shifts each by what it waits for itself", () => {
    const moved = movedOn(view(), AHEAD, [
      noted("heated", { cook: 0 }, 0),
      noted("rested", { cook: 0 }, 600),
      noted("poured", { round: 0 }, 850),
    ]);
    expect(kinds(moved).slice(0, 2)).toEqual(["pour round 1", "unmould round 0"]);
    expect(moved.acts.map((of) => of.opens_s)).toEqual([740, 2150, 2150]);
  });

  it("begins where the server stands, though its chain is older", () => {
    const moved = movedOn(view([act("off", POT, 610, 670)]), AHEAD, [noted("rested", { cook: 0 }, 600)]);
    expect(kinds(moved)[0]).toBe("pour round 0");
    expect(moved.acts[0]?.opens_s).toBe(700);
  });

  it("keeps what the server said of acts that nothing has moved", () => {
    const now = [act("pour", ROUND, 690, 880), act("pour", NEXT, 735, 880)];
    const moved = movedOn(view(now), AHEAD, [noted("poured", { round: 0 }, 700)]);
    expect(moved.acts[0]).toBe(now[1]);
  });

  it("asks for a round's outcomes until every casting has one", () => {
    const last = [act("outcomes", ROUND, 2000)];
    const two = noted("outcome", { round: 0, cavities: [0, 1], usable: true }, 2100);
    expect(kinds(movedOn(view(last), AHEAD, [two]))).toEqual(["outcomes round 0"]);
    expect(
      movedOn(view(last), AHEAD, [two, noted("outcome", { round: 0, cavities: [2] }, 2101)]).acts,
    ).toEqual([]);
  });

  it("shows what was noted of castings, and of a pause", () => {
    const ribbons = [{ subject: ROUND, outcomes: { 1: true } }] as unknown as Schemas["BenchView"]["ribbons"];
    const broken = noted("outcome", { round: 0, cavities: [0], usable: false }, 2100);
    const moved = movedOn({ ...view(), ribbons }, AHEAD, [broken, noted("paused", {}, 2101)]);
    expect(moved.ribbons[0]?.outcomes).toEqual({ 0: false, 1: true });
    expect(moved.paused).toBe(true);
    // a pause is silent
    const heated = noted("heated", { cook: 0 }, 2000);
    expect(movedOn(view(), AHEAD, [heated]).calls).not.toEqual([]);
    expect(movedOn(view(), AHEAD, [heated, noted("paused", {}, 2101)]).calls).toEqual([]);
  });

  it("takes back what was noted last, and then what the server knows", () => {
    const heated = noted("heated", { cook: 0 }, 0);
    expect(movedOn(view(), AHEAD, [heated]).last?.id).toBe(heated.event.id);
    const back = noted("cancels", { id: heated.event.id }, 5);
    expect(standing([heated, back])).toEqual([]);
    const undone = movedOn(view(), AHEAD, [heated, back]);
    expect(kinds(undone)).toEqual(["heat pot 0"]);
    expect(undone.last?.id).toBe("before");
    expect(movedOn(view(), AHEAD, [noted("cancels", { id: "before" }, 5)]).last).toBeNull();
  });

  it("leaves the acts as they are where what was noted is none of them", () => {
    expect(kinds(movedOn(view(), AHEAD, [noted("reading", { cook: 0, degc: 150 }, 5)]))).toEqual([
      "heat pot 0",
    ]);
  });
});
