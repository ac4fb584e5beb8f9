/** Catches messages that end the bridge, change what is on the wire, or keep the next window from it. */
import { WebSocket } from "ws";
import { writeFrame } from "@/core/dmx/wireFrame";
import { newShow } from "@/core/show/world";
import { startNode, type DmxNode } from "@/standin/node";
import { startBridge, type Bridge } from "@/bridge/bridge";
import type { FromBridge } from "@/bridge/messages";
import { mutateBytes, mutateDocument } from "./mutate";
import { randomOf, report, SEED, times } from "./scale";

const HOST = "127.0.0.79";
const guard = { origins: ["http://127.0.0.1:4610"], token: "t".repeat(48), host: "127.0.0.1" };
let bridge: Bridge;
let node: DmxNode;
beforeAll(async () => {
  node = await startNode(guard, HOST);
  bridge = await startBridge(guard);
});
afterAll(async () => {
  await bridge.stop();
  node.stop();
});
const connect = () =>
  new Promise<WebSocket>((resolve, reject) => {
    const socket = new WebSocket(`ws://127.0.0.1:${bridge.port}/?token=${guard.token}`, { origin: guard.origins[0]! });
    socket.once("open", () => resolve(socket)).on("error", reject);
  });
const data = Uint8Array.from({ length: 512 }, (_, i) => i & 255);
const outputs = {
  kind: "outputs",
  part: 0,
  parts: 1,
  wire: newShow("x").wire,
  intensity: {},
  outputs: { 1: { protocol: "artnet", to: { unicast: [HOST] }, number: 3, priority: 100 } },
};
const until = async (check: () => boolean) => {
  for (const end = Date.now() + 4000; Date.now() < end;) {
    if (check()) return;
    await new Promise((r) => setTimeout(r, 10));
  }
  throw new Error("it did not come");
};

test("hostile messages end their own connection at most; the one who holds the output goes on", async () => {
  const random = randomOf(SEED + 4);
  const runs = times(150, 3000);
  const honest = await connect();
  let said: FromBridge | undefined;
  honest.on("message", (text) => (said = JSON.parse(String(text)) as FromBridge));
  honest.send(JSON.stringify({ kind: "hello", show: "honest", name: "Honest" }));
  honest.send(JSON.stringify(outputs));
  await until(() => said?.mine === true);
  honest.send(writeFrame([{ protocol: 0, number: 1, data }]));
  await until(() => node.data("artnet", 3)?.[7] === 7);
  const valid = [outputs, { kind: "hello", show: "other", name: "Other" }, { kind: "poll" }];
  for (let i = 0; i < runs; i += 10) {
    const socket = await connect();
    for (let k = 0; k < 10; k++) {
      const pick = random.below(3);
      if (pick === 0)
        socket.send(mutateBytes(writeFrame([{ protocol: 0, number: 1, data: data.map((v) => 255 - v) }]), random));
      else if (pick === 1) socket.send(JSON.stringify(mutateDocument(random.pick(valid), random)));
      else
        socket.send(mutateBytes(new TextEncoder().encode(JSON.stringify(random.pick(valid))), random), {
          binary: false,
        });
    }
    await new Promise((resolve) => setTimeout(resolve, 4));
    socket.terminate();
  }
  said = undefined;
  await until(() => said?.mine === true);
  expect([...node.data("artnet", 3)!]).toEqual([...data]);
  honest.send(writeFrame([{ protocol: 0, number: 1, data: data.map((v) => v ^ 1) }]));
  await until(() => node.data("artnet", 3)?.[7] === 6);
  report("hostile messages to the bridge", { tried: runs, "bridge ended": 0, "output changed": 0 });
  honest.close();
});
