/** Catches a refused line that changes something, and a show or a stage that any typed lines leave unlike each other. */
import fc from "fast-check";
import { contextOf, newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import { readLine } from "@/core/command/read";
import { sayReading } from "@/core/desk/perform";
import { inForceAt, trackingOf } from "@/core/cue/tracking";
import { lookOf, sameLook } from "@/core/cue/looks";
import { resolveEntry } from "@/core/program/resolve";
import { rangeOf } from "@/core/fixture/parameters";
import { createPlayer, compute } from "@/core/play/player";
import { restorePlay, savePlay } from "@/core/play/keep/saved";
import { placeOfCue } from "@/core/play/lists/run";
import { canonical } from "@/core/exchange/canonical";
import { readShow } from "@/core/show/checking/check";
import { splitItem, splitKey } from "@/core/show/ids";
import { isRefusal } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { stageTime } from "@/core/units/units";
import { runs } from "@tests/setup/runs";

const n = (max: number, min = 1) => fc.integer({ min, max });
const of = (parts: TemplateStringsArray, ...values: (fc.Arbitrary<unknown> | string)[]): fc.Arbitrary<string> =>
  fc
    .tuple(...values.map((v) => (typeof v === "string" ? fc.constant(v) : v)))
    .map((made) => parts.reduce((line, part, i) => line + String(made[i - 1]) + part));
const pick = (...words: string[]) => fc.constantFrom(...words);

const sel = fc.oneof(
  of`${n(12)}`,
  of`${n(12)} thru ${n(24)}`,
  of`${n(12)} + ${n(24)} - ${n(6)}`,
  of`11.${n(12)}`,
  of`group ${n(4)}`,
  pick("all", "lit", "last", "11 thru 14 cells", "1 thru 24 every 2"),
);
const value = of`${n(120, -20)}`;
const attr = pick(
  "dimmer",
  "pan",
  "tilt",
  "zoom",
  "red",
  "blue",
  "cyan",
  "gobo",
  "gobo spin",
  "wheel",
  "strobe",
  "shutter",
  "prism",
  "iris",
  "ColorAdd_W",
);
const what = pick("intensity", "position", "colour", "gobos", "beam", "focusing", "everything", "pan", "dimmer");
const on = pick("on", "off");
const cue = of`list ${pick("1", "1", "2", "3")} cue ${pick("1", "2", "3", "4", "2.5")}`;
const typing = fc.oneof(
  of`${sel} at ${value}`,
  of`${sel} ${attr} at ${value}`,
  of`${sel} ${attr} at ${value} to ${value}`,
  of`${sel} ${attr} by ${value}`,
  of`${sel} at ${pick("full", "out")} delay 0 to ${n(3)} fade ${n(2, 0)}`,
  of`${sel} colour at ${pick("#ff8000", "#000000", "#2ad1c9")}`,
  of`${sel} ${what} ${pick("release", "drop", "cue time", "delay 1", "fade 0")}`,
  of`${sel} ${pick("home", "locate", "park", "unpark")}`,
  sel,
  of`order ${pick("reverse", "left", "centre", "shuffle seed 3")}`,
  of`spread mirror ${n(3)} bunch ${n(2)} repeat ${n(3, 0)}`,
  pick("next", "previous", "whole", "others", "none", "clear", "clear", "clear"),
);
const rigging = fc.oneof(
  of`patch ${n(4)} ${pick("kelp-wash", "petrel-spot", "dimmer", "lantern-par", "tide-bar", "gull-scroller", "twin-blinder")} as ${n(24)}`,
  of`patch ${n(3)} dimmer as ${n(24)} at ${n(2)}:${n(512)}`,
  of`${sel} ${pick("unpatch", "swap on", "swap off", "invert pan on", "invert tilt off", "scale 50", "correct pan 20 tilt -3", "address auto")}`,
  of`${sel} address ${n(3)}:${n(512)}`,
  of`${sel} renumber ${n(24)}`,
  of`remove ${sel}`,
  of`universe ${n(2)} ${pick("unpatch", "copy to 3")}`,
  of`record group ${n(4)}`,
);
const palette = pick("1", "2", "3", "4");
const palettes = fc.oneof(
  of`record palette ${palette} ${pick("each", "type", "any")}${pick("", "", " only colour", " only position", " whole focusing", " with gobos", " overwrite")}`,
  of`${sel} palette ${palette}`,
  of`${sel} palette ${palette}`,
  of`update palette ${palette}${pick("", " type")}`,
  of`set palette ${palette} ${pick("fold in", "width each", "width type", "width any", "number 3", "shelf off")}`,
  of`set palette ${palette} ${pick("own", "follow")} ${sel}`,
  of`set palette ${palette} ${sel} ${attr} at ${value}${pick("", " type")}`,
  of`set palette ${palette} reference ${n(24)}`,
  of`set ${cue} hard palette ${palette}`,
  of`${pick("delete palette", "replace palette 1 by", "merge palette 2 into", "order palettes 2 1 3", "with palette")} ${palette}`,
  of`${sel} correct hang`,
  of`${sel} aim at ${n(6, -6)} ${n(6)} 0`,
  pick("same colour", "starter palettes focusing", "identify off"),
  of`${sel} identify on`,
);
const effect = pick("1", "2", "3");
const run = of`bpm ${pick("0", "30", "600")} across ${pick("0", "360", "720")}${pick("", " start 90", " width 40", " backward", " bounce")}`;
const effects = fc.oneof(
  of`${sel} ${attr} wave ${pick("sine", "square", "random", "pulse", '"Own"')} low ${pick("0", "out", "palette 1")} high ${pick("full", "20", "palette 2")} ${run}`,
  of`${sel} ${attr} wave ${pick("triangle", "rampup", '"Own"')} relative size ${n(30)} ${run}`,
  of`${sel} ${what} stops palette ${palette} palette ${palette} ${pick("snap", "smooth", "hold 50 linear")} ${run}`,
  of`${sel} colour stops #ff0000 ${pick("snap", "")} #00ff40`,
  of`${sel} ${what} stop`,
  of`${sel} effect ${effect}`,
  of`record effect ${effect}${pick(" cast", " open", "", " overwrite")}`,
  of`update effect ${effect}`,
  of`set effect ${effect} ${pick("bpm 90", "rate 50", "mirror 2", "by left", "low 10", "size 4", "open", "cast 1 thru 6", "voice 1 off", "voice new tilt wave sine relative size 5", "number 2", "backward")}`,
  of`delete effect ${effect}`,
  of`set list ${n(6, 5)} kind effect ${effect}`,
  of`${pick("go", "release", "pause", "tap", "resync", "effectrate list 1 at 50", "level")} list ${n(6)}`,
  pick(
    'record wave "Own" points 0 0, 30 100, 100 0 smooth',
    'record wave "Own" points 0 20, 50 80 stepped second 0 0, 100 100',
    'delete wave "Own"',
    "resync held",
  ),
);
const keeping = fc.oneof(
  of`record ${cue} fade ${n(3, 0)}${pick("", "", " cueonly", " merge", " overwrite", " from stage")}`,
  of`record ${cue} empty`,
  of`update ${cue}${pick("", " all", " cueonly")}`,
  of`take ${cue}${pick("", " all")}`,
  of`${pick("block", "unblock")} ${cue}`,
  of`copy ${cue} to ${cue} bring ${pick("stored", "seen", "everything")}${pick("", " elsewhere defaults", " elsewhere release")}${pick("", " overwrite")}${pick("", " keeplooks")}`,
  of`copy list 1 cue 1 thru 3 to list 1 cue ${n(9, 5)} ${pick("merge", "overwrite")}`,
  of`set ${cue} ${sel} ${attr} at ${value}${pick("", "", " cueonly", " keeplooks")}`,
  of`set ${cue} ${sel} ${what} ${pick("released", "unset", "delay 1", "fade 2 keeplooks", "unset cueonly")}`,
  of`delete ${cue} ${pick("keeplooks", "track")}`,
  of`move ${cue} to cue ${n(7)} ${pick("keeplooks", "track")}`,
  of`renumber list ${n(3)} from 1 step ${n(2)}`,
  of`set ${cue} ${pick("fresh on", "fresh off", "assert on", "reach +1", "reach 2", "reach off", "auto 0", "auto 1.5", "auto done 0.5", "manual", "position fade 4 delay 1", "up 2", "down 0", "delay 1")}`,
  of`set list ${n(3)} ${pick("htp on", "htp off", "priority 2", "priority 0", "end wrap", "end stop", "end release", "wrapdrop off", "backtime 1", "releasetime 0", "overtaken letgo", "overtaken return", "bowout on", "kind submaster", "kind limiter", "kind takeover", "kind list")}`,
);
const playing = fc.oneof(
  of`${pick("go", "go", "back", "pause", "assert", "release")} list ${n(3)}`,
  of`go ${cue}`,
  of`next ${cue}`,
  of`level list ${n(3)} at ${n(100, 0)}`,
  of`rate list ${n(3)} at ${pick("50", "100", "300")}`,
  of`flash list ${n(3)} ${on}`,
  of`${pick("blackout", "blind", "highlight")} ${on}`,
  of`grand at ${n(100, 0)}`,
  pick("release all", "arm list 1", "arm list 2"),
  of`wait ${n(40).map((k) => k / 10)}`,
  of`wait ${n(40).map((k) => k / 10)}`,
  pick("undo", "redo"),
);
const line = fc.oneof(
  { weight: 3, arbitrary: typing },
  { weight: 1, arbitrary: rigging },
  { weight: 3, arbitrary: keeping },
  { weight: 2, arbitrary: palettes },
  { weight: 3, arbitrary: effects },
  { weight: 3, arbitrary: playing },
);

/** Does a line as a script would; true where it was done. */
function type(desk: Desk, text: string): boolean {
  if (text.startsWith("wait ")) return (wait(desk, Number(text.slice(5))), true);
  const read = readLine(text, contextOf(desk));
  if (read === undefined) throw new Error(`nothing was read in: ${text}`);
  if (isRefusal(read)) return false;
  expect(sayReading(desk, read).length).toBeGreaterThan(0);
  return runLine(desk, text) === undefined;
}

function checkWhole({ world: { show, hands } }: Desk): void {
  const read = readShow(JSON.parse(JSON.stringify(show)));
  if (isRefusal(read)) throw new Error(read.what);
  expect(canonical(read)).toBe(canonical(show));
  const there = (id: string) => expect(show.fixtures[id]).toBeDefined();
  for (const group of Object.values(show.groups)) group.members.forEach((i) => there(splitItem(i).fixture));
  for (const item of [...hands.selection, ...(hands.stepping?.whole ?? [])]) there(splitItem(item).fixture);
  for (const key of Object.keys(hands.held)) there(splitKey(key).fixture);
  for (const list of Object.values(show.lists))
    for (const c of Object.values(list.cues)) for (const key of Object.keys(c.entries)) there(splitKey(key).fixture);
  expect(show.lists[hands.armed]).toBeDefined();
}

function checkStage({ player: { rig, stage, frame } }: Desk): void {
  for (let p = 0; p < rig.size; p++) {
    const [low, high] = rangeOf(rig.specs[p]!.functions[stage.fn[p]!]!);
    const v = stage.value[p]!;
    // Masters take what they scale below its range at most to nothing.
    if (!(v >= Math.min(low, 0) - 1e-6 && v <= high + 1e-6))
      throw new Error(`${rig.keys[p]} is ${v}, outside ${low} to ${high}`);
  }
  expect(frame.length).toBe(rig.universes.length * 512);
}

/** Every cue but the one meant looks as before, cue by cue and fixture by fixture. */
function checkLooksKept(before: Show, after: Show, text: string): void {
  // Of a copy: where it goes.
  const where = text.includes(" to list ") ? text.slice(text.indexOf(" to list ") + 4) : text;
  const meant = / cue ([\d.]+)/.exec(where)![1];
  for (const list of Object.values(after.lists)) {
    const old = before.lists[list.id];
    if (!old) continue;
    const was = new Map(cuesOf(old).map((c, i) => [c.id, i]));
    cuesOf(list).forEach((c, i) => {
      const place = was.get(c.id);
      if (place === undefined || (old.cues[c.id]!.number === Number(meant) && where.includes(`list ${list.number} `)))
        return;
      const [a, b] = [lookOf(before, old, place), lookOf(after, list, i)];
      if (a.size !== b.size || [...a].some(([id, look]) => !sameLook(look, b.get(id) ?? null)))
        throw new Error(`cue ${c.number} of list ${list.number} looks otherwise after: ${text}`);
    });
  }
}

/** A player made anew from the saved state shows the same. */
function checkRestored(desk: Desk): void {
  const again = createPlayer(desk.world, stageTime(desk.player.now));
  restorePlay(again, JSON.parse(JSON.stringify(savePlay(desk.player))));
  compute(again);
  expect([...again.frame]).toEqual([...desk.player.frame]);
  desk.player.stage.value.forEach((v, p) => expect(Math.abs(v - again.stage.value[p]!)).toBeLessThan(1e-6));
}

/** With one list alone on stage and all fades done, the stage is what is in force in its cue. */
function checkSettled(desk: Desk, log: string): void {
  for (const text of [
    "clear",
    "blind off",
    "highlight off",
    "all",
    "identify off",
    "unpark",
    "none",
    "blackout off",
    "grand at 100",
  ])
    runLine(desk, text);
  const {
    world: { show },
  } = desk;
  for (const list of Object.values(show.lists)) {
    if (list.kind !== "list") runLine(desk, `level list ${list.number} at ${list.kind === "limiter" ? 100 : 0}`);
    else if (list.number !== 1) runLine(desk, `release list ${list.number}`);
    runLine(desk, `flash list ${list.number} off`);
  }
  runLine(desk, "level list 1 at 100");
  wait(desk, 60);
  for (const c of Object.values(show.lists).flatMap((l) => Object.values(l.cues).map((made) => [l, made] as const)))
    runLine(desk, `set list ${c[0].number} cue ${c[1].number} manual`);
  wait(desk, 60);
  const list = Object.values(desk.world.show.lists).find((l) => l.number === 1)!;
  const run = desk.player.runs.get(list.id)!;
  if (list.kind !== "list" || run.clock.paused) return;
  const { rig, stage } = desk.player;
  const tracking = trackingOf(list, show);
  const place = placeOfCue(list, run.cue);
  for (let p = 0; p < rig.size; p++) {
    const found = place < 0 ? undefined : inForceAt(tracking, rig.keys[p]!, place, run.carried);
    const wanted =
      (found && resolveEntry(show, rig.keys[p]!, rig.specs[p]!, found.entry)?.value) ?? rig.specs[p]!.default;
    if (Math.abs(stage.value[p]! - wanted) > 1e-6)
      throw new Error(
        `${rig.keys[p]} is ${stage.value[p]} in cue ${run.cue === null ? "none" : list.cues[run.cue]!.number}, in force ${wanted}\n${log}`,
      );
  }
}

const START = [
  "patch 4 kelp-wash as 1",
  "patch 4 petrel-spot as 5",
  "patch 2 tide-bar as 11",
  "1 thru 8",
  "record group 1",
  "11 thru 12 cells",
  "record group 2",
  "clear",
  "1 thru 8 at 50 pan at 10",
  "record cue 1",
  "clear",
  "5 thru 8 at full gobo at 3 delay 0 to 2",
  "record cue 2 auto 1",
  "clear",
  "1 + 2 colour at #2ad1c9 intensity release",
  "11 thru 12 at 80",
  "record cue 3 fade 1",
  "clear",
  "1 thru 6 at 20 tilt at 0 to 30",
  "record list 2 cue 1",
  "clear",
  "5 gobo spin at 10 wheel at 3",
  "record list 2 cue 2 fade 1",
  "clear",
  "1 zoom at 20 colour at #ff8000",
  "record palette 1 type",
  "clear",
  "5 aim at 0 2 0",
  "record palette 2 any",
  "clear",
  "1 thru 8 at 70 palette 1 palette 2",
  "record list 2 cue 3 fade 2",
  "clear",
  "11.3 at 40",
  "8 dimmer at 0 strobe at 4",
  "record list 3 cue 1",
  "clear",
];

test("any lines leave the show whole and the stage true", () => {
  fc.assert(
    fc.property(fc.array(line, { minLength: 5, maxLength: 40 }), (lines) => {
      const desk = newDesk();
      for (const text of START) expect(runLine(desk, text)).toBeUndefined();
      const done: string[] = [];
      for (const [i, text] of lines.entries()) {
        const before = desk.world;
        const frame = Buffer.from(desk.player.frame);
        if (type(desk, text)) {
          done.push(text);
          if (/ keeplooks$| cueonly$/.test(text)) checkLooksKept(before.show, desk.world.show, text);
        } else {
          expect(desk.world).toBe(before);
          expect(Buffer.compare(Buffer.from(desk.player.frame), frame)).toBe(0);
        }
        checkStage(desk);
        if (i % 8 === 7) checkWhole(desk);
      }
      checkWhole(desk);
      checkRestored(desk);
      checkSettled(desk, done.join("\n"));
    }),
    { numRuns: runs(60) },
  );
});
