/** Catches many intents that come to be half done. */
import { applyDiff } from "@/core/show/change/diff";
import { applyIntents, type Intent } from "@/core/show/change/intent";
import { INTENTS } from "@/core/intents";
import { isRefusal } from "@/core/show/refusal";
import { newWorld } from "@/core/show/world";
import { patch } from "@/core/patch/intents";
import { select } from "@/core/select/intents";
import { workOut } from "./inPieces";

const dimmers = (start: number, slot: number): Intent[] => [
  patch.of({ count: 10, type: "dimmer", mode: "standard", from: start, at: { universe: 1, slot } }),
];

test("pieces are worked out together and nothing is done yet", async () => {
  const world = newWorld();
  const told: number[] = [];
  const done = await workOut(() => world, {
    pieces: [dimmers(1, 1), dimmers(11, 11)],
    says: "",
    progress: (n) => told.push(n) > 0,
  });
  if (done === "stopped" || isRefusal(done)) throw new Error("refused");
  expect(Object.keys(world.show.fixtures)).toHaveLength(0);
  expect(Object.keys(done.world.show.fixtures)).toHaveLength(20);
  expect(applyDiff(world, done.diff)).toEqual(done.world);
  expect(told).toEqual([1, 2]);
});

test("stopped or refused, there is nothing to take back", async () => {
  const world = newWorld();
  expect(
    await workOut(() => world, { pieces: [dimmers(1, 1), dimmers(11, 11)], says: "", progress: (n) => n < 1 }),
  ).toBe("stopped");
  const refused = await workOut(() => world, {
    pieces: [dimmers(1, 1), dimmers(1, 11)],
    says: "",
    progress: () => true,
  });
  expect(isRefusal(refused as never)).toBe(true);
});

test("what changes meanwhile is not lost: the pieces are worked out again on it", async () => {
  let world = newWorld();
  let told = 0;
  const done = await workOut(() => world, {
    pieces: [dimmers(1, 1), dimmers(11, 11)],
    says: "",
    progress() {
      if (++told === 1) world = { ...world, show: { ...world.show, name: "Renamed" } };
      return true;
    },
  });
  if (done === "stopped" || isRefusal(done)) throw new Error("refused");
  expect(done.world.show.name).toBe("Renamed");
  expect(Object.keys(done.world.show.fixtures)).toHaveLength(20);
  const busy = await workOut(() => (world = applied(world)), {
    pieces: [dimmers(1, 1)],
    says: "",
    progress: () => true,
  });
  expect(busy).toMatchObject({ what: expect.stringContaining("was changed") });
});

/** The world after somebody has touched the selection. */
function applied(world: ReturnType<typeof newWorld>): ReturnType<typeof newWorld> {
  const done = applyIntents(INTENTS, { ...world }, [select.of({ items: [] })]);
  if (isRefusal(done)) throw new Error("refused");
  return { ...done.world };
}
