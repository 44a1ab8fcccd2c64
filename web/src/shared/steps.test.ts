import { beforeEach, expect, test, vi } from "vitest";
import { Steps, stepsOf } from "./steps";

beforeEach(() => {
  vi.useFakeTimers({ toFake: ["performance"] });
});

test("a drag is one step, changes apart are several", () => {
  const steps = new Steps<number>();
  steps.noted(1);
  vi.advanceTimersByTime(100);
  steps.noted(2);
  vi.advanceTimersByTime(2000);
  steps.noted(3);
  expect(steps.count).toBe(2);
  expect(steps.back()).toBe(3);
  expect(steps.back()).toBe(1);
  expect(steps.back()).toBeUndefined();
});

test("right after one was taken back the next change is a step of its own", () => {
  const steps = new Steps<number>();
  steps.noted(1);
  steps.back();
  steps.noted(1);
  expect(steps.count).toBe(1);
});

test("a thing keeps its steps while the page stands, and forgets them when another changed it", () => {
  stepsOf<number>("piece a").noted(7);
  expect(stepsOf("piece a").count).toBe(1);
  expect(stepsOf("piece b").count).toBe(0);
  stepsOf("piece a").forget();
  expect(stepsOf("piece a").count).toBe(0);
});
