// Serves the built app on 127.0.0.1 at its fixed port, and stops what it started.
import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { connect, createServer } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { isOurs, startTime } from "./processes.mjs";

const PORT = 4610;
const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const wish = process.argv.indexOf("--port");
const port = wish >= 0 ? Number(process.argv[wish + 1]) : PORT;
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error("--port takes a number from 1 to 65535");
  process.exit(2);
}
const address = `http://127.0.0.1:${port}`;
const demo = `${address}/show/demo/build`;
/** What runs here: process ids with their start times, and ports. The app reads where the bridge is from it. */
const stateFile = join(root, `build/running-${port}.json`);

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const hello = async () => {
  try {
    const answer = await fetch(`${address}/api/hello`, { signal: AbortSignal.timeout(1500) });
    return (await answer.json()).app === "bold-comet";
  } catch {
    return false;
  }
};
const isFree = () =>
  new Promise((resolve) => {
    const probe = createServer()
      .once("error", () => resolve(false))
      .once("listening", () => probe.close(() => resolve(true)))
      .listen(port, "127.0.0.1");
  });
const answers = (at) =>
  new Promise((resolve) => {
    const socket = connect(at, "127.0.0.1")
      .once("connect", () => (socket.destroy(), resolve(true)))
      .once("error", () => resolve(false));
    socket.setTimeout(1500, () => (socket.destroy(), resolve(false)));
  });
const lastRun = () => {
  try {
    return JSON.parse(readFileSync(stateFile, "utf8"));
  } catch {
    return undefined;
  }
};

/** Ends what an earlier start left behind: only processes that are still the very ones it started. */
async function endLeftovers(run) {
  const left = (run?.processes ?? []).filter(isOurs);
  for (const { pid } of left) process.kill(pid, "SIGTERM");
  for (let tries = 0; tries < 30 && left.some(isOurs); tries++) await pause(100);
  for (const one of left.filter(isOurs)) process.kill(one.pid, "SIGKILL");
  if (left.length > 0) await pause(200);
}

const before = lastRun();
if ((await hello()) && before && (await answers(before.bridge)) && (await answers(before.node))) {
  console.log(`Bold Comet is already running: ${demo}`);
  process.exit(0);
}
await endLeftovers(before);
if (!(await isFree())) {
  console.error(
    `Port ${port} is in use by something else. Stop that, or choose another port with --port N. Shows live in the browser per address, so another port starts with its own shows.`,
  );
  process.exit(1);
}

const token = randomBytes(24).toString("hex");
const origins = `http://127.0.0.1:${port},http://localhost:${port}`;
const run = { token, bridge: null, node: null, processes: [] };
let stopping = false;
let server;
const beside = new Map();

function note(name, pid) {
  run.processes = [...run.processes.filter((p) => p.name !== name), { name, pid, started: startTime(pid) }];
  mkdirSync(dirname(stateFile), { recursive: true });
  writeFileSync(stateFile, JSON.stringify(run), { mode: 0o600 });
}

/** One that ends is started again after so long; after twice as long each time it did not last, but never much later: output hangs on it. */
const AGAIN_MS = 300;
const LASTED_MS = 10_000;
const AGAIN_MOST_MS = 3000;

/** The bridge and the stand-in node, each its own process: one that ends is started again, at its port, while the app runs. */
async function startBeside(name, key, variable, again = AGAIN_MS) {
  const began = Date.now();
  const child = spawn(process.execPath, [join(root, `build/${name}.mjs`)], {
    stdio: ["pipe", "pipe", "inherit"],
    env: { ...process.env, BOLD_COMET_ORIGINS: origins, BOLD_COMET_TOKEN: token, [variable]: String(run[key] ?? 0) },
  });
  beside.set(name, child);
  child.stdin.on("error", () => undefined);
  child.once("exit", () => {
    if (stopping) return;
    console.error(`the ${key} ended and is started again`);
    const wait = Date.now() - began > LASTED_MS ? AGAIN_MS : again;
    const next = Math.min(AGAIN_MOST_MS, wait * 2);
    setTimeout(() => !stopping && void startBeside(name, key, variable, next), wait);
  });
  const told = await new Promise((resolve) => {
    child.stdout.once("data", (text) => resolve(JSON.parse(text).port));
    child.once("exit", () => resolve(null));
  });
  // A port that somebody else has taken meanwhile: any other will do, the app asks again.
  run[key] = told;
  note(name, child.pid);
}

const stop = () => {
  stopping = true;
  for (const child of beside.values()) child.kill("SIGTERM");
  server?.kill("SIGTERM");
  setTimeout(() => server?.kill("SIGKILL"), 3000).unref();
};
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, stop);

await Promise.all([
  startBeside("bridge", "bridge", "BOLD_COMET_BRIDGE_PORT"),
  startBeside("standin", "node", "BOLD_COMET_NODE_PORT"),
]);
/** Whether it has ever answered: one that never does is not started over and over. */
let hasAnswered = false;

/** The app ends when this process does, however it went. One that ends by itself is started again, as those beside it are. */
function startApp(again = AGAIN_MS) {
  const began = Date.now();
  const next = join(root, "node_modules/next/dist/bin/next");
  server = spawn(
    process.execPath,
    ["--import", join(root, "tools/end-with-parent.mjs"), next, "start", "-H", "127.0.0.1", "-p", String(port)],
    { cwd: root, stdio: ["pipe", "ignore", "inherit"], env: { ...process.env, BOLD_COMET_RUNNING: stateFile } },
  );
  server.stdin.on("error", () => undefined);
  note("app", server.pid);
  server.on("exit", (code) => {
    if (stopping || !hasAnswered) return void end(code ?? 0);
    console.error("the app ended and is started again; shows that are open run on in their pages");
    const wait = Date.now() - began > LASTED_MS ? AGAIN_MS : again;
    setTimeout(() => (stopping ? void end(0) : startApp(Math.min(AGAIN_MOST_MS, wait * 2))), wait);
  });
}

async function end(code) {
  stopping = true;
  for (const child of beside.values()) child.kill("SIGTERM");
  // The bridge says goodbye on the wire first.
  await Promise.all(
    [...beside.values()].map(
      (child) =>
        child.exitCode !== null ||
        child.signalCode !== null ||
        new Promise((resolve) => (child.once("exit", resolve), setTimeout(resolve, 1500).unref())),
    ),
  );
  rmSync(stateFile, { force: true });
  process.exit(code);
}

note("serve", process.pid);
startApp();
for (let tries = 0; tries < 200 && !stopping; tries++) {
  if (await hello()) {
    hasAnswered = true;
    console.log(`Bold Comet, with the demo show: ${demo}\nAll shows: ${address}\nCtrl+C stops it.`);
    break;
  }
  await pause(100);
}
