/** Catches steps that fall twice or late, speeds that jump, and hands and timecode that come to another stage than time does. */
import fc from "fast-check";
import { newDesk, runLine, wait, type Desk } from "../../../desk/desk";
import { canonical } from "../../../exchange/canonical";
import { listNumbered } from "../../../show/world";
import { listTimeAt } from "../clock";
import { runs } from "@tests/setup/runs";

const does = (desk: Desk, ...lines: (string | number)[]) => {
  for (const line of lines) {
    if (typeof line === "number") wait(desk, line);
    else {
      const refusal = runLine(desk, line);
      if (refusal) throw new Error(`${line}: ${refusal.what}`);
    }
  }
};
const stage = ({ player }: Desk): number[] => [...player.stage.value].map((v) => Math.round(v * 1e3) / 1e3);
const runOf = (desk: Desk, number: number) => desk.player.runs.get(listNumbered(desk.world.show, number)!.id)!;
const standsIn = (desk: Desk, number: number) => {
  const { cue } = runOf(desk, number);
  return cue === null ? null : listNumbered(desk.world.show, number)!.cues[cue]!.number;
};

/** Three dimmers and a mover, and a list of cues with their times. */
function listed(cues: readonly (readonly [sel: number, level: number, fade: number])[], list = 1): Desk {
  const desk = newDesk();
  does(desk, "patch 3 dimmer as 1 at 1:1", "patch 1 kelp-wash as 4 at 2:1");
  cues.forEach(([sel, level, fade], k) =>
    does(
      desk,
      `${sel} at ${level}${sel === 4 ? ` pan at ${level} colour at #${level > 50 ? "ff0000" : "0000ff"}` : ""}`,
      `record list ${list} cue ${k + 1} fade ${fade}`,
      "clear",
    ),
  );
  return desk;
}
const cues = (fades: fc.Arbitrary<number>) =>
  fc.array(fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 0, max: 100 }), fades), {
    minLength: 2,
    maxLength: 5,
  });
const seconds = fc.integer({ min: 1, max: 30 }).map((n) => n / 10);

test("beats count in closed form: however a chase is looked at and whatever its speed, each beat is one step", () => {
  const speeds = fc.array(fc.tuple(seconds, fc.constantFrom(30, 60, 97, 120, 240)), { minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(cues(fc.constant(0)), speeds, fc.constantFrom(1, 2, 4, 5), (made, changes, cuts) => {
      const [whole, cut] = [0, 1].map(() => {
        const desk = listed(made);
        does(desk, "set list 1 kind chase", "set list 1 share 50", "go");
        return desk;
      }) as [Desk, Desk];
      let beats = 0;
      let bpm = 60;
      for (const [time, next] of changes) {
        does(whole, time);
        for (let k = 0; k < cuts; k++) does(cut, time / cuts);
        beats += (time * bpm) / 60;
        const step = (Math.floor(beats + 1e-6) % made.length) + 1;
        expect([standsIn(whole, 1), standsIn(cut, 1)]).toEqual([step, step]);
        expect(stage(cut)).toEqual(stage(whole));
        // A change of speed never jumps.
        const before = stage(whole);
        for (const desk of [whole, cut]) does(desk, `set list 1 bpm ${next}`);
        expect(stage(whole)).toEqual(before);
        bpm = next;
      }
    }),
    { numRuns: runs(60) },
  );
});

test("taps: from the second on a step falls at each, never twice within half a beat, and the beat goes on from there", () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 30, max: 60 }), { minLength: 3, maxLength: 8 }), (hundredths) => {
      const desk = listed([
        [1, 10, 0],
        [1, 20, 0],
        [1, 30, 0],
        [1, 40, 0],
      ]);
      does(desk, "set list 1 kind chase", "set list 1 share 0", "set list 1 bpm 100", "go");
      does(desk, 0.1, "tap list 1");
      let last = standsIn(desk, 1)!;
      for (const time of hundredths) {
        const ran = runOf(desk, 1);
        const due = ran.beatAt + 1 - listTimeAt(ran.clock, desk.player.now);
        does(desk, time / 100);
        const by = standsIn(desk, 1)!;
        does(desk, "tap list 1");
        const now = standsIn(desk, 1)!;
        const steps = (now - last + 4) % 4;
        // One, or two where the tap is late by more than half a beat.
        expect([1, 2]).toContain(steps);
        if (due > (time / 100) * (ran.clock.rate || 1)) expect(by).toBe(last);
        const beat = 60 / (ran.bpm ?? 100);
        does(desk, beat - 0.001);
        expect(standsIn(desk, 1)).toBe(now);
        does(desk, 0.002);
        expect(standsIn(desk, 1)).toBe((now % 4) + 1);
        // Back in time with a tap at once.
        last = standsIn(desk, 1)!;
        does(desk, 3, "go list 1 cue 1", 0.1, "tap list 1");
        last = standsIn(desk, 1)!;
      }
    }),
    { numRuns: runs(25) },
  );
});

test("a morph moved anywhere and back gives the same stage", () => {
  const level = fc.integer({ min: 0, max: 100 });
  fc.assert(
    fc.property(cues(fc.constant(3)), level, fc.array(level, { maxLength: 5 }), (made, at, moves) => {
      const desk = listed(made, 3);
      does(desk, "set list 3 kind morph", `level list 3 at ${at}`);
      const before = stage(desk);
      for (const move of moves.filter((m) => m > 0 || at === 0)) does(desk, `level list 3 at ${move}`);
      does(desk, `level list 3 at ${at}`, 1);
      expect(stage(desk)).toEqual(before);
    }),
    { numRuns: runs(60) },
  );
});

test("crossfaded by hand, each end is the cue as time brings it, and turned right back nothing has been", () => {
  const way = fc.array(fc.integer({ min: 1, max: 99 }), { maxLength: 4 });
  fc.assert(
    fc.property(cues(fc.integer({ min: 0, max: 4 })), fc.array(way, { minLength: 1, maxLength: 4 }), (made, ways) => {
      const [hand, time] = [listed(made), listed(made)];
      does(hand, "set list 1 fader crossfade");
      // By hand nothing moves in black.
      does(time, "set list 1 blackmoves off");
      let end = 100;
      for (const moves of ways) {
        const before = [stage(hand), standsIn(hand, 1)];
        for (const move of moves) does(hand, `level list 1 at ${move}`, 0.3);
        does(hand, `level list 1 at ${end}`);
        expect([stage(hand), standsIn(hand, 1)]).toEqual(before);
        for (const move of moves) does(hand, `level list 1 at ${move}`);
        end = 100 - end;
        does(hand, `level list 1 at ${end}`);
        does(time, "go", 20);
        expect([standsIn(hand, 1), stage(hand)]).toEqual([standsIn(time, 1), stage(time)]);
      }
    }),
    { numRuns: runs(60) },
  );
});

test("after any locate the stage equals having run there", () => {
  const times = fc.uniqueArray(fc.integer({ min: 0, max: 90 }), { minLength: 5, maxLength: 5 });
  fc.assert(
    fc.property(
      cues(fc.integer({ min: 0, max: 4 })),
      times,
      fc.array(fc.integer({ min: 0, max: 120 }), { minLength: 1, maxLength: 5 }),
      fc.boolean(),
      (made, at, jumps, runs) => {
        const order = [...at].sort((a, b) => a - b);
        const timed = () => {
          const desk = listed(made);
          does(desk, "set list 1 timecode on");
          made.forEach((_, k) => does(desk, `set list 1 cue ${k + 1} at ${order[k]! / 10}`));
          return desk;
        };
        const [there, ran] = [timed(), timed()];
        if (runs) does(there, "timecode run");
        for (const jump of jumps) does(there, `timecode at ${jump / 10}`);
        const last = jumps.at(-1)!;
        does(ran, "timecode run", last / 10, "timecode stop");
        does(there, "timecode stop");
        // A jump of two frames and less is none.
        const before = jumps.at(-2) ?? 0;
        if (Math.abs(last - before) / 10 <= 2 / 30) return;
        expect([standsIn(there, 1), stage(there)]).toEqual([standsIn(ran, 1), stage(ran)]);
      },
    ),
    { numRuns: runs(80) },
  );
});

test("a macro run, undone and run again gives the same document", () => {
  const line = fc.constantFrom(
    "1 thru 2 at 40",
    "3 at 10",
    "clear",
    "record cue 7",
    "record cue 8 fade 1",
    "set cue 1 fade 5",
    "delete cue 2",
    "record group 3",
    "go",
    "99 at 50",
    "move cue 1 to cue 9",
  );
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 7 }), (lines) => {
      const desk = listed([
        [1, 50, 1],
        [2, 60, 2],
        [3, 70, 0],
      ]);
      does(desk, `record macro 1 "Some" ${lines.map((l) => `"${l}"`).join(" ")}`);
      const [before, steps] = [desk.world.show, desk.history.done.length];
      const refused = runLine(desk, "macro 1");
      const after = desk.world.show;
      if (refused) {
        expect(canonical(after)).toBe(canonical(before));
        expect(desk.history.done).toHaveLength(steps);
        return;
      }
      expect(desk.history.done.length - steps).toBeLessThanOrEqual(1);
      if (desk.history.done.length === steps) return;
      does(desk, "undo");
      expect(canonical(desk.world.show)).toBe(canonical(before));
      const again = runLine(desk, "macro 1");
      expect(again).toBeUndefined();
      expect(canonical(desk.world.show)).toBe(canonical(after));
    }),
    { numRuns: runs(60) },
  );
});
