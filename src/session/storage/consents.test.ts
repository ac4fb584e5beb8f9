/** Catches a show of a stranger that may send because an answer was lost on the way. */
import "fake-indexeddb/auto";
import { openDB } from "idb";
import { OWN, WAITING } from "@/core/dmx/consent";
import { newWorld } from "@/core/show/world";
import { keepConsent, readConsent } from "./consents";
import { database, dropConnection } from "./database";
import { addShow, duplicateShow, listShows, removeForGood } from "./shows";

const given = { imported: true, given: ["artnet 10.0.0.5"] };

test("where a show may send is kept in the transaction that keeps the show", async () => {
  const before = (await listShows()).length;
  const { transaction } = IDBDatabase.prototype;
  const stores: string[][] = [];
  IDBDatabase.prototype.transaction = function (this: IDBDatabase, names: string | string[], mode, options) {
    const tx = transaction.call(this, names, mode, options);
    if (mode === "readwrite") stores.push([...tx.objectStoreNames]);
    return tx;
  } as typeof transaction;
  const id = (await addShow(newWorld("From a file"), WAITING)) as string;
  IDBDatabase.prototype.transaction = transaction;
  expect(stores).toEqual([expect.arrayContaining(["cards", "consents", "snapshots"])]);
  expect(await readConsent(id)).toEqual(WAITING);
  expect(await listShows()).toHaveLength(before + 1);
});

test("what is absent or damaged waits; a copy may send where the show may; what is removed is forgotten", async () => {
  const id = (await addShow(newWorld("Mine"), OWN)) as string;
  expect(await readConsent(id)).toEqual(OWN);
  await keepConsent(id, given);
  const copy = (await duplicateShow(id)) as string;
  expect(await readConsent(copy)).toEqual(given);
  await (await database()).put("consents", { imported: false } as never, copy);
  expect(await readConsent(copy)).toEqual(WAITING);
  await removeForGood(id);
  expect(await readConsent(id)).toEqual(WAITING);
});

test("what an earlier version of the storage kept goes on; where it kept nothing, the show waits", async () => {
  dropConnection();
  await new Promise((resolve) => (indexedDB.deleteDatabase("bold-comet").onsuccess = resolve));
  const old = await openDB("bold-comet", 3, {
    upgrade(db) {
      db.createObjectStore("cards", { keyPath: "id" });
      for (const store of ["snapshots", "journal", "playing", "moments", "steps"]) db.createObjectStore(store);
    },
  });
  for (const id of ["agreed", "silent"]) await old.put("cards", { id });
  old.close();
  const kept: Record<string, string> = { "bold-comet-consent-agreed": JSON.stringify(given) };
  Object.assign(globalThis, { localStorage: { getItem: (key: string) => kept[key] ?? null } });
  expect(await readConsent("agreed")).toEqual(given);
  expect(await readConsent("silent")).toEqual(WAITING);
});
