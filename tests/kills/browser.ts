/** A browser of our own, so that it can be killed as a whole. */
import { spawn } from "node:child_process";
import { createServer } from "node:net";
import { chromium, type Browser, type Page } from "playwright-core";

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

export interface Killable {
  page: Page;
  browser: Browser;
  kill(): void;
}

const FLAGS = [
  "--no-sandbox",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--disable-gpu",
  "--window-size=1280,800",
];

export async function startBrowser(profile: string): Promise<Killable> {
  const debug = await freePort();
  const child = spawn(
    process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell",
    [...FLAGS, `--user-data-dir=${profile}`, `--remote-debugging-port=${debug}`, "about:blank"],
    { stdio: "ignore", detached: true },
  );
  for (let tries = 0; ; tries++) {
    try {
      const browser = await chromium.connectOverCDP(`http://127.0.0.1:${debug}`);
      const context = browser.contexts()[0]!;
      return {
        browser,
        page: context.pages()[0] ?? (await context.newPage()),
        kill: () => process.kill(-child.pid!, "SIGKILL"),
      };
    } catch (error) {
      if (tries > 100) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}

/** In which cue storage has a list standing; null for none. */
export const standingStored = (page: Page, show: string, list: string) =>
  page.evaluate(
    ([id, wanted]) =>
      new Promise<string | null>((resolve, reject) => {
        const open = indexedDB.open("bold-comet");
        open.onerror = () => reject(open.error!);
        open.onsuccess = () => {
          const got = open.result.transaction("playing", "readonly").objectStore("playing").get(id);
          got.onsuccess = () => {
            open.result.close();
            const runs = got.result
              ? (JSON.parse(got.result.text) as { runs: { id: string; cue: string | null }[] }).runs
              : [];
            resolve(runs.find((run) => run.id === wanted)?.cue ?? null);
          };
        };
      }),
    [show, list] as const,
  );

/** What storage holds of a show, as it is written: both snapshots and the journal. */
export const storageOf = (page: Page, show: string) =>
  page.evaluate(
    (id) =>
      new Promise<{
        snapshots: ({ text: string; seq: number } | undefined)[];
        journal: { seq: number; text: string }[];
      }>((resolve, reject) => {
        const open = indexedDB.open("bold-comet");
        open.onerror = () => reject(open.error!);
        open.onsuccess = () => {
          const tx = open.result.transaction(["snapshots", "journal"], "readonly");
          const [current, before] = [
            tx.objectStore("snapshots").get(id),
            tx.objectStore("snapshots").get(`${id} before`),
          ];
          const range = IDBKeyRange.bound([id, 0], [id, Infinity]);
          const [keys, entries] = [
            tx.objectStore("journal").getAllKeys(range),
            tx.objectStore("journal").getAll(range),
          ];
          tx.oncomplete = () => {
            open.result.close();
            resolve({
              snapshots: [current.result, before.result],
              journal: keys.result.map((key, i) => ({
                seq: (key as [string, number])[1],
                text: entries.result[i].text,
              })),
            });
          };
        };
      }),
    show,
  );

/** Shows but for one's own whose outputs do not wait for a person. */
export const sendsUnasked = (page: Page, own: string) =>
  page.evaluate(
    (mine) =>
      new Promise<string[]>((resolve, reject) => {
        const open = indexedDB.open("bold-comet");
        open.onerror = () => reject(open.error!);
        open.onsuccess = () => {
          const tx = open.result.transaction(["snapshots", "consents"], "readonly");
          const keys = tx.objectStore("snapshots").getAllKeys();
          const [ids, consents] = [tx.objectStore("consents").getAllKeys(), tx.objectStore("consents").getAll()];
          tx.oncomplete = () => {
            open.result.close();
            const shows = new Set(keys.result.map((key) => String(key).split(" ")[0]!));
            const waits = new Set(ids.result.filter((_, i) => consents.result[i].imported === true).map(String));
            resolve([...shows].filter((id) => id !== mine && !waits.has(id)));
          };
        };
      }),
    own,
  );
