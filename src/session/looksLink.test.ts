/** Catches a worker of looks that is started again for ever, or that leaves who asks it without an answer. */
import { newDesk } from "@/core/desk/desk";
import { isRefusal } from "@/core/show/refusal";
import { startLooks } from "./looksLink";

class DyingWorker {
  static started: DyingWorker[] = [];
  die: () => void = () => undefined;
  constructor() {
    DyingWorker.started.push(this);
  }
  addEventListener(kind: string, then: () => void) {
    if (kind === "error") this.die = then;
  }
  postMessage() {}
  terminate() {}
}

test("a worker that keeps dying is started later and later, then no more, and who asks is told", () => {
  jest.useFakeTimers();
  Object.assign(globalThis, { Worker: DyingWorker });
  const told: string[] = [];
  const looks = startLooks(
    () => ({ world: newDesk().world, steps: { done: null, undone: null }, view: undefined }),
    () => undefined,
    (text) => told.push(text),
  );
  const words: unknown[] = [];
  const ask = () =>
    looks.foresee({ line: "1 at 50" }, { words: (found) => words.push(found), ripple: () => undefined });
  const waits: number[] = [];
  for (let i = 0; told.length === 0; i++) {
    ask();
    const count = DyingWorker.started.length;
    DyingWorker.started.at(-1)!.die();
    // The question that was open is answered; so is one while there is no worker.
    expect(words).toHaveLength(2 * i + 1);
    ask();
    expect(words).toHaveLength(2 * i + 2);
    let waited = 0;
    while (told.length === 0 && DyingWorker.started.length === count) {
      waited += 500;
      jest.advanceTimersByTime(500);
    }
    waits.push(waited);
  }
  expect(waits).toEqual([500, 1000, 2000, 4000, 8000, 16_000, 0]);
  expect(told).toEqual([expect.stringContaining("Reload the page")]);
  expect(words.every(isRefusal)).toBe(true);
  let timeline: unknown = "none";
  looks.timeline("l1", "c1", (found) => (timeline = found));
  expect(timeline).toBeNull();
  jest.advanceTimersByTime(3_600_000);
  expect(DyingWorker.started).toHaveLength(7);
  looks.close();
  jest.useRealTimers();
});
