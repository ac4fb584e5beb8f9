/** Catches a show that storage loses, mixes up, or opens damaged without a word. */
import "fake-indexeddb/auto";
import { OWN } from "@/core/dmx/consent";
import { newDesk, runLine } from "@/core/desk/desk";
import { diffOf, writeDiff } from "@/core/show/change/diff";
import { isRefusal } from "@/core/show/refusal";
import { newWorld, type World } from "@/core/show/world";
import { database } from "./database";
import { perform } from "@/core/desk/perform";
import { undo } from "@/core/show/change/history";
import { restoreShow } from "@/core/show/change/restore";
import { keepMoment, listMoments, openMoment } from "./moments";
import { createKeeper, type SavedState } from "./keeper";
import { addShow, bringBack, duplicateShow, listShows, openShow, putAway, removeForGood, renameShow } from "./shows";

/** Worlds after each line, with the diffs between them. */
function story(lines: string[]): { worlds: World[]; diffs: ReturnType<typeof diffOf>[] } {
  const desk = newDesk(newWorld("Kept"));
  const worlds = [desk.world];
  const diffs = lines.map((line) => {
    const before = desk.world;
    expect(runLine(desk, line)).toBeUndefined();
    worlds.push(desk.world);
    return diffOf(before, desk.world);
  });
  return { worlds, diffs };
}
const LINES = [
  "patch 4 dimmer as 1 at 1:1",
  "1 thru 4 at 50",
  "record cue 1",
  "clear",
  "patch 2 kelp-wash as 11",
  "11 at full",
];

async function kept() {
  const { worlds, diffs } = story(LINES);
  const id = (await addShow(worlds[0]!, OWN)) as string;
  const states: SavedState[] = [];
  const keeper = createKeeper(id, 0, (s) => states.push(s));
  diffs.forEach((diff, i) => keeper.change(worlds[i + 1]!, writeDiff(diff), null));
  await keeper.flush();
  keeper.close();
  return { id, worlds, states };
}

async function opened(id: string) {
  const show = await openShow(id);
  if (isRefusal(show)) throw new Error(show.what);
  return show;
}

test("a journal gives what was in memory, and says saved only then", async () => {
  const { id, worlds, states } = await kept();
  const show = await opened(id);
  expect(show.world).toEqual(worlds.at(-1));
  expect(show.seq).toBe(LINES.length);
  expect(states.at(-1)).toBe("saved");
});

test("a damaged entry is cut off with all that follows, and said", async () => {
  const { id, worlds } = await kept();
  const db = await database();
  const entry = (await db.get("journal", [id, 4]))!;
  await db.put("journal", { ...entry, text: `${entry.text.slice(0, -3)}xx]` }, [id, 4]);
  const show = await opened(id);
  expect(show.world).toEqual(worlds[3]);
  expect(show.notice).toMatch(/3 of the last 6 changes were damaged/);
  // What was cut off is gone: work goes on from there and is not mixed with it.
  const keeper = createKeeper(id, show.seq, () => undefined);
  const desk = newDesk(show.world);
  runLine(desk, "all");
  runLine(desk, 'record group 1 "After"');
  keeper.change(desk.world, writeDiff(diffOf(show.world, desk.world)), null);
  await keeper.flush();
  keeper.close();
  expect((await opened(id)).world).toEqual(desk.world);
});

test("a missing entry ends the journal", async () => {
  const { id, worlds } = await kept();
  await (await database()).delete("journal", [id, 2]);
  expect((await opened(id)).world).toEqual(worlds[1]);
});

test("writes are strict", async () => {
  const asked: (IDBTransactionOptions | undefined)[] = [];
  const original = IDBDatabase.prototype.transaction;
  IDBDatabase.prototype.transaction = function (
    this: IDBDatabase,
    stores: string | string[],
    mode?: IDBTransactionMode,
    options?: IDBTransactionOptions,
  ) {
    if (mode === "readwrite") asked.push(options);
    return original.call(this, stores, mode, options);
  } as typeof original;
  await kept();
  IDBDatabase.prototype.transaction = original;
  expect(asked.length).toBeGreaterThan(1);
  expect(asked.every((o) => o?.durability === "strict")).toBe(true);
});

test("a write that fails is tried again and nothing is lost", async () => {
  const { worlds, diffs } = story(LINES);
  const id = (await addShow(worlds[0]!, OWN)) as string;
  const states: SavedState[] = [];
  const keeper = createKeeper(id, 0, (s) => states.push(s));
  const original = IDBObjectStore.prototype.put;
  IDBObjectStore.prototype.put = () => {
    throw new DOMException("full", "QuotaExceededError");
  };
  keeper.change(worlds[1]!, writeDiff(diffs[0]!), null);
  await keeper.flush();
  IDBObjectStore.prototype.put = original;
  expect(states.at(-1)).toBe("failed");
  diffs.slice(1).forEach((diff, i) => keeper.change(worlds[i + 2]!, writeDiff(diff), null));
  await keeper.flush();
  keeper.close();
  expect(states.at(-1)).toBe("saved");
  expect((await opened(id)).world).toEqual(worlds.at(-1));
});

test("shows are kept apart: copied, named, put away, brought back, removed", async () => {
  const { id } = await kept();
  const copy = (await duplicateShow(id)) as string;
  await renameShow(copy, "Second");
  expect((await opened(copy)).world.show.name).toBe("Second");
  expect((await opened(id)).world.show.name).toBe("Kept");
  await putAway(id);
  expect((await listShows()).find((c) => c.id === id)?.deleted).not.toBeNull();
  await bringBack(id);
  expect((await listShows()).find((c) => c.id === id)?.deleted).toBeNull();
  await removeForGood(id);
  expect(isRefusal(await openShow(id))).toBe(true);
  expect((await opened(copy)).world.show.name).toBe("Second");
});

test("a moment can be gone back to, and going back can be undone", async () => {
  const { id, worlds } = await kept();
  await keepMoment(id, "First", worlds[3]!.show, { now: 1000 });
  await keepMoment(id, "The same", worlds[3]!.show, { now: 2000 });
  await keepMoment(id, "Last", worlds.at(-1)!.show, { now: 3000 });
  expect((await listMoments(id)).map((m) => m.name)).toEqual(["Last", "First"]);
  const then = await openMoment(id, 1000);
  if (isRefusal(then)) throw new Error(then.what);
  const desk = newDesk(worlds.at(-1));
  const done = perform(desk, { intents: [restoreShow.of({ show: then })], events: [] });
  if (isRefusal(done)) throw new Error(done.what);
  expect(done.world.show).toEqual(worlds[3]!.show);
  expect(undo(done.world, done.history)!.world.show).toEqual(worlds.at(-1)!.show);
  for (let i = 0; i < 40; i++) await keepMoment(id, `${i}`, { ...then, name: `${i}` }, { now: 4000 + i });
  expect(await listMoments(id)).toHaveLength(30);
  expect(isRefusal(await openMoment(id, 1000))).toBe(true);
});

test("a show of an earlier version, its journal included, opens in the present one", async () => {
  const { worlds, diffs } = story(LINES);
  // As version 1 wrote it: without notes, outputs and scenery.
  const asOne = (text: string) =>
    JSON.parse(text, (key, value: Record<string, unknown>) => {
      if (value !== null && typeof value === "object" && "addresses" in value) delete value.note;
      return key === "version" ? 1 : value;
    }) as World;
  const old = asOne(JSON.stringify(worlds[0]));
  for (const key of ["outputs", "wire", "scenery"]) delete (old.show as unknown as Record<string, unknown>)[key];
  const id = (await addShow(old, OWN)) as string;
  const keeper = createKeeper(id, 0, () => undefined);
  diffs.forEach((diff, i) => keeper.change(worlds[i + 1]!, writeDiff(asOne(JSON.stringify(diff)) as never), null));
  await keeper.flush();
  keeper.close();
  const first = await opened(id);
  expect(first.notice).toBeNull();
  expect(first.world.show).toEqual(worlds.at(-1)!.show);
  expect((await opened(id)).world.show).toEqual(worlds.at(-1)!.show);
});
