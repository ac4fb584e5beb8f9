/** Catches the stage, the selection or a cue standing otherwise than docs/semantics.md says: the least scripts that once told them apart. */
import { runScript, type ScriptFiles } from "@/core/desk/script";
import { refuse } from "@/core/show/refusal";

const printed: string[] = [];
const files: ScriptFiles = {
  open: () => refuse("no files here"),
  save: () => undefined,
  readText: () => refuse("no files here"),
  writeText: () => undefined,
  readBytes: () => refuse("no files here"),
  writeBytes: () => undefined,
  print: (line) => void printed.push(line),
};
const PATCH = [
  "patch 12 petrel-spot as 1 at 3:1",
  "patch 1 tide-bar as 41 at 2:1",
  "patch 1 twin-blinder as 61 at 1:1",
  "patch 2 kelp-wash as 81",
  "patch 1 gull-scroller as 91",
];

test.each<[what: string, script: string]>([
  [
    "every order line puts the selection in its order",
    "1 thru 3; order reverse; expect selection 3 2 1; order left; expect selection 1 2 3; order shuffle seed 2; order reverse; order reverse; order left; expect selection 1 2 3",
  ],
  [
    "a release takes what is already going along",
    "1 at 60; record cue 1 fade 0; clear; 1 intensity release; record cue 2 fade 2 delay 5; clear; go; go; release; wait 1; expect 1 dimmer 30; wait 1; expect 1 dimmer 0",
  ],
  [
    "a trigger set after its time comes when it is set, not in the past",
    "1 at 100; record cue 1 fade 0; 1 at 0; record cue 2 fade 4; clear; go; wait 3; set cue 2 auto 1; expect 1 dimmer 100; wait 2; expect 1 dimmer 50; expect list 1 cue 2",
  ],
  [
    "so does a planned go, where the cue it leads to is due",
    "1 at 100; record cue 1 fade 0; 1 at 50; record cue 2 fade 0; 1 at 0; record cue 3 fade 4 auto 1; clear; go; wait 3; next list 1 cue 3; expect 1 dimmer 100; wait 2; expect 1 dimmer 50",
  ],
  [
    "so does an undo that brings a trigger back",
    "1 at 100; record cue 1 fade 0; 1 at 0; record cue 2 fade 4 auto 1; clear; set cue 2 manual; go; wait 3; undo; expect 1 dimmer 100; wait 2; expect 1 dimmer 50",
  ],
  [
    "an assert never changes when the cue was complete",
    "1 at 60; record cue 1 fade 2; 1 at 20; record cue 2 fade 0 auto done 1; clear; go; wait 2.5; assert list 1; wait 0.5; expect list 1 cue 2",
  ],
  [
    "a limiter that holds one cell scales only that",
    "61 at 100; record cue 1 fade 0; clear; 61.1 at 100; record list 5 cue 1; clear; set list 5 kind limiter; go; level list 5 at 50; expect dmx 1:1 128 255; level list 5 at 100; expect dmx 1:1 255 255",
  ],
  [
    "a limiter that holds the fixture scales all of it",
    "61 at 100; record cue 1 fade 0; clear; 61 at 100; record list 5 cue 1; clear; set list 5 kind limiter; go; level list 5 at 50; expect dmx 1:1 128 128",
  ],
  [
    "a level scales the cells' where the list holds only those now",
    "41 cells at 60; record cue 1 fade 0; clear; 41 at 100; record cue 2 fade 0; clear; go; level list 1 at 50; expect 41.1 dimmer 30; go; expect 41.1 dimmer 60; expect 41 dimmer 50; back list 1; wait 2; expect 41.1 dimmer 30",
  ],
  [
    "a reach of so many more cues takes in those recorded later",
    "1 at 60; record cue 1; set cue 1 reach +1; clear; 1 zoom at 20; record cue 2; expect cue 2 1 dimmer tracked 60; record cue 3; expect cue 3 1 dimmer unset; record cue 1.5; expect cue 2 1 dimmer tracked 60; delete cue 2; expect cue 1.5 1 dimmer tracked 60; expect cue 3 1 dimmer unset",
  ],
  [
    "a planned go to the cue that would come anyway is a plain go",
    "set list 1 blackmoves off; 1 pan at 60; record cue 1 fade 4; clear; 1 at 50; record cue 2 fade 2; clear; go; next list 1 cue 2; go; wait 2; expect 1 pan 30",
  ],
  [
    "unblock drops what tracks in the same, whatever its own timing",
    "1 at 60; record cue 1; 1 at 60 delay 4; record cue 2; unblock cue 2; expect cue 2 1 dimmer tracked 60",
  ],
  [
    "recording a group that exists adds to it, unless told",
    "1; record group 1; 2; record group 1; group 1; expect selection 1 2; 3; record group 1 overwrite; group 1; expect selection 3; 4; record group 1 merge; group 1; expect selection 3 4",
  ],
  [
    "a flash of a released list runs no automatic cue and leaves a planned next alone",
    "1 at 100; record cue 1 fade 0; 1 at 20; record cue 2 fade 0 auto 1; 1 at 40; record cue 3 fade 0; clear; next list 1 cue 3; flash list 1 on; wait 3; expect 1 dimmer 100; flash list 1 off; expect 1 dimmer 0; go; expect 1 dimmer 40",
  ],
  [
    "a move between two functions of a channel is stepped, in a release too",
    "1 gobo spin at 30; record cue 1 fade 0; clear; go; release; wait 1.5; expect 1 gobo spin 30; wait 0.5; expect 1 gobo spin 0",
  ],
  [
    "copy from brings what a fixture shows, to other types by attribute",
    "7 at 50 pan at 20 zoom at 10; 8 thru 9 copy from 7; expect 8 thru 9 pan 20; expect 8 dimmer 50; 81 copy from 7; expect 81 pan 20; expect 81 zoom 10; expect 81 dimmer 50",
  ],
  [
    "clear and none end a spread",
    "1 thru 6; spread mirror 2; clear; 1 thru 6; 1 thru 6 pan at 0 to 50; expect 1 thru 6 pan 0 10 20 30 40 50; spread bunch 2; none; 1 thru 6 pan at 0 to 50; expect 1 thru 6 pan 0 10 20 30 40 50",
  ],
])("%s", (_, script) => {
  const { failures } = runScript([...PATCH, ...script.split("; ")].join("\n"), files);
  expect(failures.map(({ text }) => text)).toEqual([]);
});

test("print takes several attributes", () => {
  printed.length = 0;
  expect(
    runScript([...PATCH, "1 thru 2 at 50 pan at 10", "print 1 thru 2 dimmer pan zoom"].join("\n"), files).failures,
  ).toEqual([]);
  const { rows } = JSON.parse(printed[0]!) as { rows: { fixture: number; attribute: string; value: number }[] };
  expect(rows.map((r) => `${r.fixture} ${r.attribute} ${r.value}`)).toEqual([
    "1 Dimmer 50",
    "1 Pan 10",
    "1 Zoom 25",
    "2 Dimmer 50",
    "2 Pan 10",
    "2 Zoom 25",
  ]);
});
