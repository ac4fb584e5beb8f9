// Serves the built app on 127.0.0.1 at its fixed port, and stops what it started.
import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { createServer } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

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

const hello = async () => {
  try {
    const answer = await fetch(`${address}/api/hello`, { signal: AbortSignal.timeout(1500) });
    return (await answer.json()).app === "bold-comet";
  } catch {
    return false;
  }
};
const isFree = () => new Promise((resolve) => {
  const probe = createServer().once("error", () => resolve(false)).once("listening", () => probe.close(() => resolve(true))).listen(port, "127.0.0.1");
});

if (!(await isFree())) {
  if (await hello()) {
    console.log(`Bold Comet is already running: ${demo}`);
    process.exit(0);
  }
  console.error(`Port ${port} is in use by something else. Stop that, or choose another port with --port N. Shows live in the browser per address, so another port starts with its own shows.`);
  process.exit(1);
}

// The bridge and the stand-in node, each its own process; the app learns their ports and token from a route handler.
const token = randomBytes(24).toString("hex");
const origins = `http://127.0.0.1:${port},http://localhost:${port}`;
const children = [];
function startBeside(name) {
  const child = spawn(process.execPath, [join(root, `build/${name}.mjs`)], { stdio: ["pipe", "pipe", "inherit"], env: { ...process.env, BOLD_COMET_ORIGINS: origins, BOLD_COMET_TOKEN: token } });
  children.push(child);
  return new Promise((resolve) => {
    child.stdout.once("data", (text) => resolve(String(JSON.parse(text).port)));
    child.once("exit", () => resolve(""));
  });
}
const [bridgePort, nodePort] = await Promise.all([startBeside("bridge"), startBeside("standin")]);

const server = spawn(process.execPath, [join(root, "node_modules/next/dist/bin/next"), "start", "-H", "127.0.0.1", "-p", String(port)], { cwd: root, stdio: ["ignore", "ignore", "inherit"], env: { ...process.env, BOLD_COMET_TOKEN: token, BOLD_COMET_BRIDGE_PORT: bridgePort, BOLD_COMET_NODE_PORT: nodePort } });
let stopping = false;
const stop = () => {
  stopping = true;
  for (const child of children) child.kill("SIGTERM");
  server.kill("SIGTERM");
  setTimeout(() => server.kill("SIGKILL"), 3000).unref();
};
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, stop);
server.on("exit", async (code) => {
  for (const child of children) child.kill("SIGTERM");
  // The bridge says goodbye on the wire first.
  await Promise.all(children.map((child) => child.exitCode !== null || child.signalCode !== null || new Promise((resolve) => (child.once("exit", resolve), setTimeout(resolve, 1500).unref()))));
  process.exit(stopping ? 0 : (code ?? 1));
});

for (let tries = 0; tries < 200 && !stopping; tries++) {
  if (await hello()) {
    console.log(`Bold Comet, with the demo show: ${demo}\nAll shows: ${address}\nCtrl+C stops it.`);
    break;
  }
  await new Promise((resolve) => setTimeout(resolve, 100));
}
