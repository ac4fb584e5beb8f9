/** Catches a fader that makes a level jump, and messages taken for what they are not. */
import fc from "fast-check";
import { doesOf, movedBy, pickUp, type Pickup } from "./mapping";

test("control changes and notes by channel and number", () => {
  expect(movedBy([0xb0, 7, 127])).toEqual({ control: "cc 1 7", value: 1 });
  expect(movedBy([0x92, 36, 64])?.control).toBe("note 3 36");
  expect(movedBy([0x82, 36, 64])).toEqual({ control: "note 3 36", value: 0 });
  expect(movedBy([0xf1, 3])).toBeUndefined();
  expect(doesOf("level l4")).toEqual({ does: "level", list: "l4" });
  expect(doesOf("explode l4")).toBeUndefined();
});

test("a level never jumps by more than the fader did: it waits until it is met or passed", () => {
  const step = fc.record({
    to: fc.integer({ min: 0, max: 100 }),
    else: fc.option(fc.integer({ min: 0, max: 100 }), { freq: 4 }),
  });
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 100 }), fc.array(step, { maxLength: 20 }), (start, steps) => {
      let level = start;
      let hold: Pickup | undefined;
      for (const { to, else: other } of steps) {
        if (other !== null) level = other;
        const last = hold;
        hold = pickUp(hold, to, level);
        if (!hold.holds) continue;
        const by = Math.abs(to - level);
        expect(by).toBeLessThanOrEqual(Math.max(2.5, Math.abs(to - (last?.at ?? to)) + 2.5));
        level = to;
      }
    }),
  );
});
