/** Catches sACN that only our own node understands: a whole show's packets, read by another implementation, beside our own. */
import { createSocket, type Socket } from "node:dgram";
import { Receiver } from "sacn";
import { WebSocket } from "ws";
import { startBridge, type Bridge } from "@/bridge/bridge";
import { writeFrames } from "@/core/dmx/wireFrame";
import { demoWorld } from "@tests/setup/demo";
import { newDesk, runLine, wait } from "@/core/desk/desk";
import { startNode, type DmxNode } from "@/standin/node";
import { partsOf } from "@/engine/wireOut";

const HOSTS = ["127.0.0.95", "127.0.0.96"];
const guard = { origins: ["http://127.0.0.1:4610"], token: "t".repeat(48), host: "127.0.0.1" };
let bridge: Bridge;
let node: DmxNode;
let receiver: Receiver;
const errors: string[] = [];
const ear = createSocket("udp4");
beforeAll(async () => {
  node = await startNode(guard, HOSTS[1]!);
  bridge = await startBridge(guard);
  // It would take the port of every address of this machine; it is given what one address hears instead.
  receiver = new Receiver({ universes: [1, 2, 3, 4], port: 45_568, reuseAddr: true, iface: "127.0.0.1" });
  ear.on("message", (bytes, from) => (receiver as unknown as { socket: Socket }).socket.emit("message", bytes, from));
  await new Promise<void>((resolve) => ear.bind(5568, HOSTS[0], () => resolve()));
  receiver.on("error", (error) => errors.push(error.message));
  receiver.on("PacketCorruption", (error: Error) => errors.push(error.message));
  receiver.on("PacketOutOfOrder", (error: Error) => errors.push(error.message));
});
afterAll(async () => {
  await new Promise<void>((resolve) => receiver.close(() => resolve()));
  await bridge.stop();
  node.stop();
  ear.close();
});

test("every universe of the demo, through a fade: the same slots at both, in order, none corrupt", async () => {
  const desk = newDesk(demoWorld());
  expect(runLine(desk, `output 1 thru 4 sacn to ${HOSTS.join(" and ")} as 1 priority 120`)).toBeUndefined();
  const got = new Map<number, { slots: number[]; priority: number; source: string }>();
  receiver.on("packet", (packet) => {
    const slots = new Array<number>(512).fill(0);
    for (const [slot, percent] of Object.entries(packet.payload))
      slots[Number(slot) - 1] = Math.round((percent * 255) / 100);
    got.set(packet.universe, { slots, priority: packet.priority, source: packet.sourceName });
  });
  const socket = new WebSocket(`ws://127.0.0.1:${bridge.port}/?token=${guard.token}`, { origin: guard.origins[0]! });
  await new Promise<void>((resolve) => socket.once("open", () => resolve()));
  socket.send(JSON.stringify({ kind: "hello", show: "demo", name: "Demo" }));
  for (const part of partsOf(desk.world.show, {})) socket.send(JSON.stringify(part));
  const { universes } = desk.player.rig;
  expect(universes).toEqual([1, 2, 3, 4]);
  runLine(desk, "go list 1");
  for (let i = 0; i < 60; i++) {
    wait(desk, 0.1);
    for (const frame of writeFrames(
      universes.map((number, u) => ({ protocol: 0, number, data: desk.player.frame.subarray(u * 512, (u + 1) * 512) })),
    ))
      socket.send(frame);
    await new Promise((resolve) => setTimeout(resolve, 12));
  }
  const meantOf = (u: number) => [...desk.player.frame.subarray(u * 512, (u + 1) * 512)];
  // A busy machine takes its time; what has not come by then does not come.
  const isThere = (universe: number, u: number) =>
    got.get(universe)?.slots.join() === meantOf(u).join() &&
    [...(node.data("sacn", universe) ?? [])].join() === meantOf(u).join();
  for (const end = Date.now() + 5000; Date.now() < end && !universes.every(isThere);)
    await new Promise((resolve) => setTimeout(resolve, 50));
  for (const [u, universe] of universes.entries()) {
    const meant = meantOf(u);
    expect(got.get(universe)).toEqual({ slots: meant, priority: 120, source: "Bold Comet" });
    expect([...node.data("sacn", universe)!]).toEqual(meant);
  }
  expect(errors).toEqual([]);
  socket.close();
});
