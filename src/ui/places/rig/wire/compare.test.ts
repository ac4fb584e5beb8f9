/** Catches a wire monitor that calls a difference what is only underway, or the other way round. */
import { compare, newCompared, STANDS_MS } from "./compare";

test("a slot differs once what is meant has stood; what comes in time does not", () => {
  const state = newCompared();
  const [meant, got] = [new Uint8Array(512), new Uint8Array(512)];
  expect(compare(state, meant, got, 1000)).toBe(0);
  meant[3] = 9;
  expect(compare(state, meant, got, 1100)).toBe(0);
  got[3] = 9;
  expect(compare(state, meant, got, 1200 + STANDS_MS)).toBe(0);
  got[3] = 8;
  expect(compare(state, meant, got, 1300 + STANDS_MS)).toBe(1);
  expect([state.differs[3], state.received[3]]).toEqual([1, 8]);
});

test("a fade that arrives a step late does not differ while it moves", () => {
  const state = newCompared();
  const [meant, got] = [new Uint8Array(512), new Uint8Array(512)];
  for (let t = 0; t < 100; t++) {
    meant[0] = t * 2;
    got[0] = Math.max(0, (t - 2) * 2);
    expect(compare(state, meant, got, 1000 + t * 20)).toBe(0);
  }
});

test("a universe that never arrived differs in every slot, moving or not", () => {
  const state = newCompared();
  const meant = new Uint8Array(512);
  compare(state, meant, undefined, 1);
  meant[0] = 7;
  expect(compare(state, meant, undefined, 1 + STANDS_MS)).toBe(512);
  expect(state.received[0]).toBe(-1);
});
