/** Catches packets that would leave for places nobody agreed to. */
import type { Output } from "../show/schema";
import { agreed, isNear, OWN, unagreed } from "./consent";

const lan = [
  { address: "10.1.2.3", netmask: "255.255.0.0" },
  { address: "127.0.0.1", netmask: "255.0.0.0" },
];
const to = (where: Output["to"], protocol: Output["protocol"] = "artnet"): Output => ({
  protocol,
  to: where,
  number: 1,
  priority: 100,
});

test("this machine and its networks are near, all else is far", () => {
  expect(["127.0.0.9", "10.1.255.9", "10.1.0.1"].map((h) => isNear(h, lan))).toEqual([true, true, true]);
  expect(["10.2.0.1", "8.8.8.8", "192.168.0.1", "255.255.255.255"].map((h) => isNear(h, lan))).toEqual([
    false,
    false,
    false,
    false,
  ]);
  expect(isNear("8.8.8.8", [{ address: "10.0.0.1", netmask: "255.255.255.255" }])).toBe(false);
  expect(isNear("127.0.0.1", [])).toBe(true);
});

test("a show made here asks for far places, broadcast and multicast; one from a file for every place, once", () => {
  expect(unagreed(to({ unicast: ["127.0.0.1", "10.1.9.9"] }), OWN, lan)).toEqual([]);
  expect(unagreed(to({ unicast: ["10.1.9.9", "8.8.8.8"] }), OWN, lan)).toEqual(["artnet 8.8.8.8"]);
  expect(unagreed(to("broadcast"), OWN, lan)).toEqual(["artnet broadcast"]);
  expect(unagreed(to("multicast", "sacn"), OWN, lan)).toEqual(["sacn multicast"]);
  expect(unagreed(to({ unicast: ["127.0.0.1"] }), { imported: true, given: [] }, lan)).toEqual(["artnet 127.0.0.1"]);
  expect(unagreed(to({ unicast: ["127.0.0.1"] }), { imported: true, given: ["artnet 127.0.0.1"] }, lan)).toEqual([]);
  // Consent to one protocol is none to the other.
  expect(unagreed(to("broadcast"), { imported: false, given: ["sacn broadcast"] }, lan)).toEqual(["artnet broadcast"]);
});

test("an output waits whole; the others leave", () => {
  const outputs = {
    1: to({ unicast: ["127.0.0.1", "8.8.8.8"] }),
    2: to({ unicast: ["127.0.0.1"] }),
    3: to("multicast", "sacn"),
  };
  expect(agreed(outputs, OWN, lan)).toEqual({
    allowed: { 2: outputs[2] },
    waiting: ["artnet 8.8.8.8", "sacn multicast"],
  });
  expect(agreed(outputs, { imported: false, given: ["artnet 8.8.8.8", "sacn multicast"] }, lan).waiting).toEqual([]);
});
