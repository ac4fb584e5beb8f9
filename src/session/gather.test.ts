/** Catches steps of a drag that are lost, told out of order, or told one by one. */
import { createGathering, type Made } from "./gather";

const at = (value: number, how: "done" | "joined" | null): Made => ({
  world: { value } as never,
  diff: [{ path: ["hands", "held", "f1.0.Pan"], from: { value: value - 1 }, to: { value } }],
  step: how && { how, says: "1 pan" },
});

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test("a step is told once it is drawn, the next of a drag together, and another step comes after them", () => {
  const told: Made[] = [];
  const gathering = createGathering((made) => told.push(made));
  gathering.take(at(1, "done"));
  expect(gathering.waits()).toBe(true);
  jest.advanceTimersByTime(60);
  expect(told).toEqual([at(1, "done")]);
  for (const value of [2, 3, 4]) gathering.take(at(value, "joined"));
  expect(told).toHaveLength(1);
  expect(gathering.waits()).toBe(true);
  jest.advanceTimersByTime(100);
  expect(told[1]).toEqual({ ...at(4, "joined"), diff: [{ ...at(2, null).diff[0]!, to: { value: 4 } }] });
  gathering.take(at(5, "joined"));
  gathering.take(at(6, null));
  expect(told.slice(2)).toEqual([at(5, "joined")]);
  gathering.take(at(7, "joined"));
  expect(told.slice(3)).toEqual([at(6, null)]);
  gathering.settle();
  expect(told.at(-1)).toEqual(at(7, "joined"));
  jest.advanceTimersByTime(1000);
  expect(told).toHaveLength(5);
  expect(gathering.waits()).toBe(false);
});

test("a drag right after a step is a step of its own", () => {
  const told: Made[] = [];
  const gathering = createGathering((made) => told.push(made));
  gathering.take(at(1, "done"));
  gathering.take(at(2, "joined"));
  jest.advanceTimersByTime(1000);
  expect(told).toEqual([at(1, "done"), at(2, "joined")]);
});
