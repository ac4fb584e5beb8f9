/** Catches labels that pile up on one another. */
import { createRoom } from "./labelRoom";

test("a label is put once, beside others, and never outside the picture", () => {
  const room = createRoom(200, 100);
  room.take(50, 50, 20, 20);
  expect(room.has(55, 40, 10, 15)).toBe(false);
  expect(room.has(80, 50, 20, 10)).toBe(true);
  expect(room.has(85, 55, 20, 10)).toBe(false);
  expect(room.has(100, 50, 20, 10)).toBe(true);
  expect(room.has(-4, 50, 10, 10)).toBe(false);
  expect(room.has(190, 95, 20, 10)).toBe(false);
});

test("of a dense block all that is shown can be read", () => {
  const room = createRoom(600, 400);
  const put: [number, number][] = [];
  for (let i = 0; i < 1000; i++) {
    const [x, y] = [20 + (i % 40) * 12, 20 + Math.floor(i / 40) * 12];
    if (room.has(x, y, 18, 13)) put.push([x, y]);
  }
  expect(put.length).toBeGreaterThan(100);
  for (const [i, [x, y]] of put.entries())
    for (const [ox, oy] of put.slice(i + 1)) expect(Math.abs(x - ox) >= 18 || Math.abs(y - oy) >= 13).toBe(true);
});
