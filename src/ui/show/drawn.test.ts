/** Catches followers of what is drawn that are left behind, told twice of the same, or told after they have gone. */
import { newState } from "@/session/state";
import { newWorld } from "@/core/show/world";
import { createDrawn } from "./drawn";

const MANY = 40;
const start = newState(newWorld());
const named = (name: string) => ({ ...start, saved: "saved" as const, gone: name });

function followed() {
  const drawn = createDrawn(start);
  const heard: string[][] = Array.from({ length: MANY }, () => []);
  const leave = heard.map((names) => drawn.subscribe((state) => names.push(state.gone ?? "")));
  return { drawn, heard, leave };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test("at once all hear before it returns; in slices some do, and the others one after another", () => {
  const { drawn, heard } = followed();
  drawn.atOnce(named("a"));
  expect(heard).toEqual(heard.map(() => ["a"]));
  drawn.inSlices(named("b"));
  expect(drawn.getState().gone).toBe("b");
  const behind = () => heard.filter((names) => names.at(-1) !== "b").length;
  expect(behind()).toBeGreaterThan(0);
  expect(behind()).toBeLessThan(MANY);
  jest.runAllTimers();
  expect(heard).toEqual(heard.map(() => ["a", "b"]));
});

test("what comes while some have not heard is heard by all of them, and nothing old comes after it", () => {
  for (const how of ["atOnce", "inSlices"] as const) {
    const { drawn, heard } = followed();
    drawn.inSlices(named("a"));
    drawn[how](named("b"));
    jest.runAllTimers();
    expect(heard.every((names) => names.at(-1) === "b" && names.filter((n) => n === "b").length === 1)).toBe(true);
    expect(heard.some((names) => names.length === 1)).toBe(true);
  }
});

test("who has left hears nothing any more", () => {
  const { drawn, heard, leave } = followed();
  drawn.inSlices(named("a"));
  leave.forEach((go) => go());
  jest.runAllTimers();
  expect(heard.flat().length).toBeLessThan(MANY);
});
