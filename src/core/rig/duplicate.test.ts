/** Catches a duplicate that is not programmed like its pattern, or that cannot be taken away again. */
import fc from "fast-check";
import { demoWorld } from "@tests/setup/demo";
import { newDesk, runLine, wait } from "../desk/desk";
import { splitKey } from "../show/ids";
import { newHands } from "../show/world";
import { runs } from "@tests/setup/runs";

const demo = demoWorld().show;
const does = (desk: ReturnType<typeof newDesk>, line: string) => {
  const refusal = runLine(desk, line);
  if (refusal) throw new Error(`${line}: ${refusal.what}`);
};

test("duplicated, then removed: the show is as before", () => {
  const numbers = Object.values(demo.fixtures).map((f) => f.number);
  fc.assert(
    fc.property(fc.uniqueArray(fc.constantFrom(...numbers), { minLength: 1, maxLength: 8 }), (some) => {
      const desk = newDesk({ show: demo, hands: newHands(demo) });
      does(desk, `duplicate ${some.join(" + ")} as 900`);
      expect(Object.keys(desk.world.show.fixtures)).toHaveLength(numbers.length + some.length);
      does(desk, `remove 900 thru ${900 + some.length - 1}`);
      const { nextId: _a, ...after } = desk.world.show;
      const { nextId: _b, ...before } = demo;
      expect(after).toEqual(before);
    }),
    { numRuns: runs(12) },
  );
});

test("a duplicate sends the same bytes as its pattern through the demo", () => {
  const desk = newDesk({ show: demo, hands: newHands(demo) });
  does(desk, "duplicate 1 thru 4 + 21 + 41 + 71 as 901 at 20:1");
  // Those that aim at points see them from elsewhere: they hang where their patterns do.
  const { show } = desk.world;
  for (const [k, n] of [1, 2, 3, 4, 21, 41, 71].entries()) {
    const p = Object.values(show.fixtures).find((f) => f.number === n)!.place;
    does(desk, `${901 + k} place ${p.x} ${p.y} ${p.z}`);
  }
  const same = () => {
    const { rig, stage } = desk.player;
    const id = (n: number) => Object.values(desk.world.show.fixtures).find((f) => f.number === n)!.id;
    for (const [k, n] of [1, 2, 3, 4, 21, 41, 71].entries())
      rig.keys.forEach((key, p) => {
        const { fixture } = splitKey(key);
        if (fixture !== id(n)) return;
        const other = rig.index.get(key.replace(fixture, id(901 + k)))!;
        expect([key, stage.value[other]]).toEqual([key, stage.value[p]]);
      });
  };
  for (let k = 0; k < 14; k++) {
    does(desk, "go list 1");
    wait(desk, 3.3);
    same();
  }
});
