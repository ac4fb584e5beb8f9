/** Catches reading that never ends, that cannot be stopped, or that takes in what it should not. */
import "fake-indexeddb/auto";
import { zipSync } from "fflate";
import { newDesk, runLine } from "@/core/desk/desk";
import { WAITING } from "@/core/dmx/consent";
import { MOST_BYTES, writeShowFile } from "@/core/exchange/showFile";
import { isRefusal } from "@/core/show/refusal";
import { readConsent } from "../storage/consents";
import { listShows, openShow } from "../storage/shows";
import { piecesOf } from "@/core/units/pieces";
import { readAside } from "./readAside";
import { read } from "./reading";

const desk = newDesk();
for (const line of ["patch 2 dimmer as 1 at 1:1", 'set show name "Told"']) expect(runLine(desk, line)).toBeUndefined();
const blob = (bytes: Uint8Array | string) => new Blob([bytes as BlobPart]);
const showFile = blob(writeShowFile(desk.world.show));
const silent = () => undefined;

test("a show file is kept as a show whose outputs wait; what is none is refused and nothing is kept", async () => {
  const kept = await read<"keep">({ kind: "keep", file: showFile, most: MOST_BYTES }, silent);
  if ("refused" in kept) throw new Error(kept.what);
  const opened = await openShow(kept.id);
  expect(isRefusal(opened) ? opened : opened.world.show).toEqual(desk.world.show);
  expect(await readConsent(kept.id)).toEqual(WAITING);
  for (const bytes of [new Uint8Array(20), zipSync({ "show.json": new Uint8Array([123]) })])
    expect(isRefusal(await read<"keep">({ kind: "keep", file: blob(bytes), most: MOST_BYTES }, silent))).toBe(true);
  const small = await read<"keep">({ kind: "keep", file: showFile, most: 10 }, silent);
  expect(small).toMatchObject({ large: expect.any(Number) });
  expect(await listShows()).toHaveLength(1);
});

test("texts are tables or lighting data by what is in them; a rig is by what is in its file", async () => {
  expect(await read<"text">({ kind: "text", text: "Number,Model\n1,Dimmer\n" }, silent)).toHaveProperty("table");
  expect(
    await read<"text">({ kind: "text", text: blob("Ident 3:0\nManufacturer Test\nEndData\n") }, silent),
  ).toHaveProperty("ascii");
  const huge = { size: 10 ** 9 } as Blob;
  expect(await read<"text">({ kind: "text", text: huge }, silent)).toMatchObject({
    what: expect.stringMatching(/too large/),
  });
  expect(await read<"rig">({ kind: "rig", file: huge, types: {} }, silent)).toMatchObject({ refused: true });
  expect(await read<"rig">({ kind: "rig", file: blob("no"), types: {} }, silent)).toMatchObject({
    what: expect.stringMatching(/neither a GDTF nor an MVR/),
  });
});

/** A worker that says what it is told to. */
class StandIn {
  static last: StandIn;
  heard = new Map<string, (event: { data?: unknown; preventDefault(): void }) => void>();
  ended = false;
  constructor() {
    StandIn.last = this;
  }
  addEventListener(kind: string, then: never) {
    this.heard.set(kind, then);
  }
  asked: unknown[] = [];
  postMessage(asked: unknown) {
    this.asked.push(asked);
  }
  terminate() {
    this.ended = true;
  }
  say = (data: unknown) => this.heard.get("message")!({ data, preventDefault: silent });
  die = () => this.heard.get("error")!({ preventDefault: silent });
}

test("reading beside the page tells its progress, can be stopped, and ends when it takes too long or dies", async () => {
  jest.useFakeTimers();
  Object.assign(globalThis, { Worker: StandIn });
  const shares: number[] = [];
  const ask = (stop?: AbortSignal) => readAside<"text">({ kind: "text", text: "x" }, (s) => shares.push(s), stop);
  const done = ask();
  StandIn.last.say({ kind: "share", share: 0.5 });
  StandIn.last.say({ kind: "read", answer: { table: {} } });
  expect(await done).toEqual({ table: {} });
  expect([shares, StandIn.last.ended]).toEqual([[0.5], true]);
  const stop = new AbortController();
  const stopped = ask(stop.signal);
  stop.abort();
  expect([await stopped, StandIn.last.ended]).toEqual(["stopped", true]);
  const died = ask();
  StandIn.last.die();
  expect(await died).toMatchObject({ what: expect.stringMatching(/failed/) });
  const odd = ask();
  StandIn.last.say({ kind: "what" });
  expect(await odd).toMatchObject({ what: expect.stringMatching(/not understood/) });
  const late = ask();
  jest.advanceTimersByTime(200_000);
  expect(await late).toMatchObject({ what: expect.stringMatching(/longer than 2 minutes/) });
  expect(StandIn.last.ended).toBe(true);
  jest.useRealTimers();
});

test("a show comes a piece at a time: each one taken in asks for another, and it is whole at the end", async () => {
  Object.assign(globalThis, { Worker: StandIn });
  const done = readAside<"open">({ kind: "open", id: "s1" });
  const worker = StandIn.last;
  const show = { name: "Large", lists: { l1: { number: 1 }, l2: { number: 2 }, l3: { number: 3 }, l4: { number: 4 } } };
  const pieces = [...piecesOf(show, 2)];
  expect(pieces.length).toBeGreaterThan(2);
  for (const [k, piece] of pieces.entries()) {
    worker.say({ kind: "piece", piece: [...piece] });
    expect(worker.asked.slice(1)).toEqual(Array.from({ length: k + 1 }, () => ({ kind: "more" })));
  }
  worker.say({ kind: "read", answer: { world: { show: null } } });
  expect(await done).toEqual({ world: { show } });
});
