/** Catches undo that a reload forgets or mixes up: whatever was done, undone and redone, snapshots between or not. */
import "fake-indexeddb/auto";
import fc from "fast-check";
import { OWN } from "@/core/dmx/consent";
import { contextOf, newDesk, performOn, runLine, type Desk } from "@/core/desk/desk";
import { perform } from "@/core/desk/perform";
import { readLine } from "@/core/command/read";
import { canonical } from "@/core/exchange/canonical";
import { writeDiff } from "@/core/show/change/diff";
import { EMPTY_HISTORY, extendLast, isRemembered } from "@/core/show/change/history";
import { isRefusal } from "@/core/show/refusal";
import { newWorld } from "@/core/show/world";
import { database } from "./database";
import { createKeeper, type Keeper } from "./keeper";
import { addShow, keepShow, openShow } from "./shows";
import { loadHistory, replaySteps } from "./steps";
import { runs } from "@tests/setup/runs";

/** Does a line as a session does, and keeps it. */
function doAndKeep(desk: Desk, keeper: Keeper, text: string, join: boolean): boolean {
  const read = readLine(text, contextOf(desk));
  if (read === undefined || isRefusal(read)) return false;
  const done = perform(desk, read);
  if (isRefusal(done)) return false;
  const before = desk.history;
  performOn(desk, read);
  const how = read.control === "undo" ? "undone" : read.control === "redo" ? "redone" : join ? "joined" : "done";
  if (how === "joined") desk.history = extendLast(before, done.diff);
  if (done.diff.length > 0)
    keeper.change(desk.world, writeDiff(done.diff), done.diff.some(isRemembered) ? { how, says: done.says } : null);
  return done.diff.length > 0;
}

const line = fc.oneof(
  fc.integer({ min: 1, max: 6 }).map((n) => `${n} at ${n * 9}`),
  fc.integer({ min: 1, max: 6 }).map((n) => `patch 2 dimmer as ${n * 2}`),
  fc.integer({ min: 1, max: 4 }).map((n) => `record cue ${n}`),
  fc.constantFrom("undo", "undo", "redo", "all", "clear", "delete cue 1 track", "remove 2"),
);

test("the history read back is the one there was, and undoes to the same show", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ text: line, join: fc.boolean() }), { minLength: 1, maxLength: 25 }),
      fc.nat(25),
      async (lines, snapshotAt) => {
        const desk = newDesk(newWorld("Kept"));
        const id = (await addShow(desk.world, OWN)) as string;
        const keeper = createKeeper(id, 0, () => undefined);
        let seq = 0;
        for (const [i, { text, join }] of lines.entries()) {
          if (doAndKeep(desk, keeper, text, join && desk.history.done.length > 0)) seq += 1;
          if (i !== snapshotAt) continue;
          await keeper.flush();
          await keepShow(id, desk.world, seq);
        }
        await keeper.flush();
        keeper.close();
        const opened = await openShow(id);
        if (isRefusal(opened)) throw new Error(opened.what);
        expect(canonical(opened.world)).toBe(canonical(desk.world));
        const history = await loadHistory(id, opened.seq);
        expect(history.done.map((s) => s.says)).toEqual(desk.history.done.map((s) => s.says));
        expect(history.undone.map((s) => s.says)).toEqual(desk.history.undone.map((s) => s.says));
        const again = { ...newDesk(opened.world), history };
        while (again.history.done.length > 0) expect(runLine(again, "undo")).toBeUndefined();
        while (desk.history.done.length > 0) runLine(desk, "undo");
        expect(canonical(again.world.show)).toBe(canonical(desk.world.show));
      },
    ),
    { numRuns: runs(60) },
  );
});

test("only so much is kept; a gap or a damaged entry begins it anew, and so does a change of unknown kind", async () => {
  const desk = newDesk(newWorld("Kept"));
  const id = (await addShow(desk.world, OWN)) as string;
  const keeper = createKeeper(id, 0, () => undefined);
  for (let i = 1; i <= 12; i++) doAndKeep(desk, keeper, `patch 1 dimmer as ${i}`, false);
  await keeper.flush();
  await keepShow(id, desk.world, 12);
  expect((await loadHistory(id, 12)).done).toHaveLength(12);
  const db = await database();
  await db.delete("journal", [id, 7]);
  expect((await loadHistory(id, 12)).done).toHaveLength(5);
  await db.delete("steps", [id, 9]);
  expect((await loadHistory(id, 12)).done).toHaveLength(3);
  await db.put("journal", { ...(await db.get("journal", [id, 11]))!, text: "[]" }, [id, 11]);
  expect((await loadHistory(id, 12)).done).toHaveLength(1);
  await keepShow(id, desk.world, 12, { fresh: true });
  expect(await loadHistory(id, 12)).toEqual(EMPTY_HISTORY);
  keeper.close();
});

test("an undo of what is not kept any more begins it anew", () => {
  const diff = [{ path: ["show", "name"], from: "a", to: "b" }];
  const step = (how: "done" | "joined" | "undone" | "redone") => ({ diff, step: { how, says: how } });
  expect(replaySteps([step("undone"), step("done")]).done.map((s) => s.says)).toEqual(["done"]);
  expect(replaySteps([step("joined"), step("redone")])).toEqual(EMPTY_HISTORY);
  expect(replaySteps([step("done"), step("undone"), step("redone"), step("joined")]).done).toEqual([
    { says: "done", diff: [...diff, ...diff] },
  ]);
});
