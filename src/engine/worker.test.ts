/** Catches an engine that plays late events late, forgets where it was, or stops at nonsense. */
import { newDesk, runLine } from "@/core/desk/desk";
import { diffOf, writeDiff } from "@/core/show/change/diff";
import { listNumbered, type World } from "@/core/show/world";
import { startWorker } from "@tests/setup/engine";

const desk = newDesk();
for (const line of [
  "patch 2 kelp-wash as 1 at 1:1",
  "1 at full pan at 100",
  "record cue 1 fade 4",
  "clear",
  "2 at 50",
  "record cue 2 fade 2 auto 10",
  "clear",
]) {
  const refusal = runLine(desk, line);
  if (refusal) throw new Error(refusal.what);
}
const list = listNumbered(desk.world.show, 1)!.id;

afterEach(() => jest.restoreAllMocks());
const fixture = Object.values(desk.world.show.fixtures).find((f) => f.number === 1)!.id;
const dimmer = `${fixture}.0.Dimmer`;

test("an event counts from when it was given, however late it is heard", async () => {
  const engine = await startWorker();
  engine.open(desk.world);
  expect(engine.value(dimmer)).toBe(0);
  engine.pass(500);
  engine.stall(1000);
  engine.event({ kind: "go", list }, 1000);
  expect(engine.last("done")).toMatchObject({ id: 7, refusal: null });
  expect(engine.value(dimmer)).toBeCloseTo(25, 3);
  engine.pass(1000);
  expect(engine.value(dimmer)).toBeCloseTo(50, 3);
  expect(engine.last("playing")!.playing.runs[list]).toMatchObject({ cue: expect.stringMatching(/^c/), paused: false });
});

test("an hour without a tick gives what an hour of ticks gives", async () => {
  const hour = async (every: (engine: Awaited<ReturnType<typeof startWorker>>) => void) => {
    const engine = await startWorker();
    engine.open(desk.world);
    engine.event({ kind: "go", list });
    every(engine);
    return { value: engine.value(dimmer), bytes: [...engine.bytes()], playing: engine.last("playing")!.playing };
  };
  const even = await hour((engine) => engine.pass(3_600_000, 50));
  expect(even.playing.runs[list]).toMatchObject({ cue: Object.values(desk.world.show.lists[list]!.cues)[1]!.id });
  expect(await hour((engine) => (engine.stall(3_600_000), engine.pass(0)))).toEqual(even);
});

test("what is saved opens where it was, and its clock goes on from there", async () => {
  const first = await startWorker();
  first.open(desk.world);
  first.event({ kind: "go", list });
  first.pass(2000);
  const running = { saved: first.last("saved")!.saved, now: first.last("clock")!.now };
  expect(running.now).toBeGreaterThan(1.7);
  const again = await startWorker();
  again.open(desk.world, running);
  expect(again.value(dimmer)).toBeCloseTo(25 * running.now, 1);
  again.pass(4000);
  expect(again.value(dimmer)).toBe(100);
  const broken = await startWorker();
  broken.open(desk.world, { saved: "{", now: 5 });
  expect(broken.value(dimmer)).toBe(0);
});

const cueLines = (...lines: string[]) => {
  const edited = newDesk(desk.world);
  for (const line of lines) {
    const refusal = runLine(edited, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
  return edited.world;
};

test.each<[what: string, lines: string[], events: object[], seconds: number, value: number]>([
  [
    "a cue that follows",
    ["set cue 1 fade 0", "1 at 20", "record cue 2 fade 0 auto 12", "clear"],
    [{ kind: "go", list }],
    12,
    20,
  ],
  [
    "timecode",
    ["1 at 20", "record list 7 cue 1 fade 0", "clear", "set list 7 timecode on", "set list 7 cue 1 at 0:00:09:27"],
    [{ kind: "timecode", does: "run" }],
    9.9,
    20,
  ],
  [
    "a macro that waits",
    ["1 at 20", "record list 7 cue 1 fade 0", "clear"],
    [{ kind: "later", after: 9, macro: 1, lines: ["go list 7"] }],
    9,
    20,
  ],
  [
    "a chase of still steps",
    [
      "1 at 10",
      "record list 8 cue 1",
      "1 at 20",
      "record list 8 cue 2",
      "clear",
      "set list 8 kind chase",
      "set list 8 share 0",
      "set list 8 bpm 6",
    ],
    [{ kind: "go", list: "of 8" }],
    10,
    20,
  ],
])("in a still look the time goes on over a reload: %s", async (_, lines, events, seconds, value) => {
  const world = cueLines(...lines);
  const first = await startWorker();
  first.open(world);
  for (const event of events)
    first.event("list" in event && event.list === "of 8" ? { ...event, list: listNumbered(world.show, 8)!.id } : event);
  expect(first.last("done")!.refusal).toBeNull();
  first.pass((seconds - 1) * 1000);
  const running = { saved: first.last("saved")!.saved, now: first.last("clock")?.now ?? 0 };
  expect(running.now).toBeGreaterThan(seconds - 1 - 0.3);
  const again = await startWorker();
  again.open(world, running);
  again.pass(700);
  expect(again.value(dimmer)).not.toBeCloseTo(value, 3);
  again.pass(700);
  expect(again.value(dimmer)).toBeCloseTo(value, 3);
});

test("a flash ends where another engine takes over: whoever held it is gone", async () => {
  const first = await startWorker();
  first.open(desk.world);
  first.event({ kind: "flash", list, on: true });
  first.pass(5000);
  expect(first.value(dimmer)).toBe(100);
  const again = await startWorker();
  again.open(desk.world, { saved: first.last("saved")!.saved, now: 0 });
  again.pass(3000);
  expect(again.value(dimmer)).toBe(0);
});

test("a stage on which nothing counts tells no time", async () => {
  const engine = await startWorker();
  engine.open(cueLines("set cue 2 manual"));
  engine.event({ kind: "go", list });
  engine.pass(6000);
  const told = engine.said.length;
  engine.pass(300);
  expect(engine.said.slice(told).filter((m) => m.kind !== "alive")).toEqual([]);
});

test("one that stands by says nothing of a stage, and begins where the other one would be by now", async () => {
  const first = await startWorker();
  first.open(desk.world);
  first.event({ kind: "go", list });
  first.pass(1000);
  const running = { saved: first.last("saved")!.saved, now: first.last("clock")!.now };
  const next = await startWorker();
  next.tell({ kind: "open", world: desk.world, running: null, frames: "frames", standby: true });
  next.tell({ kind: "running", saved: running.saved });
  next.pass(3000);
  expect(next.last("layout")).toBeUndefined();
  next.tell({ kind: "begin", running, since: 0.2 });
  expect(next.value(dimmer)).toBeCloseTo(25 * (running.now + 0.2), 1);
  next.pass(1000);
  expect(next.value(dimmer)).toBeCloseTo(25 * (running.now + 1.2), 0);
});

test("an edit is on stage at once, a new rig is laid out anew, nonsense is told and changes nothing", async () => {
  const engine = await startWorker();
  engine.open(desk.world);
  engine.event({ kind: "go", list });
  engine.pass(5000);
  const before = desk.world;
  const edited = newDesk(before);
  for (const line of ["1 at 30", "update cue 1", "clear", "patch 1 dimmer as 9 at 3:1"])
    expect(runLine(edited, line)).toBeUndefined();
  engine.tell({ kind: "diff", text: writeDiff(diffOf(before, edited.world)) });
  expect(engine.value(dimmer)).toBe(30);
  expect(engine.last("layout")!.layout.universes).toEqual([1, 3]);
  engine.tell({ kind: "diff", text: "[{}]" });
  expect(engine.last("trouble")!.text).toMatch(/does not understand/);
  engine.noise({ kind: "event", event: { kind: "level", list, value: 900 }, at: 0, id: 1 });
  engine.noise(null);
  expect(engine.said.filter((m) => m.kind === "trouble")).toHaveLength(3);
  engine.pass(100);
  expect(engine.value(dimmer)).toBe(30);
});

test("a slot held for a test goes out over everything, until it is let go", async () => {
  const engine = await startWorker();
  engine.open(desk.world);
  engine.event({ kind: "go", list });
  engine.pass(5000);
  const before = [...engine.bytes()];
  engine.tell({ kind: "wire", ask: { universe: 1, slot: 5, byte: 77 } });
  engine.tell({ kind: "wire", ask: { universe: 9, slot: 5, byte: 77 } });
  expect(engine.bytes()[4]).toBe(77);
  expect(engine.last("wire")!.wire.tests).toEqual({ "1:5": 77, "9:5": 77 });
  engine.tell({ kind: "wire", ask: "endTests" });
  expect([...engine.bytes()]).toEqual(before);
});

test("why is answered, for what there is", async () => {
  const engine = await startWorker();
  engine.open(desk.world);
  engine.event({ kind: "go", list });
  engine.tell({ kind: "why", key: dimmer, id: 3 });
  expect(engine.last("because")).toMatchObject({ id: 3, why: expect.objectContaining({}) });
  engine.tell({ kind: "why", key: "f99.0.Pan", id: 4 });
  expect(engine.last("because")).toMatchObject({ id: 4, why: null });
  engine.event({ kind: "go", list: "l99" });
  expect(engine.last("done")!.refusal).toMatch(/does not exist/);
});

test("a step that was taken back leaves lists it had deleted where they were, on their way", async () => {
  const engine = await startWorker();
  const before = newDesk(desk.world);
  expect(runLine(before, "record list 2 cue 1 empty")).toBeUndefined();
  engine.open(before.world);
  engine.event({ kind: "go", list });
  engine.pass(1000);
  const other = newDesk(before.world);
  expect(runLine(other, "delete list 1")).toBeUndefined();
  const tell = (from: World, to: World) => engine.tell({ kind: "diff", text: writeDiff(diffOf(from, to)) });
  engine.tell({ kind: "step", is: "begun" });
  tell(before.world, other.world);
  engine.pass(500);
  tell(other.world, before.world);
  engine.tell({ kind: "step", is: "back" });
  engine.pass(500);
  expect(engine.last("playing")!.playing.runs[list]!.cue).not.toBeNull();
  expect(engine.value(dimmer)).toBeCloseTo(50, 1);
});
