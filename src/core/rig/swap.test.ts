/** Catches a swap that forgets, invents or bends what is stored. */
import fc from "fast-check";
import { apart } from "../colour/chromaticity";
import { newDesk, runLine, wait } from "../desk/desk";
import { functionOf } from "../fixture/parameters";
import { LIBRARY } from "../fixture/library/library";
import { modelOf } from "../show/model";
import { paramKey } from "../show/ids";
import type { Show } from "../show/schema";
import { seenAt } from "./convertColours";
import { swapped } from "./swap";
import { typeProblem } from "../fixture/type";
import { runs } from "@tests/setup/runs";

const USED = ["petrel-spot", "kelp-wash", "lantern-par", "tide-bar", "gull-scroller", "twin-blinder", "foghorn-beams"];

interface Story {
  type: string;
  count: number;
  cues: { fixture: number; place: number; fn: number; share: number; palette: boolean; wave: boolean }[][];
}

const story: fc.Arbitrary<Story> = fc.record({
  type: fc.constantFrom(...USED),
  count: fc.integer({ min: 1, max: 3 }),
  cues: fc.array(
    fc.array(
      fc.record({
        fixture: fc.nat(2),
        place: fc.nat(40),
        fn: fc.nat(3),
        share: fc.double({ min: 0, max: 1, noNaN: true }),
        palette: fc.boolean(),
        wave: fc.boolean(),
      }),
      { minLength: 1, maxLength: 8 },
    ),
    { minLength: 1, maxLength: 4 },
  ),
});

/** A show of a few fixtures of a type, with cues of their own attributes, palettes and waves among them. */
function told({ type, count, cues }: Story) {
  const desk = newDesk();
  const does = (line: string) => runLine(desk, line);
  does(`patch ${count} ${type} as 1`);
  does("patch 1 petrel-spot as 101");
  cues.forEach((entries, c) => {
    for (const { fixture, place, fn, share, palette, wave } of entries) {
      const number = (fixture % count) + 1;
      const f = Object.values(desk.world.show.fixtures).find((x) => x.number === number)!;
      const { specs } = modelOf(desk.world.show, f);
      const spec = specs[place % specs.length]!;
      const what = spec.functions[fn % spec.functions.length]!;
      const steps = what.steps;
      const value = steps
        ? steps[Math.floor(share * (steps.length - 1))]!.value
        : Math.round((what.from + share * (what.to - what.from)) * 100) / 100;
      const sel = spec.cell > 0 ? `${number}.${spec.cell}` : `${number}`;
      does(
        wave && !steps
          ? `${sel} ${what.attribute} wave sine low ${Math.min(what.from, what.to)} high ${value}`
          : `${sel} ${what.attribute} at ${value}`,
      );
      if (palette) {
        does(`${sel}`);
        does(`record palette ${c + 1} ${share < 0.5 ? "each" : "type"}`);
        does(`${sel} palette ${c + 1}`);
      }
    }
    does(`record cue ${c + 1} fade 0`);
    does("clear");
  });
  return desk;
}

const stored = ({ fixtures, lists, palettes, groups, effects }: Show) => ({
  fixtures,
  lists,
  palettes,
  groups,
  effects,
});

test("there and back to the same type changes nothing that is stored", () => {
  fc.assert(
    fc.property(story, fc.constantFrom(...LIBRARY), fc.nat(4), (s, other, m) => {
      const { world } = told(s);
      const all = Object.values(world.show.fixtures).filter((f) => f.number < 100);
      const fixtures = all.map((f) => f.id);
      const mode = other.modes[m % other.modes.length]!.name;
      const there = swapped(world.show, world.hands, { fixtures, type: other.id, mode, at: "unpatched" });
      const back = swapped(there.show, there.hands, { fixtures, type: s.type, mode: all[0]!.mode, at: "unpatched" });
      const bare = {
        ...world.show,
        fixtures: Object.fromEntries(
          Object.entries(world.show.fixtures).map(([id, f]) => [
            id,
            fixtures.includes(id) ? { ...f, addresses: [] } : f,
          ]),
        ),
      };
      expect(stored(back.show)).toEqual(stored(bare));
      expect(back.hands).toEqual(world.hands);
    }),
  );
});

test("numbers of attributes that both have are the same on stage, within what the other can do", () => {
  fc.assert(
    fc.property(story, fc.constantFrom(...USED), (s, other) => {
      const desk = told(s);
      const { show } = desk.world;
      const fixtures = Object.values(show.fixtures).filter((f) => f.number < 100);
      const made = swapped(show, desk.world.hands, {
        fixtures: fixtures.map((f) => f.id),
        type: other,
        at: "unpatched",
      });
      for (const list of Object.values(show.lists))
        for (const cue of Object.values(list.cues))
          for (const [key, entry] of Object.entries(cue.entries)) {
            const [id, cell] = key.split(".") as [string, string];
            const f = made.show.fixtures[id]!;
            if (/^(Color|HSB)/.test(entry.attribute) || typeof entry.value !== "number") continue;
            if (Number(cell) > 0 && modelOf(made.show, f).mode.cells !== modelOf(show, show.fixtures[id]!).mode.cells)
              continue;
            const spec = modelOf(made.show, f).specs.find(
              (x) => x.cell === Number(cell) && functionOf(x, entry.attribute),
            );
            const old = modelOf(show, show.fixtures[id]!).specs.find(
              (x) => x.cell === Number(cell) && functionOf(x, entry.attribute),
            );
            if (!spec || !old || functionOf(old, entry.attribute)!.steps) continue;
            const after = made.show.lists[list.id]!.cues[cue.id]!.entries[paramKey(id, spec.cell, spec.head)];
            expect(after?.value).toBe(entry.value);
          }
    }),
  );
});

test("a colour lands where it is said to: inside the gamut it is the same to the eye", () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 })),
        { minLength: 1, maxLength: 4 },
      ),
      fc.constantFrom("petrel-spot", "kelp-wash"),
      fc.constantFrom("lantern-par", "kelp-wash", "petrel-spot"),
      (colours, first, second) => {
        const desk = newDesk();
        const names = first === "kelp-wash" ? ["red", "green", "blue"] : ["cyan", "magenta", "yellow"];
        runLine(desk, `patch 1 ${first} as 1`);
        colours.forEach((parts, k) => {
          names.forEach((name, n) => runLine(desk, `1 ${name} at ${parts[n]}`));
          if (first === "kelp-wash") runLine(desk, "1 white at 0");
          runLine(desk, `record cue ${k + 1} fade 0`);
          runLine(desk, "clear");
        });
        const lookAt = (show: Show, k: number) => {
          const at = newDesk({ show, hands: desk.world.hands });
          runLine(at, `go list 1 cue ${k + 1}`);
          wait(at, 1);
          const f = Object.values(show.fixtures)[0]!;
          return seenAt(modelOf(show, f), 0, (head) => {
            const p = at.player.rig.index.get(paramKey(f.id, 0, head));
            return p === undefined ? undefined : { attribute: head, value: at.player.stage.value[p]! };
          });
        };
        const id = Object.keys(desk.world.show.fixtures)[0]!;
        const { show, rows } = swapped(desk.world.show, desk.world.hands, { fixtures: [id], type: second, at: "keep" });
        const said = Math.max(0, ...rows.map((r) => r.off));
        colours.forEach((parts, k) => {
          if (first === "kelp-wash" && parts.every((p) => p === 0)) return;
          const [a, b] = [lookAt(desk.world.show, k)!, lookAt(show, k)!];
          expect(apart(a.xy, b.xy)).toBeLessThan(said + 0.002);
        });
      },
    ),
    { numRuns: runs(30) },
  );
});

test("every type we ship is sound", () => {
  for (const type of LIBRARY) expect([type.id, typeProblem(type)]).toEqual([type.id, undefined]);
});
