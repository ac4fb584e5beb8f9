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
  [
    "deleting the cue a list is in, where it is the first, releases the list",
    "1 at 60; record cue 1 fade 0; 1 at 30; record cue 2 fade 0; clear; go; delete cue 1 track; wait 3; expect 1 dimmer 0; go; expect 1 dimmer 30",
  ],
  [
    "deleting it where one stands before leaves the list there",
    "1 at 60; record cue 1 fade 0; 1 at 30; record cue 2 fade 0; clear; go; go; delete cue 2 track; expect 1 dimmer 60",
  ],
  [
    "a refused macro leaves the lists it had ended as they were",
    'record macro 1 "M" "delete list 2" "99 at 50"; 1 at 60; record list 2 cue 1 fade 0; clear; go list 2; expect 1 dimmer 60; refuse macro 1; wait 5; expect 1 dimmer 60',
  ],
  [
    "what an edit of a reach brings back in force is there at once, in the middle of a fade",
    "1 pan at 50; 1 at 60; record list 3 cue 1 fade 0; set list 3 cue 1 reach 1; clear; 2 at 60; record list 3 cue 2 fade 4; clear; go list 3; go list 3; wait 1; set list 3 cue 1 reach off; wait 3; expect 1 dimmer 60; expect 1 pan 50",
  ],
  [
    "what is on its way to where a fixture will be lit goes on when it goes dark",
    "set list 1 blackmoves off; 1 at 100 pan at 0; record cue 1 fade 0; 1 pan at 90; record cue 2 fade 4; 1 at 0; record cue 3 fade 2; clear; go; go; wait 2; set list 1 blackmoves on; go; wait 2; expect 1 pan 90",
  ],
  [
    "and so it does where the fixture goes dark first",
    "1 at 100 pan at 0; record cue 1 fade 0; clear; 1 at 0 pan at 90; record cue 2 fade 4; clear; 1 at 100; record cue 3 fade 1; clear; set list 1 cue 2 down 2; go; go; wait 2; expect 1 pan 45; wait 1; expect 1 pan 67.5; wait 1; expect 1 pan 90",
  ],
  [
    "own timing is of the setting before it, of a release too",
    "1 at 50; 1 pan at 20; record cue 1 fade 0; clear; 1 at 50; 1 pan release delay 2 fade 2; record cue 2 fade 0; clear; go; go; wait 2; expect 1 pan 20; wait 1; expect 1 pan 10",
  ],
  [
    "a chase drops what tracked when it comes round, whatever its option says",
    "1 at 50; record cue 1; clear; 2 at 50; record cue 2; clear; 1 at 0; record cue 3; clear; 3 at 40; record cue 4; set list 1 kind chase; set list 1 wrapdrop off; set list 1 share 0; clear; go; wait 1; wait 1; wait 1; expect 2 dimmer 50; expect 3 dimmer 40; wait 1; expect 1 dimmer 50; expect 2 dimmer 0; expect 3 dimmer 0",
  ],
  [
    "a cast effect keeps for each voice the fixtures that held it",
    '1 dimmer wave sine low 0 high 100 bpm 60; 2 dimmer wave square low 0 high 100 bpm 60; 1 + 2; record effect 1 "Two" cast; clear; 1 + 2; 1 + 2 effect 1; expect 1 dimmer 0; expect 2 dimmer 100',
  ],
  [
    "and so it does on a lane",
    '1 dimmer wave sine low 0 high 100 bpm 60; 2 dimmer wave square low 0 high 100 bpm 60; 1 + 2; record effect 1 "Two" cast; clear; set list 9 kind effect 1; go list 9; expect 1 dimmer 0; expect 2 dimmer 100',
  ],
  [
    "an open effect that would need two voices on one fixture is refused",
    '1 dimmer wave sine low 0 high 100 bpm 60; 2 dimmer wave square low 0 high 100 bpm 60; refuse record effect 1 "Two" open',
  ],
  [
    "a voice is updated where it was held",
    '1 dimmer wave sine low 0 high 100 bpm 60; 2 dimmer wave square low 0 high 100 bpm 60; record effect 1 "Two" cast; clear; 1 dimmer wave triangle low 0 high 50 bpm 60; update effect 1; clear; 1 + 2 effect 1; wait 0.25; expect 1 dimmer 25; expect 2 dimmer 100',
  ],
  [
    "beats that are set count again after taps, also where they are those stored",
    "1 at 50; record list 4 cue 1; clear; 2 at 50; record list 4 cue 2; clear; set list 4 kind chase; set list 4 bpm 120; go list 4; wait 1; tap list 4; wait 1; tap list 4; set list 4 bpm 120; expect list 4 cue 1; wait 0.5; expect list 4 cue 2; wait 0.5; expect list 4 cue 1",
  ],
  [
    "a cue at timecode 0 is gone when timecode is told to be there",
    "1 at 50; record list 4 cue 1 fade 0; clear; set list 4 timecode on; set list 4 cue 1 at 0:00:00; timecode at 0:00:00; expect 1 dimmer 50",
  ],
  [
    "a bounce started by a jump after a release begins forward",
    "1 at 10; record list 4 cue 1; 1 at 20; record list 4 cue 2; 1 at 30; record list 4 cue 3; clear; set list 4 kind chase; set list 4 direction bounce; set list 4 share 0; go list 4; wait 3; expect 1 dimmer 20; release list 4; wait 5; go list 4 cue 2; wait 1; expect 1 dimmer 30",
  ],
  [
    "a flash let go during a release leaves the release going",
    "1 at 100; record list 4 cue 1 fade 0; clear; set list 4 releasetime 4; go list 4; release list 4; wait 1; expect 1 dimmer 75; flash list 4 on; expect 1 dimmer 100; wait 1; flash list 4 off; expect 1 dimmer 50; wait 2; expect 1 dimmer 0",
  ],
  [
    "lists on timecode move in black",
    "1 at 100 pan at 0; record list 4 cue 1 fade 0; 1 at 0; record list 4 cue 2 fade 0; 1 at 100 pan at 90; record list 4 cue 3 fade 0; clear; set list 4 timecode on; set list 4 cue 1 at 0:00:01; set list 4 cue 2 at 0:00:02; set list 4 cue 3 at 0:00:10; timecode run; wait 3.5; expect 1 pan 45; wait 2; expect 1 pan 90",
  ],
  [
    "a go over seconds keeps the curve",
    "1 at 100; record cue 1 fade 2; set cue 1 curve early; clear; go over 4; wait 2; expect 1 dimmer 75",
  ],
  [
    "a held wave that replaces another goes on in its cycle",
    "1 dimmer wave sine low 0 high 100 bpm 60; wait 0.25; 1 dimmer wave rampup low 0 high 100 bpm 60; expect 1 dimmer 25; 1 pan wave sine low 0 high 100 bpm 60; expect 1 pan 0",
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

test("what a refused macro has played stays played, and `refuse` tells of it", () => {
  const script = [
    ...PATCH,
    "1 at 60",
    "record list 2 cue 1 fade 0",
    "clear",
    'record macro 2 "Wrong" "go list 2" "3 at 40" "99 at 50"',
    "refuse macro 2",
    "expect 3 dimmer 0",
    "expect 1 dimmer 60",
  ];
  expect(runScript(script.join("\n"), files).failures.map(({ text }) => text)).toEqual([
    "expected nothing changed by: macro 2 got a change",
  ]);
});
