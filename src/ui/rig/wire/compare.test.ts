import { compare, newCompared, STANDS_MS } from "./compare";

test("a slot differs once it has for a while; what comes in time does not", () => {
  const state = newCompared();
  const [meant, got] = [new Uint8Array(512), new Uint8Array(512)];
  expect(compare(state, meant, got, 1000)).toBe(0);
  meant[3] = 9;
  expect(compare(state, meant, got, 1100)).toBe(0);
  got[3] = 9;
  expect(compare(state, meant, got, 1120)).toBe(0);
  got[3] = 8;
  expect(compare(state, meant, got, 1200)).toBe(0);
  expect(compare(state, meant, got, 1200 + STANDS_MS)).toBe(1);
  expect([state.differs[3], state.received[3]]).toEqual([1, 8]);
});

test("a universe that never arrived differs in every slot", () => {
  const state = newCompared();
  compare(state, new Uint8Array(512), undefined, 1);
  expect(compare(state, new Uint8Array(512), undefined, 1 + STANDS_MS)).toBe(512);
  expect(state.received[0]).toBe(-1);
});
