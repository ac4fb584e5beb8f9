/** Catches an output that changes hands unasked, stays with nobody, or does not come back by itself. */
import { createHold, KEPT_MS, type Claimant } from "./hold";

const claimant = (show: string): Claimant => ({ show, name: show, wants: false, lost: false, heldAt: -Infinity });
function bench() {
  const told: (string | undefined)[] = [];
  return { hold: createHold<Claimant>((holder) => told.push(holder?.show)), told };
}

test("the first that has something to send holds the output; another waits and is given it when it is free", () => {
  const { hold, told } = bench();
  const [a, b, idle] = [claimant("a"), claimant("b"), claimant("idle")];
  for (const c of [idle, a, b]) hold.join(c);
  hold.want(a, true, 0);
  hold.want(b, true, 1);
  expect(hold.holder()).toBe(a);
  hold.want(a, false, 2);
  expect(hold.holder()).toBe(b);
  hold.want(b, false, 3);
  expect(told).toEqual(["a", "b", undefined]);
});

test("taken, it is told who lost it; it goes back by itself to whoever held it last", () => {
  const { hold } = bench();
  const [a, b, c] = [claimant("a"), claimant("b"), claimant("c")];
  for (const x of [a, b, c]) hold.join(x);
  hold.want(c, true, 0);
  hold.want(a, true, 0);
  hold.want(b, true, 0);
  hold.take(a, 1);
  hold.take(b, 5);
  expect([a.lost, b.lost, c.lost]).toEqual([true, false, true]);
  hold.leave(b, 10);
  expect(hold.holder()).toBeUndefined();
  hold.tick(10 + KEPT_MS - 1);
  expect(hold.holder()).toBeUndefined();
  hold.tick(10 + KEPT_MS);
  expect(hold.holder()).toBe(a);
  expect(a.lost).toBe(false);
});

test("another window of the same show goes on without asking, before or after the old one has gone", () => {
  const { hold } = bench();
  const [old, other, stranger] = [claimant("a"), claimant("a"), claimant("z")];
  for (const x of [old, stranger]) hold.join(x);
  hold.want(old, true, 0);
  hold.want(stranger, true, 0);
  hold.leave(old, 5);
  hold.join(other);
  hold.want(other, true, 100);
  expect(hold.holder()).toBe(other);
  const third = claimant("a");
  hold.join(third);
  hold.want(third, true, 200);
  expect(hold.holder()).toBe(third);
  expect(other.lost).toBe(false);
  hold.leave(other, 300);
  expect(hold.holder()).toBe(third);
});

test("one that comes while the output is kept for another waits", () => {
  const { hold } = bench();
  const [a, b] = [claimant("a"), claimant("b")];
  hold.join(a);
  hold.want(a, true, 0);
  hold.leave(a, 10);
  hold.join(b);
  hold.want(b, true, 20);
  expect(hold.holder()).toBeUndefined();
  hold.tick(10 + KEPT_MS);
  expect(hold.holder()).toBe(b);
});

test("one that waits and leaves takes nothing from who holds the output", () => {
  const { hold, told } = bench();
  const [a, b] = [claimant("a"), claimant("b")];
  for (const c of [a, b]) hold.join(c);
  hold.want(a, true, 0);
  hold.want(b, true, 1);
  hold.leave(b, 2);
  hold.tick(2 + KEPT_MS);
  expect(hold.holder()).toBe(a);
  expect(told).toEqual(["a"]);
});
