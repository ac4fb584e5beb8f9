/** Files and documents as an attacker or a bad disk would have them. */
import type { randomOf } from "./scale";

type Random = ReturnType<typeof randomOf>;
const HOSTILE: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1e308,
  -0,
  0.1,
  1e21,
  9_007_199_254_740_993,
  "",
  "constructor",
  "__proto__",
  "toString",
  "f1",
  "f999999",
  "c1.0.Pan",
  "x".repeat(5000),
  "\ud800",
  "é\u0000",
  [],
  {},
  [[]],
  { constructor: 1 },
  { toString: 2 },
  ["constructor"],
  { aim: [0, 0, 0] },
  { palette: "p1" },
  { release: true },
  { colour: { x: 0.3, y: 0, Y: 1 } },
];
const KEYS = [
  "constructor",
  "toString",
  "hasOwnProperty",
  "f1",
  "f0",
  "l1",
  "c1",
  "f1.0.Dimmer",
  "constructor.0.Dimmer",
  "f1.99.Dimmer",
  "f1.0.constructor",
  "",
  "é",
];

/** One change somewhere in a document. */
export function mutateDocument(document: unknown, random: Random): unknown {
  const made = JSON.parse(JSON.stringify(document)) as unknown;
  let node = made as Record<string, unknown> | unknown[];
  for (;;) {
    const keys = Object.keys(node);
    if (keys.length === 0) {
      (node as Record<string, unknown>)[random.pick(KEYS)] = random.pick(HOSTILE);
      return made;
    }
    const key = random.pick(keys);
    const within = (node as Record<string, unknown>)[key];
    if (typeof within === "object" && within !== null && random.next() < 0.85) {
      node = within as typeof node;
      continue;
    }
    const how = random.below(5);
    const record = node as Record<string, unknown>;
    if (how === 0 && !Array.isArray(node)) delete record[key];
    else if (how === 1 && !Array.isArray(node)) {
      record[random.pick(KEYS)] = within;
      if (random.next() < 0.5) delete record[key];
    } else if (how === 2 && Array.isArray(node))
      node.push(...Array.from({ length: 1 + random.below(20) }, () => within));
    else if (how === 3 && typeof within === "number")
      record[key] = random.pick([within + 1, -within, within * 1000, within / 7, Math.trunc(within) + 0.5]);
    else record[key] = random.pick(HOSTILE);
    return made;
  }
}

/** Bytes flipped, cut, doubled, moved or put in. */
export function mutateBytes(bytes: Uint8Array, random: Random): Uint8Array {
  let made = bytes.slice();
  for (let i = 0, n = 1 + random.below(3); i < n; i++) {
    const [a, b] = [random.below(made.length), random.below(made.length)].sort((x, y) => x - y) as [number, number];
    const how = random.below(5);
    if (how === 0) made[a] = made[a]! ^ (1 << random.below(8));
    else if (how === 1) made = made.slice(0, Math.max(1, b));
    else if (how === 2)
      made = Uint8Array.from([...made.subarray(0, a), ...made.subarray(a, Math.min(b, a + 300)), ...made.subarray(a)]);
    else if (how === 3) made = Uint8Array.from([...made.subarray(0, a), ...made.subarray(Math.min(b, a + 300))]);
    else made[a] = random.below(256);
  }
  return made;
}
