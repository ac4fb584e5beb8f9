/** Catches a stand-in node that counts, answers or loses otherwise than a real one, over real sockets. */
import { createSocket, type Socket } from "node:dgram";
import { artDmx, ARTNET_PORT, artPoll, readArtNet } from "@/core/dmx/artnet";
import { SACN_PORT, sacnData } from "@/core/dmx/sacn";
import { sacnDiscovery } from "@/core/dmx/sacnDiscovery";
import { missing, startNode, type DmxNode } from "./node";

const HOST = "127.0.0.41";
const cid = new Uint8Array(16).fill(5);
let node: DmxNode;
let socket: Socket;
beforeAll(async () => {
  node = await startNode({ origins: ["http://127.0.0.1:1"], token: "t" }, HOST);
  socket = createSocket("udp4");
  await new Promise<void>((resolve) => socket.bind(0, "127.0.0.42", resolve));
});
afterAll(() => {
  node.stop();
  socket.close();
});

const send = (packet: Uint8Array, port: number) =>
  new Promise<void>((resolve) => socket.send(packet, port, HOST, () => resolve()));
async function until(done: () => boolean): Promise<void> {
  for (let i = 0; i < 200 && !done(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(done()).toBe(true);
}
const sacn = (sequence: number, terminated = false) =>
  sacnData({
    universe: 6,
    sequence,
    priority: 120,
    source: "Test",
    cid,
    terminated,
    data: new Uint8Array(512).fill(sequence),
  });

test("what arrives is kept by protocol, number and sender, with what was lost on the way", async () => {
  await send(artDmx(3, 1, Uint8Array.of(9, 8)), ARTNET_PORT);
  for (const sequence of [254, 255, 0, 4]) await send(sacn(sequence), SACN_PORT);
  await until(() => node.received().streams.length === 2 && node.data("sacn", 6)?.[0] === 4);
  expect([...node.data("artnet", 3)!.subarray(0, 3)]).toEqual([9, 8, 0]);
  expect(node.received().streams.find((s) => s.protocol === "sacn")).toMatchObject({
    number: 6,
    from: "127.0.0.42",
    source: "Test",
    priority: 120,
    packets: 4,
    lost: 3,
    ended: false,
  });
  await send(sacn(5, true), SACN_PORT);
  await until(() => node.received().streams.some((s) => s.ended));
});

test("a poll is answered to whoever asked", async () => {
  const answer = new Promise<Buffer>((resolve) => socket.once("message", resolve));
  await send(artPoll(), ARTNET_PORT);
  expect(readArtNet(await answer)).toMatchObject({ kind: "reply", node: { ip: HOST, short: "Stand-in" } });
});

test("a source's list of universes is put together from its pages", async () => {
  const many = Array.from({ length: 700 }, (_, i) => i + 1);
  for (const page of sacnDiscovery("Test", cid, many)) await send(page, SACN_PORT);
  await until(() => node.received().announced[0]?.universes.length === 700);
  await send(sacnDiscovery("Test", cid, [6])[0]!, SACN_PORT);
  await until(() => node.received().announced[0]?.universes.join() === "6");
  expect(node.received().announced).toHaveLength(1);
});

test("noise is counted and changes nothing", async () => {
  const before = node.received();
  for (const noise of [
    new Uint8Array(0),
    new Uint8Array(9000).fill(255),
    sacn(1).subarray(0, 300),
    artDmx(1, 1, new Uint8Array(512)).subarray(0, 17),
  ]) {
    await send(noise, SACN_PORT);
    await send(noise, ARTNET_PORT);
  }
  await until(() => node.received().malformed === before.malformed + 8);
  expect(node.received().streams.map((s) => s.packets)).toEqual(before.streams.map((s) => s.packets));
});

test("a number that goes round, comes late or twice is no loss", () => {
  expect([
    missing("sacn", 255, 0),
    missing("artnet", 255, 1),
    missing("sacn", 3, 3),
    missing("sacn", 3, 2),
    missing("sacn", 3, 6),
  ]).toEqual([0, 0, 0, 0, 2]);
});
