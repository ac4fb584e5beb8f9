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
  const child = spawn(process.execPath, [join(root, `build/${name}.mjs`)], { stdio: ["pipe", "pipe", "inherit"], env: { ...process.env, BOLD_COMET_TOKEN: token, BOLD_COMET_ORIGINS: origin, BOLD_COMET_NODE_HOST: host } });
  return new Promise((resolve) => child.stdout.once("data", (text) => resolve({ child, port: JSON.parse(text).port })));
};
const [bridge, node] = await Promise.all([beside("bridge"), beside("standin")]);
const open = (port) => new Promise((resolve) => {
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
  const outputs = Object.fromEntries(Array.from({ length: universes }, (_, i) => [i + 1, { protocol: i % 2 ? "sacn" : "artnet", to: { unicast: [host] }, number: i + 1, priority: 100 }]));
  out.send(JSON.stringify({ kind: "outputs", outputs, wire: { source: "Measure", from: "", lost: "hold" }, intensity: {} }));
  const before = cpu(bridge.child.pid);
  const began = performance.now();
  for (let tick = 0; performance.now() - began < seconds * 1000; tick++) {
    const frame = new Uint8Array(4 + universes * 516);
    frame.set([1, 0, universes >> 8, universes & 255]);
    for (let u = 0; u < universes; u++) {
      const at = 4 + u * 516;
      frame.set([0, 0, (u + 1) >> 8, (u + 1) & 255], at);
      frame.fill((tick + u) & 255, at + 4, at + 516);
    }
    out.send(frame);
    await new Promise((resolve) => setTimeout(resolve, Math.max(0, began + ((tick + 1) * 1000) / 60 - performance.now())));
  }
  const spent = cpu(bridge.child.pid) - before;
  const took = (performance.now() - began) / 1000;
  await new Promise((resolve) => setTimeout(resolve, 1200));
  const { streams, malformed } = received;
  const packets = streams.reduce((sum, s) => sum + s.packets, 0);
  const lost = streams.reduce((sum, s) => sum + s.lost, 0);
  console.log(`${universes} universes for ${took.toFixed(0)} s: ${packets} packets arrived of ${streams.length} streams, ${(packets / universes / took).toFixed(1)} a second each, ${lost} lost, ${malformed} malformed; bridge ${((100 * spent) / took).toFixed(0)} % of one core`);
  process.exitCode = lost === 0 && streams.length === universes && spent / took < 0.5 ? 0 : 1;
} finally {
  bridge.child.kill("SIGTERM");
  node.child.kill("SIGTERM");
}
process.exit();
