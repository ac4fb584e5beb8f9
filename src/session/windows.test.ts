/** Catches windows of one show that drift apart: what the guest sees, what it asks for, what it is told. */
import { createStore } from "zustand/vanilla";
import { newDesk, runLine } from "@/core/desk/desk";
import { perform } from "@/core/desk/perform";
import { readLine } from "@/core/command/read";
import { isRefusal, refuse } from "@/core/show/refusal";
import { select } from "@/core/select/intents";
import type { World } from "@/core/show/world";
import type { PlayEvent } from "@/core/play/events";
import { frameBytes, openFrame, publish } from "@/engine/frame";
import type { Layout } from "@/engine/layout";
import { joinHost, type Guest } from "./guest";
import { hostWindows, type Host } from "./host";
import { newState, RESTING, type Quietly, type Session, type SessionState } from "./state";
import { frameChannel, windowChannel } from "./windowMessages";

const told: { kind: string }[] = [];
class QuietWorker {
  postMessage(message: { kind: string }) {
    told.push(message);
  }
  addEventListener() {}
  terminate() {}
}
const leaving: (() => void)[] = [];
Object.assign(globalThis, {
  Worker: QuietWorker,
  addEventListener: (_: string, then: () => void) => leaving.push(then),
  removeEventListener: () => undefined,
});

/** Locks as a browser has them: whoever waits for one of a window is told when that window is lost. */
const lost: (() => void)[] = [];
Object.defineProperty(globalThis, "navigator", {
  configurable: true,
  value: {
    locks: {
      async request(_: string, ...rest: unknown[]) {
        const then = rest.at(-1) as () => unknown;
        if (rest.length > 1) return new Promise((resolve) => lost.push(() => resolve(then())));
        return then();
      },
    },
  },
});

const layout: Layout = {
  generation: 4,
  size: 1,
  makes: [{ places: ["0.Dimmer"], attributes: [["Dimmer"]] }],
  fixtures: ["f1"],
  made: Uint32Array.of(0),
  universes: [1],
  slots: 1,
};
const desk = newDesk();
for (const line of ["patch 3 dimmer as 1 at 1:1", "record group 1"]) runLine(desk, line);
const start = { ...desk.world, show: { ...desk.world.show, later: { from: "a newer version" } } } as World;

/** A hosting window with a plain session: no engine, no storage. */
function openHost(did: readonly string[] = [], from = start) {
  const events: PlayEvent[] = [];
  /** Changes that are told when they are settled. */
  const waiting: (() => void)[] = [];
  let seq = 40;
  const store = createStore<SessionState>(() => ({
    ...newState(from),
    view: { layout, frame: openFrame(layout, new ArrayBuffer(frameBytes(layout))), index: new Map() },
  }));
  const doIt: Quietly["do"] = (doing) => {
    const done = perform(store.getState(), doing);
    if (isRefusal(done)) return { now: done, end: Promise.resolve(undefined) };
    store.setState({ world: done.world, history: done.history });
    if (done.diff.length > 0) waiting.push(() => host.diff(done.diff, ++seq, { how: done.how, says: done.says }));
    events.push(...done.events);
    const refused = done.events.some((e) => e.kind === "go") ? refuse("that list does not exist") : undefined;
    return { now: undefined, end: Promise.resolve(refused) };
  };
  const settle = () => waiting.splice(0).forEach((tell) => tell());
  const act: Session["act"] = (made, says) => {
    const { now } = doIt({ intents: [...made], events: [], says });
    settle();
    return now;
  };
  const session = {
    id: "windows-test",
    store,
    act,
    async run(line: string) {
      const read = readLine(line, {
        world: store.getState().world,
        isLit: () => false,
        stage: () => undefined,
        sameColour: () => [],
        inPalette: () => undefined,
      });
      return read === undefined || isRefusal(read) ? read : act(read.intents, line);
    },
    quietly: { do: doIt, doInPieces: async ({ pieces, says }) => act(pieces.flat(), says) } satisfies Quietly,
    whyOf: async () => null,
    askWire: () => undefined,
  } as unknown as Session;
  const audience: boolean[] = [];
  const host: Host = hostWindows(session, {
    audience: (on) => audience.push(on),
    seq: () => seq,
    settle,
    did,
  });
  return { session, store, host, audience, events };
}

const until = async (check: () => boolean) => {
  for (let i = 0; i < 300 && !check(); i++) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(check()).toBe(true);
};
const channels: { close(): void }[] = [];
const channel = (name: string) => {
  const made = new BroadcastChannel(name);
  channels.push(made);
  return made;
};
let hosting: ReturnType<typeof openHost>;
let guest: Guest;
beforeEach(async () => {
  hosting = openHost();
  guest = await joinHost("windows-test");
});
afterEach(() => {
  guest.session.close();
  hosting.host.close();
  for (const c of channels.splice(0)) c.close();
});
const seen = () => guest.session.store.getState();

test("a guest has the whole show, what this version does not know included, and follows it", async () => {
  expect(seen().world).toEqual(start);
  expect(hosting.audience).toEqual([true]);
  hosting.session.act([select.of({ items: Object.keys(start.show.fixtures) })], "select");
  await hosting.session.run('set list 1 name "Tide"');
  await until(() => Object.values(seen().world.show.lists)[0]!.name === "Tide");
  expect(seen().world).toEqual(hosting.store.getState().world);
  expect(seen().history.done.map((s) => s.says)).toEqual(['set list 1 name "Tide"']);
  hosting.store.setState({ saved: "failed", playing: { ...RESTING, grand: 40 } });
  await until(() => seen().saved === "failed" && seen().playing.grand === 40);
});

test("what a guest does is done by the host, refusals included", async () => {
  expect(await guest.session.run("1 thru 2 at 50")).toBeUndefined();
  await until(() => Object.keys(seen().world.hands.held).length === 2);
  expect(Object.keys(hosting.store.getState().world.hands.held)).toHaveLength(2);
  expect(await guest.session.run("77 at 50")).toMatchObject({ what: expect.stringContaining("77") });
  expect(seen().notices.at(-1)).toMatchObject({ tone: "refused" });
  await guest.session.event({ kind: "grand", value: 30 });
  expect(hosting.events).toEqual([{ kind: "grand", value: 30 }]);
  await guest.session.event({ kind: "go", list: "l99" });
  expect(seen().notices.at(-1)).toMatchObject({ tone: "refused", text: "that list does not exist" });
  // Told where it was asked, and nowhere else.
  expect(hosting.store.getState().notices).toEqual([]);
  const two = Object.values(start.show.fixtures)[1]!.id;
  expect(
    await guest.session.actInPieces({
      pieces: [[select.of({ items: [] })], [select.of({ items: [two] })]],
      says: "pieces",
      progress: () => true,
    }),
  ).toBeUndefined();
  await until(() => seen().world.hands.selection.join() === two);
  expect(
    await guest.session.actInPieces({
      pieces: [[select.of({ items: ["f999"] })]],
      says: "pieces",
      progress: () => true,
    }),
  ).toMatchObject({ what: expect.any(String) });
  expect(seen().world.hands.selection).toEqual([two]);
});

test("frames of its own layout are shown, others left; nonsense on the channel changes nothing", async () => {
  const frames = channel(frameChannel("windows-test"));
  const memory = new ArrayBuffer(frameBytes(layout));
  publish(openFrame(layout, memory), (half) => half.bytes.fill(9));
  const before = seen();
  const noise = channel(windowChannel("windows-test"));
  for (const message of [
    null,
    7,
    { kind: "diff" },
    { kind: "diff", diff: [{ path: [] }], steps: {} },
    { kind: "playing", playing: { grand: "x" } },
    { kind: "welcome", to: "me", world: {} },
  ])
    noise.postMessage(message);
  frames.postMessage({ generation: 3, memory });
  frames.postMessage({ generation: 4, memory: new ArrayBuffer(8) });
  frames.postMessage({ generation: 4, memory });
  await until(() => seen().view !== before.view);
  expect(seen().view!.frame.halves[1].bytes[0]).toBe(9);
  expect(seen().world).toBe(before.world);
  expect(seen().playing).toBe(before.playing);
});

test("a frame that comes before its layout is shown once that is there", async () => {
  const frames = channel(frameChannel("windows-test"));
  const later: Layout = { ...layout, generation: 5 };
  const memory = new ArrayBuffer(frameBytes(later));
  publish(openFrame(later, memory), (half) => half.bytes.fill(7));
  frames.postMessage({ generation: 5, memory });
  await new Promise((resolve) => setTimeout(resolve, 30));
  expect(seen().view!.layout.generation).toBe(4);
  hosting.store.setState({
    view: { layout: later, frame: openFrame(later, new ArrayBuffer(frameBytes(later))), index: new Map() },
  });
  await until(() => seen().view!.layout.generation === 5);
  expect(seen().view!.frame.halves[1].bytes[0]).toBe(7);
});

test("the running state is heard in parts, for taking over; a guest that leaves is told to the engine", async () => {
  expect(guest.inherit().running).toBeNull();
  hosting.host.running({ saved: "state" });
  hosting.host.running({ now: 12 });
  await until(() => guest.inherit().running?.now === 12);
  expect(guest.inherit().running).toEqual({ saved: "state", now: 12 });
  // Closing the page.
  leaving.at(-1)!();
  await until(() => hosting.audience.at(-1) === false);
});

test("a window that stands by goes on as soon as the host says that it leaves, from where the stage is by then", async () => {
  guest.warm();
  hosting.host.running({ saved: "state" });
  hosting.host.running({ now: 12 });
  await until(() => told.some((m) => m.kind === "running"));
  hosting.host.leaving();
  const begun = () => told.filter((m) => m.kind === "begin");
  await until(() => begun().length === 1);
  expect(begun()).toEqual([{ kind: "begin", running: { saved: "state", now: 12 }, since: expect.any(Number) }]);
  expect((begun()[0] as unknown as { since: number }).since).toBeLessThanOrEqual(0.25);
  // The session that takes it over begins it no second time.
  const { engine } = guest.inherit();
  engine!.begin({ saved: "older", now: 1 });
  expect(begun()).toHaveLength(1);
  engine!.close();
});

test("what the host has not said to be written is inherited, by its numbers in the journal", async () => {
  for (const n of [10, 20, 30]) await hosting.session.run(`1 at ${n}`);
  await until(() => guest.inherit().seq === 43);
  expect(guest.inherit().unwritten.map((e) => e.seq)).toEqual([41, 42, 43]);
  hosting.host.saved(42);
  await until(() => guest.inherit().unwritten.length === 1);
  expect(guest.inherit()).toMatchObject({
    seq: 43,
    unwritten: [{ seq: 43, step: { how: "done", says: "1 at 30" } }],
    world: hosting.store.getState().world,
  });
});

test("a new host is joined again by those who are there", async () => {
  hosting.host.close();
  hosting = openHost();
  await hosting.session.run('set list 1 name "Second host"');
  await until(() => Object.values(seen().world.show.lists)[0]!.name === "Second host");
  expect(isRefusal((await guest.session.run("1 at 20")) ?? refuse("done"))).toBe(true);
});

test("what was asked of a host that has gone is done by the next, once, or told as not known", async () => {
  // One that dies hears, does and tells, but answers no more; or does not even hear.
  const silent = channel(windowChannel("windows-test"));
  const asked: { id: number; from: string }[] = [];
  silent.onmessage = ({ data }) => (data as { kind: string }).kind === "request" && asked.push(data);
  const { world } = hosting.store.getState();
  hosting.host.close();
  const [edit, play] = [guest.session.run("1 at 30"), guest.session.run("grand at 40")];
  await until(() => asked.length === 2);
  hosting = openHost([], world);
  expect(await edit).toBeUndefined();
  await until(() => Object.values(seen().world.hands.held).some((e) => e.value === 30));
  expect((await play)?.what).toMatch(/may not have been done/);
  expect(hosting.events).toEqual([]);
  // A change that was told of is not made a second time, though its answer never came.
  const before = hosting.store.getState();
  hosting.host.close();
  const again = guest.session.run("1 at 70");
  await until(() => asked.length === 4);
  const ref = `${asked[3]!.from} ${asked[3]!.id}`;
  hosting = openHost([ref], before.world);
  expect(await again).toBeUndefined();
  expect(hosting.store.getState().world).toBe(before.world);
});

test("a guest goes on itself with what it had asked, but for what it knows to be done", async () => {
  hosting.host.close();
  const open = [guest.session.run("1 at 30"), guest.session.run("go list 1")];
  await new Promise((resolve) => setTimeout(resolve));
  const { open: mine } = guest.inherit();
  expect(mine.map((r) => r.kind === "do" && [r.intents.length, r.events.length])).toEqual([
    [2, 0],
    [0, 1],
  ]);
  await Promise.all(open);
});

test("what a window held is let go of when it leaves, and when it is lost", async () => {
  await guest.session.run("1 thru 2");
  await guest.session.run("highlight on");
  await guest.session.event({ kind: "flash", list: "l1", on: true });
  await guest.session.event({ kind: "flash", list: "l2", on: true });
  await guest.session.event({ kind: "flash", list: "l2", on: false });
  hosting.events.length = 0;
  expect(hosting.store.getState().world.hands.highlight).toBe(true);
  lost.at(-1)!();
  await until(() => hosting.events.length > 0);
  expect(hosting.events).toEqual([{ kind: "flash", list: "l1", on: false }]);
  expect(hosting.store.getState().world.hands.highlight).toBe(false);
});

test("a change that was missed leads to being told everything anew", async () => {
  const noise = channel(windowChannel("windows-test"));
  await hosting.session.run("1 at 10");
  await until(() => guest.inherit().seq === 41);
  noise.postMessage({
    kind: "diff",
    diff: [{ path: ["show", "name"], to: "Never was" }],
    steps: { done: null, undone: null },
    seq: 50,
    step: null,
    did: null,
  });
  await hosting.session.run("1 at 20");
  await until(() => Object.values(seen().world.hands.held).some((e) => e.value === 20));
  expect(seen().world).toEqual(hosting.store.getState().world);
});
