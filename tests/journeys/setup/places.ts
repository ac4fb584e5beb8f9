/** The app and a browser for each worker of the journeys: started once, used by one file after another. */
import { spawn, type ChildProcess } from "node:child_process";
import { createServer } from "node:net";
import { join } from "node:path";
import { chromium, type BrowserServer } from "playwright-core";

const root = join(__dirname, "../../..");
/** Chromium without its own windows around the pages: it starts sooner and leaves more to them. */
const CHROMIUM = process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell";
const FLAGS = [
  "--no-sandbox",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  // There is none: pages are put together without it, and the room is drawn in software.
  "--disable-gpu",
  "--enable-unsafe-swiftshader",
];

/** Where the journeys of one worker run. */
export interface Place {
  /** Address of the app. */
  base: string;
  /** Address at which the browser is driven. */
  browser: string;
  /** Loopback address of the stand-in node. */
  node: string;
}

interface Started {
  place: Place;
  server: ChildProcess;
  browser: BrowserServer;
}

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

const TRIES = 5;

/** The app at a port of its own. What was free a moment ago may be taken by now: then another is tried. */
async function serve(node: string): Promise<{ server: ChildProcess; port: number }> {
  for (let left = TRIES; left > 0; left--) {
    const port = await freePort();
    const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
      stdio: ["ignore", "pipe", "inherit"],
      env: { ...process.env, BOLD_COMET_OSC_PORT: String(await freePort()), BOLD_COMET_NODE_HOST: node },
    });
    const isThere = await new Promise<boolean>((resolve) => {
      server.stdout.once("data", () => resolve(true));
      server.once("exit", () => resolve(false));
    });
    if (isThere) return { server, port };
  }
  throw new Error("the app did not start; build it first: ./bold-comet demo");
}

async function start(worker: number): Promise<Started> {
  const node = `127.0.0.${20 + worker}`;
  const [{ server, port }, browser] = await Promise.all([
    serve(node),
    chromium.launchServer({ executablePath: CHROMIUM, args: FLAGS }),
  ]);
  return { place: { base: `http://127.0.0.1:${port}`, browser: browser.wsEndpoint(), node }, server, browser };
}

let started: Started[] = [];

export async function startPlaces(workers: number): Promise<void> {
  started = await Promise.all(Array.from({ length: workers }, (_, i) => start(i + 1)));
  process.env.JOURNEY_PLACES = JSON.stringify(started.map(({ place }) => place));
}

export async function stopPlaces(): Promise<void> {
  await Promise.all(
    started.flatMap(({ server, browser }) => [
      browser.close(),
      new Promise((resolve) => (server.once("exit", resolve), server.kill("SIGTERM"))),
    ]),
  );
}

/** The place of the worker that asks. */
export function myPlace(): Place {
  const places = JSON.parse(process.env.JOURNEY_PLACES ?? "[]") as Place[];
  return places[(Number(process.env.JEST_WORKER_ID ?? 1) - 1) % places.length]!;
}
