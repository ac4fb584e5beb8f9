/** Catches something that darkens or changes the stage and is not told at the top, or told with the wrong way out. */
import type { WireState } from "@/engine/messages";
import { newHands, newShow } from "@/core/show/world";
import { truthsOf, type Standing } from "./truths";

const show = newShow("x");
const fine: Standing = {
  readOnly: null,
  world: { show, hands: newHands(show) },
  wire: { bridge: null, waiting: [], tests: {} },
  unreached: false,
  gone: null,
  appless: false,
  unsaved: false,
  masters: { grand: 100, blackout: false, shut: [] },
};
const told = (change: Partial<Standing>) =>
  truthsOf({ ...fine, ...change }).map(({ id, short, tone }) => [id, short, tone]);
const masters = (change: Partial<Standing["masters"]>) => ({ masters: { ...fine.masters, ...change } });
const hands = (change: Partial<Standing["world"]["hands"]>) => ({
  world: { show, hands: { ...fine.world.hands, ...change } },
});

test("a stage that is as it seems has nothing to be told", () => expect(told({})).toEqual([]));

test.each<[Partial<Standing>, string, string]>([
  [masters({ blackout: true }), "blackout", "danger"],
  [masters({ grand: 0 }), "grand", "danger"],
  [masters({ grand: 60 }), "grand", "caution"],
  [masters({ shut: ["House"] }), "limiter", "caution"],
  [hands({ blind: true }), "blind", "caution"],
  [hands({ highlight: true }), "highlight", "caution"],
  [hands({ parked: { "f1.0.Dimmer": 100 } as never }), "park", "caution"],
])("%j", (change, id, tone) => expect(told(change)).toEqual([[id, expect.any(String), tone]]));

test("several are told together, each with its own way out", () => {
  const all = truthsOf({
    ...fine,
    ...hands({ blind: true }),
    ...masters({ blackout: true, grand: 50, shut: ["A", "B"] }),
  });
  expect(all.map((t) => t.act.does)).toEqual(["light", "grand", "run", "live"]);
  expect(all[2]!.text).toContain("A, B are at 0");
});

test("who holds the output is told apart where it has the same name", () => {
  const output = { protocol: "sacn", to: "multicast", number: 1, priority: 100 } as const;
  const texts = (holder: string) =>
    truthsOf({
      ...fine,
      world: { ...fine.world, show: { name: "Mine", outputs: { 1: output } } },
      wire: { ...fine.wire, bridge: { mine: false, lost: false, trouble: null, holder } as WireState["bridge"] },
    }).map((t) => t.text);
  expect(texts("Mine")).toEqual([expect.stringMatching(/held by "Mine", open in another browser: nothing/)]);
  expect(texts("Yours")).toEqual([expect.stringMatching(/held by "Yours": nothing/)]);
});
