/** Catches packets sent too often, too seldom, out of order, or not at all. */
import { readArtNet } from "@/core/dmx/artnet";
import { readSacn } from "@/core/dmx/sacn";
import { readSacnDiscovery } from "@/core/dmx/sacnDiscovery";
import type { Destination } from "@/core/dmx/wire";
import type { Output, Wire } from "@/core/show/schema";
import { createSender } from "./sender";

const WIRE: Wire = { source: "Test", from: "", lost: "hold" };
const art: Output = { protocol: "artnet", to: { unicast: ["127.0.0.1"] }, number: 5, priority: 100 };
const sacn: Output = { protocol: "sacn", to: { unicast: ["127.0.0.1", "127.0.0.2"] }, number: 6, priority: 120 };

/** A sender on a clock of its own, with all it sent. */
function bench(outputs: Record<string, Output>, wire = WIRE, intensity = {}) {
  const sent: { at: number; packet: Uint8Array; to: Destination }[] = [];
  let now = 0;
  const sender = createSender(
    (packet, to) => sent.push({ at: now, packet, to }),
    new Uint8Array(16),
    () => "10.0.0.255",
  );
  sender.configure(outputs, wire, intensity, 0);
  return {
    sent,
    sender,
    frame: (universe: number, ...bytes: number[]) =>
      sender.frame(universe, Uint8Array.from([...bytes, ...new Array<number>(512 - bytes.length).fill(0)]), now),
    wait(ms: number) {
      for (const end = now + ms; now < end; now += 1) sender.tick(now);
    },
    lost: () => sender.lost(now),
    back: () => sender.back(now),
    stop: () => sender.stop(now),
    configure: (next: Record<string, Output>) => sender.configure(next, wire, intensity, now),
  };
}
const artData = (packet: Uint8Array) => (readArtNet(packet) as { data: Uint8Array }).data;

test("nothing is sent before there is something to send", () => {
  const b = bench({ 1: art });
  b.wait(3000);
  expect(b.sent).toHaveLength(0);
});

test("at most 44 frames a second, and the last change always arrives", () => {
  const b = bench({ 1: art });
  for (let i = 0; i < 1000; i++) {
    b.frame(1, i % 251);
    b.wait(1);
  }
  expect(b.sent.length).toBeGreaterThanOrEqual(42);
  expect(b.sent.length).toBeLessThanOrEqual(45);
  b.frame(1, 77);
  b.wait(50);
  expect(artData(b.sent.at(-1)!.packet)[0]).toBe(77);
});

test("Art-Net is repeated within a second; sequence numbers go from 1 to 255 and round", () => {
  const b = bench({ 1: art });
  b.frame(1, 9);
  b.wait(10_000);
  const gaps = b.sent.slice(1).map((s, i) => s.at - b.sent[i]!.at);
  expect(Math.max(...gaps)).toBeLessThanOrEqual(1000);
  expect(Math.min(...gaps)).toBeGreaterThanOrEqual(800);
  for (let i = 0; i < 600; i++) {
    b.frame(1, i % 250);
    b.wait(25);
  }
  const numbers = b.sent.map((s) => (readArtNet(s.packet) as { sequence: number }).sequence);
  numbers.forEach((n, i) => i > 0 && expect(n).toBe((numbers[i - 1]! % 255) + 1));
});

test("sACN sends unchanged data three times, then keeps alive, to every address; and says goodbye three times", () => {
  const b = bench({ 2: sacn });
  b.frame(2, 1);
  b.wait(500);
  expect(b.sent).toHaveLength(6);
  expect(b.sent.map((s) => s.to.host)).toEqual([
    "127.0.0.1",
    "127.0.0.2",
    "127.0.0.1",
    "127.0.0.2",
    "127.0.0.1",
    "127.0.0.2",
  ]);
  b.wait(2500);
  expect(b.sent.length).toBeGreaterThanOrEqual(10);
  const before = b.sent.length;
  b.stop();
  const goodbyes = b.sent.slice(before).map((s) => readSacn(s.packet)!);
  expect(goodbyes).toHaveLength(6);
  expect(goodbyes.every((g) => g.terminated && g.priority === 120 && g.source === "Test" && g.universe === 6)).toBe(
    true,
  );
});

test("an output that changes or ends says goodbye, and goes on with the last look where it is now sent", () => {
  const b = bench({ 2: sacn });
  b.frame(2, 42);
  b.wait(100);
  const before = b.sent.length;
  b.configure({ 2: art });
  b.wait(50);
  const after = b.sent.slice(before);
  expect(after.filter((s) => readSacn(s.packet)?.terminated)).toHaveLength(6);
  expect(artData(after.at(-1)!.packet)[0]).toBe(42);
});

test("with the browser gone the last look is held", () => {
  const b = bench({ 1: art });
  b.frame(1, 200, 100);
  b.lost();
  b.wait(60_000);
  expect([...artData(b.sent.at(-1)!.packet).subarray(0, 2)]).toEqual([200, 100]);
  expect(b.sent.at(-1)!.at).toBeGreaterThan(59_000);
});

test("or its intensity fades out after the set time, nothing else; and comes back without a jump", () => {
  const b = bench({ 1: art }, { ...WIRE, lost: { after: 10, over: 4 } }, { 1: { single: [1], double: [3] } });
  b.frame(1, 200, 100, 255, 255);
  b.lost();
  b.wait(9900);
  expect([...artData(b.sent.at(-1)!.packet).subarray(0, 4)]).toEqual([200, 100, 255, 255]);
  b.wait(2100);
  const half = artData(b.sent.at(-1)!.packet);
  expect(Math.abs(half[0]! - 100)).toBeLessThan(4);
  expect(half[1]).toBe(100);
  expect(Math.abs(half[2]! - 127)).toBeLessThan(4);
  b.wait(4000);
  expect([...artData(b.sent.at(-1)!.packet).subarray(0, 4)]).toEqual([0, 100, 0, 0]);
  const before = b.sent.length;
  b.back();
  b.frame(1, 200, 100, 255, 255);
  b.wait(6000);
  const levels = b.sent.slice(before).map((s) => artData(s.packet)[0]!);
  levels.forEach((level, i) => i > 0 && expect(level - levels[i - 1]!).toBeLessThan(20));
  expect(levels.at(-1)).toBe(200);
});

test("every ten seconds sACN tells which universes come: to their group, or to the nodes that get them", () => {
  const b = bench({ 2: sacn, 3: { ...sacn, number: 9, to: "multicast" }, 4: { ...sacn, number: 11 }, 1: art });
  b.frame(2, 1);
  b.frame(3, 1);
  b.frame(1, 1);
  b.wait(25_000);
  const told = b.sent.flatMap((s) =>
    readSacnDiscovery(s.packet) ? [{ at: s.at, to: s.to.host, universes: readSacnDiscovery(s.packet)!.universes }] : [],
  );
  expect(told.map((t) => t.at)).toEqual([10_000, 10_000, 10_000, 20_000, 20_000, 20_000]);
  expect(
    told
      .slice(0, 3)
      .map((t) => t.to)
      .sort(),
  ).toEqual(["127.0.0.1", "127.0.0.2", "239.255.250.214"]);
  // What was never fed is not sent and not told of.
  expect(told.every((t) => t.universes.join() === "6,9")).toBe(true);
  const only = bench({ 1: art });
  only.frame(1, 1);
  only.wait(25_000);
  expect(only.sent.some((s) => readSacnDiscovery(s.packet))).toBe(false);
});
