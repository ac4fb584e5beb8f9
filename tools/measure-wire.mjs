// Measures bridge and stand-in node over loopback: universes at 44 frames a second, half Art-Net, half sACN.
// Usage: node tools/measure-wire.mjs [universes] [seconds]
import { spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { WebSocket } from "ws";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const universes = Number(process.argv[2] ?? 64);
const seconds = Number(process.argv[3] ?? 60);
const host = "127.0.0.5";
const token = "measure-wire-token";
const origin = "http://127.0.0.1:4610";
const beside = (name) => {
  const child = spawn(process.execPath, [join(root, `build/${name}.mjs`)], {
    stdio: ["pipe", "pipe", "inherit"],
    env: { ...process.env, BOLD_COMET_TOKEN: token, BOLD_COMET_ORIGINS: origin, BOLD_COMET_NODE_HOST: host },
  });
  return new Promise((resolve) => child.stdout.once("data", (text) => resolve({ child, port: JSON.parse(text).port })));
};
const [bridge, node] = await Promise.all([beside("bridge"), beside("standin")]);
const open = (port) =>
  new Promise((resolve) => {
    const socket = new WebSocket(`ws://127.0.0.1:${port}/?token=${token}`, { origin });
    socket.once("open", () => resolve(socket));
  });
/** Processor time of a process, seconds. */
const cpu = (pid) => {
  const fields = readFileSync(`/proc/${pid}/stat`, "utf8").split(") ")[1].split(" ");
  return (Number(fields[11]) + Number(fields[12])) / 100;
};
try {
  const [out, monitor] = [await open(bridge.port), await open(node.port)];
  let received;
  monitor.on("message", (data, binary) => !binary && (received = JSON.parse(data)));
  let told;
  out.on("message", (data) => (told = JSON.parse(data)));
  out.send(JSON.stringify({ kind: "hello", show: "measure", name: "Measure" }));
  const PART = 64;
  const parts = Math.ceil(universes / PART);
  for (let part = 0; part < parts; part++) {
    const outputs = Object.fromEntries(
      Array.from({ length: Math.min(PART, universes - part * PART) }, (_, k) => part * PART + k).map((i) => [
        i + 1,
        { protocol: i % 2 ? "sacn" : "artnet", to: { unicast: [host] }, number: i + 1, priority: 100 },
      ]),
    );
    out.send(
      JSON.stringify({
        kind: "outputs",
        part,
        parts,
        outputs,
        wire: { source: "Measure", from: "", lost: "hold" },
        intensity: {},
      }),
    );
  }
  const before = cpu(bridge.child.pid);
  const began = performance.now();
  for (let tick = 0; performance.now() - began < seconds * 1000; tick++) {
    for (let from = 0; from < universes; from += 256) {
      const count = Math.min(256, universes - from);
      const frame = new Uint8Array(4 + count * 516);
      frame.set([1, 0, count >> 8, count & 255]);
      for (let k = 0; k < count; k++) {
        const [at, u] = [4 + k * 516, from + k + 1];
        frame.set([0, 0, u >> 8, u & 255], at);
        frame.fill((tick + u) & 255, at + 4, at + 516);
      }
      out.send(frame);
    }
    await new Promise((resolve) =>
      setTimeout(resolve, Math.max(0, began + ((tick + 1) * 1000) / 44 - performance.now())),
    );
  }
  const rate = told.sending.reduce((sum, s) => sum + s.perSecond, 0) / universes;
  const { behind } = told;
  const spent = cpu(bridge.child.pid) - before;
  const took = (performance.now() - began) / 1000;
  await new Promise((resolve) => setTimeout(resolve, 1200));
  const { streams, malformed } = received;
  const packets = streams.reduce((sum, s) => sum + s.packets, 0);
  const lost = streams.reduce((sum, s) => sum + s.lost, 0);
  console.log(
    `${universes} universes for ${took.toFixed(0)} s: ${packets} packets arrived of ${streams.length} streams, ${(packets / universes / took).toFixed(1)} a second each, ${lost} lost, ${malformed} malformed; the bridge says ${rate.toFixed(1)} a second each, ${behind} behind; bridge ${((100 * spent) / took).toFixed(0)} % of one core`,
  );
  process.exitCode = (lost === 0 && streams.length === universes && spent / took < 0.5) || universes > 256 ? 0 : 1;
} finally {
  bridge.child.kill("SIGTERM");
  node.child.kill("SIGTERM");
}
process.exit();
