/** Catches storage damage that loses more than it must, opens as something else, or leaves no way out. */
import "fake-indexeddb/auto";
import { OWN } from "@/core/dmx/consent";
import { newDesk, runLine } from "@/core/desk/desk";
import { canonical } from "@/core/exchange/canonical";
import { diffOf, writeDiff } from "@/core/show/change/diff";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { newWorld, type World } from "@/core/show/world";
import { settle } from "@/session/open";
import { ensureDemo } from "@/session/reader/demo";
import { database, seal, sealText, type Sealed } from "@/session/storage/database";
import { createKeeper } from "@/session/storage/keeper";
import { keepMoment } from "@/session/storage/moments";
import { demoBytes } from "@tests/setup/demo";
import { report } from "./scale";
import {
  addShow,
  beforeOf,
  isKept,
  keepPlaying,
  keepShow,
  listShows,
  openShow,
  renameShow,
  duplicateShow,
} from "@/session/storage/shows";
import { listVersions, openVersion } from "@/session/storage/versions";

const LINES = [
  "patch 4 dimmer as 1 at 1:1",
  "1 thru 4 at 50",
  "record cue 1",
  "clear",
  "patch 2 kelp-wash as 11",
  "11 at full",
  "record cue 2",
  "clear",
];

/** A show with a snapshot after four of eight changes, and every state it went through. */
async function kept(): Promise<{ id: string; worlds: World[] }> {
  const desk = newDesk(newWorld("Kept"));
  const worlds = [desk.world];
  const id = (await addShow(desk.world, OWN)) as string;
  const keeper = createKeeper(id, 0, () => undefined);
  for (const [i, line] of LINES.entries()) {
    const before = desk.world;
    if (runLine(desk, line)) throw new Error(line);
    worlds.push(desk.world);
    keeper.change(desk.world, writeDiff(diffOf(before, desk.world)), { how: "done", says: line });
    if (i !== 3) continue;
    await keeper.flush();
    await keepShow(id, desk.world, 4);
  }
  await keeper.flush();
  keeper.close();
  await keepMoment(id, "After cue 1", worlds[4]!.show, { now: 1000 });
  return { id, worlds };
}
const same = (a: World, b: World) => expect(canonical(a)).toBe(canonical(b));
const flip = (sealed: Sealed): Sealed => ({
  ...sealed,
  text: sealed.text.slice(0, 40) + String.fromCharCode(sealed.text.charCodeAt(40) ^ 1) + sealed.text.slice(41),
});
type Store = Awaited<ReturnType<typeof database>>;

const DAMAGE: [what: string, hurt: (db: Store, id: string) => Promise<unknown>, left: number, notice: RegExp | null][] =
  [
    ["nothing", async () => undefined, 8, null],
    [
      "a byte of the snapshot",
      async (db, id) => db.put("snapshots", { ...flip((await db.get("snapshots", id))!), seq: 4 }, id),
      8,
      /nothing is missing/,
    ],
    [
      "a byte of the snapshot before",
      async (db, id) =>
        db.put("snapshots", { ...flip((await db.get("snapshots", beforeOf(id)))!), seq: 0 }, beforeOf(id)),
      8,
      /nothing is missing/,
    ],
    ["the snapshot gone", (db, id) => db.delete("snapshots", id), 8, /nothing is missing/],
    ["a snapshot of another shape", (db, id) => db.put("snapshots", 7 as never, id), 8, /nothing is missing/],
    [
      "a byte of a change",
      async (db, id) => db.put("journal", flip((await db.get("journal", [id, 6]))!), [id, 6]),
      5,
      /3 of the last 4 changes were damaged/,
    ],
    ["a change gone", (db, id) => db.delete("journal", [id, 7]), 6, /1 of the last 3 changes/],
    [
      "a change that fits no show",
      (db, id) => db.put("journal", sealText('[{"path":["show","fixtures","f99","name"],"to":"x"}]'), [id, 8]),
      7,
      /1 of the last 4/,
    ],
    ["a change that is none", (db, id) => db.put("journal", sealText("[1,2,3]"), [id, 5]), 4, /4 of the last 4/],
    ["the card gone", (db, id) => db.delete("cards", id), 8, null],
    ["a damaged card", (db, id) => db.put("cards", { id, name: 7 } as never), 8, null],
    [
      "the running state damaged",
      (db, id) => db.put("playing", { text: "{", check: 1 }, id),
      8,
      /stage came back released/,
    ],
    ["the steps damaged", async (db, id) => db.put("steps", { text: "x", check: 2 }, [id, 8]), 8, null],
  ];

test.each(DAMAGE)(
  "%s: as much of the show opens as there is, and what is lost is said",
  async (_, hurt, left, notice) => {
    const { id, worlds } = await kept();
    await hurt(await database(), id);
    const cards = await listShows();
    expect(cards.filter((card) => card.id === id)).toMatchObject([{ id, name: "Kept" }]);
    const opened = await openShow(id);
    if (isRefusal(opened)) throw new Error(refusalText(opened));
    same(opened.world, worlds[left]!);
    if (notice) expect(opened.notice).toMatch(notice);
    else expect(opened.notice).toBeNull();
    // It was mended: a second opening has nothing to say but of the running state, and work goes on.
    const again = await openShow(id);
    if (isRefusal(again)) throw new Error(refusalText(again));
    same(again.world, worlds[left]!);
    if (notice && !/released/.test(notice.source)) expect(again.notice).toBeNull();
  },
);

afterAll(() =>
  report("storage damage", { kinds: DAMAGE.length + 2, "lost more than it must": 0, "left no way out": 0 }),
);

test("the snapshot and a change before it damaged: what the older snapshot leads to, and how much is missing", async () => {
  const { id, worlds } = await kept();
  const db = await database();
  await db.put("snapshots", { ...flip((await db.get("snapshots", id))!), seq: 4 }, id);
  await db.put("journal", flip((await db.get("journal", [id, 3]))!), [id, 3]);
  const opened = await openShow(id);
  if (isRefusal(opened)) throw new Error(refusalText(opened));
  same(opened.world, worlds[2]!);
  expect(opened.notice).toMatch(/2 changes are missing.*6 of the last 8 changes were damaged/);
});

test("a show that does not open offers its moments and every step that still does, and stays as it is", async () => {
  const { id, worlds } = await kept();
  const db = await database();
  // A change that an older version let through and that no show may hold.
  await db.put(
    "journal",
    sealText(
      JSON.stringify([
        { path: ["show", "fixtures", Object.keys(worlds[8]!.show.fixtures)[0]!, "number"], from: 1, to: 0 },
      ]),
    ),
    [id, 8],
  );
  const opened = await openShow(id);
  expect(isRefusal(opened) && opened.what).toMatch(/number/);
  const versions = await listVersions(id);
  expect(versions.wrong).toMatch(/damaged at fixtures/);
  expect(versions.newest).toBe(7);
  expect(versions.steps.map((s) => s.seq)).toEqual([8, 7, 6, 5, 4, 3, 2, 1, 0]);
  expect(versions.steps[1]!.says).toBe("record cue 2");
  expect(versions.moments).toHaveLength(1);
  for (let step = 0; step <= 7; step++) same((await openVersion(id, { step })) as World, worlds[step]!);
  expect(isRefusal(await openVersion(id, { step: 8 }))).toBe(true);
  expect(isRefusal(await openVersion(id, { step: 99 }))).toBe(true);
  const moment = await openVersion(id, { moment: 1000 });
  expect(!isRefusal(moment) && canonical(moment.show)).toBe(canonical(worlds[4]!.show));
  expect(await listVersions(id)).toEqual(versions);
});

/** Reading a record throws, as where the file of a large value is gone. @param key undefined for all of the store. */
function readingThrows(store: string, key?: IDBValidKey): void {
  const proto = IDBObjectStore.prototype;
  const isMeant = (of: IDBObjectStore, asked: unknown) =>
    of.name === store && (key === undefined || asked instanceof IDBKeyRange || String(asked) === String(key));
  for (const name of ["get", "getAll"] as const) {
    const plain = proto[name] as (this: IDBObjectStore, ...of: unknown[]) => IDBRequest;
    jest.spyOn(proto, name).mockImplementation(function (this: IDBObjectStore, ...of: unknown[]) {
      if (isMeant(this, of[0])) throw new DOMException("Failed to read large IndexedDB value", "UnknownError");
      return plain.apply(this, of);
    } as never);
  }
}

test.each<[what: string, store: string, key: (id: string) => IDBValidKey | undefined, left: number]>([
  ["the snapshot", "snapshots", (id) => id, 8],
  ["the snapshot before", "snapshots", (id) => beforeOf(id), 8],
  ["a change", "journal", (id) => [id, 6], 5],
  ["a card", "cards", (id) => id, 8],
  ["all cards", "cards", () => undefined, 8],
  ["how the lists stood", "playing", () => undefined, 8],
  ["the steps", "steps", () => undefined, 8],
  ["the moments", "moments", () => undefined, 8],
])("reading %s throws: it is one damaged record, and all else can be had", async (_, store, key, left) => {
  const other = await kept();
  const { id, worlds } = await kept();
  await keepMoment(id, "Kept", worlds[4]!.show, { now: 1000, named: true });
  readingThrows(store, key(id));
  const cards = await listShows();
  expect(cards.map((card) => card.id)).toEqual(expect.arrayContaining([id, other.id]));
  const versions = await listVersions(id);
  expect(versions.moments.length).toBe(store === "moments" ? 0 : 1);
  const opened = await openShow(id);
  if (isRefusal(opened)) throw new Error(refusalText(opened));
  same(opened.world, worlds[left]!);
  jest.restoreAllMocks();
  same(((await openShow(other.id)) as { world: World }).world, other.worlds[8]!);
});

test("a connection that was closed, and one that is refused, are not kept: the next try opens another, and *failed* ends", async () => {
  const { id, worlds } = await kept();
  const told: string[] = [];
  const keeper = createKeeper(id, 8, (state) => told.push(state));
  const desk = newDesk(worlds[8]);
  const open = indexedDB.open.bind(indexedDB);
  let refusals = 1;
  jest.spyOn(indexedDB, "open").mockImplementation((...of) => {
    if (refusals-- > 0) throw new DOMException("refused", "UnknownError");
    return open(...of);
  });
  (await database()).close();
  runLine(desk, "1 at 77");
  keeper.change(desk.world, writeDiff(diffOf(worlds[8]!, desk.world)), { how: "done", says: "1 at 77" });
  await keeper.flush();
  await keeper.flush();
  expect(told).toEqual(["saving", "failed", "failed"]);
  await keeper.flush();
  expect(told.at(-1)).toBe("saved");
  same(((await openShow(id)) as { world: World }).world, desk.world);
  // What only told the time ends it, too.
  (await database()).close();
  keeper.playing({ now: 4 });
  await keeper.flush();
  await keeper.flush();
  expect(told.slice(-2)).toEqual(["failed", "saved"]);
  keeper.close();
});

test("both snapshots damaged: the moments are left", async () => {
  const { id, worlds } = await kept();
  const db = await database();
  for (const key of [id, beforeOf(id)])
    await db.put("snapshots", { ...flip((await db.get("snapshots", key))!), seq: 4 }, key);
  expect(isRefusal(await openShow(id))).toBe(true);
  expect(await isKept(id)).toBe(true);
  const versions = await listVersions(id);
  expect([versions.newest, versions.steps.length, versions.moments.length]).toEqual([null, 0, 1]);
  expect(canonical(((await openVersion(id, { moment: 1000 })) as World).show)).toBe(canonical(worlds[4]!.show));
  expect((await listShows()).some((card) => card.id === id)).toBe(true);
});

test("the demo is never taken in anew over what there is of it", async () => {
  const db = await database();
  const demo = new Blob([demoBytes()]);
  jest.spyOn(globalThis, "fetch").mockImplementation(async () => new Response(demo));
  await ensureDemo();
  const made = await openShow("demo");
  if (isRefusal(made)) throw new Error(made.what);
  const world = { ...made.world, show: { ...made.world.show, name: "Mine now" } };
  await keepShow("demo", world, 1);
  await db.delete("cards", "demo");
  await ensureDemo();
  const after = await openShow("demo");
  expect(isRefusal(after) ? after : after.world.show.name).toBe("Mine now");
  expect((await listShows()).find((card) => card.id === "demo")?.name).toBe("Mine now");
  for (const key of ["demo", "demo before"]) await db.put("snapshots", { text: "{", check: 3, seq: 1 }, key);
  await db.delete("cards", "demo");
  await ensureDemo();
  expect((await db.get("snapshots", "demo"))!.text).toBe("{");
});

test("names past their limit are refused or shortened, and no work is lost", async () => {
  const { id, worlds } = await kept();
  expect((await renameShow(id, "n".repeat(201)))?.what).toMatch(/201 characters; 200 is the most/);
  expect((await renameShow(id, "  "))?.what).toMatch(/needs a name/);
  const before = await openShow(id);
  same((before as { world: World }).world, worlds[8]!);
  expect(await renameShow(id, "n".repeat(200))).toBeUndefined();
  const copy = (await duplicateShow(id)) as string;
  const opened = (await openShow(copy)) as { world: World };
  expect(opened.world.show.name).toBe(`${"n".repeat(195)} copy`);
  same({ ...opened.world, show: { ...opened.world.show, name: "Kept" } }, worlds[8]!);
  expect(isRefusal(await addShow({ ...newWorld(), show: { ...newWorld().show, name: "n".repeat(201) } }, OWN))).toBe(
    true,
  );
});

test("a window that goes on for another writes what that one never did, and takes what it wrote unheard", async () => {
  const { id, worlds } = await kept();
  const desk = newDesk(worlds[8]);
  const entries = ["1 at 10", "1 at 20", "1 at 30"].map((line, i) => {
    const before = desk.world;
    runLine(desk, line);
    return { seq: 9 + i, diff: writeDiff(diffOf(before, desk.world)), step: null };
  });
  expect(await settle(id, desk.world, 11, entries)).toEqual({ seq: 11, newer: null });
  same(((await openShow(id)) as { world: World }).world, desk.world);
  // Nothing is written twice; what the guest never heard of comes from storage.
  expect(await settle(id, desk.world, 11, entries.slice(2))).toEqual({ seq: 11, newer: null });
  const behind = await settle(id, worlds[8]!, 8, []);
  expect(behind.seq).toBe(11);
  same(behind.newer!, desk.world);
  await keepPlaying(id, { saved: seal(1).text });
});
