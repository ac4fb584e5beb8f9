/** Catches a bridge that sends wrong bytes, lets strangers in, or dies of what it hears. */
import { createSocket } from "node:dgram";
import { WebSocket } from "ws";
import { artDmx } from "@/core/dmx/artnet";
import { writeFrame, writeFrames } from "@/core/dmx/wireFrame";
import { newShow } from "@/core/show/world";
import { missing, startNode, type DmxNode } from "@/standin/node";
import { startBridge, type Bridge } from "./bridge";
import { packIntensity, unpackIntensity, type FromBridge } from "./messages";
import { broadcastOf } from "./socket";

const HOST = "127.0.0.77";
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

const connect = (port: number, origin = guard.origins[0]!, token = guard.token) =>
  new WebSocket(`ws://127.0.0.1:${port}/?token=${token}`, { origin });
const opened = (socket: WebSocket) =>
  new Promise<void>((resolve, reject) => socket.once("open", resolve).once("error", reject));
const closed = (socket: WebSocket) =>
  new Promise<{ code: number; why: string }>((resolve) =>
    socket.once("close", (code, why) => resolve({ code, why: String(why) })),
  );
const refused = (socket: WebSocket) =>
  new Promise<string>((resolve) =>
    socket.once("open", () => resolve("opened")).once("error", (e) => resolve(e.message)),
  );
const until = async (check: () => boolean, ms = 3000) => {
  for (const end = Date.now() + ms; Date.now() < end;) {
    if (check()) return;
    await new Promise((r) => setTimeout(r, 10));
  }
  throw new Error("it did not come");
};
const outputs = () =>
  JSON.stringify({
    kind: "outputs",
    part: 0,
    parts: 1,
    wire: newShow("x").wire,
    intensity: {},
    outputs: {
      1: { protocol: "artnet", to: { unicast: [HOST] }, number: 3, priority: 100 },
      2: { protocol: "sacn", to: { unicast: [HOST] }, number: 7, priority: 110 },
    },
  });
const hello = (show: string, name = show) => JSON.stringify({ kind: "hello", show, name });
const data = (...bytes: number[]) => Uint8Array.from([...bytes, ...new Array<number>(512 - bytes.length).fill(0)]);

test("frames arrive at the node by both protocols, and the node answers a poll", async () => {
  const socket = connect(bridge.port);
  await opened(socket);
  const states: { nodes: { ip: string }[]; trouble: string | null }[] = [];
  socket.on("message", (text) => states.push(JSON.parse(String(text))));
  socket.send(hello("demo"));
  socket.send(outputs());
  socket.send(
    writeFrame([
      { protocol: 0, number: 1, data: data(255, 9) },
      { protocol: 0, number: 2, data: data(1, 2, 3) },
      { protocol: 0, number: 3, data: data(5) },
    ]),
  );
  await until(() => node.data("artnet", 3)?.[0] === 255 && node.data("sacn", 7)?.[2] === 3);
  expect([...node.data("artnet", 3)!]).toEqual([...data(255, 9)]);
  expect(node.received().streams.map((s) => [s.protocol, s.number, s.source, s.priority])).toEqual(
    expect.arrayContaining([
      ["artnet", 3, "", 100],
      ["sacn", 7, "Bold Comet", 110],
    ]),
  );
  expect(node.data("artnet", 2)).toBeUndefined();
  socket.send(JSON.stringify({ kind: "poll" }));
  await until(() => states.some((s) => s.nodes.some((n) => n.ip === HOST)));
  expect(states.at(-1)!.trouble).toBeNull();
  socket.close();
  await closed(socket);
});

test("the last look stays on the wire when the browser is gone, and the next browser goes on", async () => {
  const before = node.received().streams.find((s) => s.number === 3)!.packets;
  await until(() => node.received().streams.find((s) => s.number === 3)!.packets > before);
  expect(node.data("artnet", 3)![0]).toBe(255);
  const socket = connect(bridge.port);
  await opened(socket);
  socket.send(hello("demo"));
  socket.send(outputs());
  socket.send(writeFrame([{ protocol: 0, number: 1, data: data(254, 9) }]));
  await until(() => node.data("artnet", 3)?.[0] === 254);
  expect(node.received().streams.reduce((lost, s) => lost + s.lost, 0)).toBe(0);
  socket.close();
  await closed(socket);
});

test("one show holds the output; another is told, takes it when asked to, and the first gets it back by itself", async () => {
  const [one, two] = [connect(bridge.port), connect(bridge.port)];
  const heard = new Map<WebSocket, FromBridge>();
  for (const socket of [one, two])
    socket.on("message", (text) => heard.set(socket, JSON.parse(String(text)) as FromBridge));
  await Promise.all([one, two].map(opened));
  one.send(hello("demo", "The Salt Lantern"));
  one.send(outputs());
  await until(() => heard.get(one)?.mine === true);
  two.send(hello("other", "Another show"));
  two.send(outputs());
  two.send(writeFrame([{ protocol: 0, number: 1, data: data(11) }]));
  await until(() => heard.get(two)?.holder === "The Salt Lantern");
  expect([heard.get(two)!.mine, heard.get(two)!.lost]).toEqual([false, false]);
  one.send(writeFrame([{ protocol: 0, number: 1, data: data(254, 9) }]));
  await new Promise((resolve) => setTimeout(resolve, 150));
  expect(node.data("artnet", 3)![0]).toBe(254);
  two.send(JSON.stringify({ kind: "take" }));
  await until(() => heard.get(two)!.mine && heard.get(one)!.lost);
  expect(heard.get(one)!.holder).toBe("Another show");
  two.send(writeFrame([{ protocol: 0, number: 1, data: data(12) }]));
  await until(() => node.data("artnet", 3)![0] === 12);
  two.close();
  await until(() => heard.get(one)!.mine && !heard.get(one)!.lost);
  one.send(writeFrame([{ protocol: 0, number: 1, data: data(254, 9) }]));
  await until(() => node.data("artnet", 3)![0] === 254);
  one.close();
  await closed(one);
});

test.each(["224.0.0.1", "255.255.255.255", "8.8.8.8", "0.0.0.0"])(
  "sending from %s, no address of this machine, is said, sends nothing, and ends nothing",
  async (from) => {
    const socket = connect(bridge.port);
    let said: FromBridge | undefined;
    socket.on("message", (text) => (said = JSON.parse(String(text)) as FromBridge));
    await opened(socket);
    socket.send(hello("demo"));
    socket.send(JSON.stringify({ ...JSON.parse(outputs()), wire: { ...newShow("x").wire, from } }));
    await until(() => said?.trouble?.includes(`${from} is no address of this machine`) === true);
    socket.send(writeFrame([{ protocol: 0, number: 1, data: data(77) }]));
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(node.data("artnet", 3)![0]).toBe(254);
    socket.send(outputs());
    socket.send(writeFrame([{ protocol: 0, number: 1, data: data(254, 9) }]));
    await until(() => said?.trouble === null && said.mine);
    socket.close();
    await closed(socket);
  },
);

test("1,024 universes come in parts, all of them leave, and none comes late for long", async () => {
  const socket = connect(bridge.port);
  let said: FromBridge | undefined;
  socket.on("message", (text) => (said = JSON.parse(String(text)) as FromBridge));
  await opened(socket);
  socket.send(hello("demo"));
  const all = Array.from({ length: 1024 }, (_, i) => i + 1);
  const full = packIntensity({ single: Array.from({ length: 512 }, (_, i) => i + 1), double: [] });
  for (let part = 0; part < 16; part++) {
    const own = all.slice(part * 64, (part + 1) * 64);
    socket.send(
      JSON.stringify({
        kind: "outputs",
        part,
        parts: 16,
        wire: newShow("x").wire,
        outputs: Object.fromEntries(
          own.map((u) => [u, { protocol: "artnet", to: { unicast: [HOST] }, number: 1000 + u, priority: 100 }]),
        ),
        intensity: Object.fromEntries(own.map((u) => [u, full])),
      }),
    );
  }
  for (const frame of writeFrames(all.map((number) => ({ protocol: 0, number, data: data(200, number & 255) }))))
    socket.send(frame);
  // A packet that a busy machine drops is sent again by the keep-alive.
  await until(
    () => said?.sending.length === 1024 && all.every((u) => node.data("artnet", 1000 + u)?.[1] === (u & 255)),
    12_000,
  );
  socket.send(outputs());
  socket.send(writeFrame([{ protocol: 0, number: 1, data: data(254, 9) }]));
  await until(() => node.data("artnet", 3)![0] === 254);
  socket.close();
  await closed(socket);
});

test("strangers are kept out: another origin, no token, a wrong one", async () => {
  for (const port of [bridge.port, node.port]) {
    expect(await refused(connect(port, "http://evil.example"))).toMatch(/403/);
    expect(await refused(connect(port, guard.origins[0], "x"))).toMatch(/403/);
    expect(await refused(new WebSocket(`ws://127.0.0.1:${port}/`))).toMatch(/403/);
  }
});

const nowhere = JSON.stringify({
  ...JSON.parse(outputs()),
  outputs: { 1: { protocol: "artnet", to: { unicast: ["nowhere"] }, number: 3, priority: 100 } },
});

test.each<[string, Uint8Array | string, RegExp]>([
  ["a frame cut off", writeFrame([{ protocol: 0, number: 1, data: data(1) }]).subarray(0, 300), /frame/],
  ["a frame of another version", Uint8Array.of(9, 9, 9, 9), /frame/],
  ["no JSON", "hello", /no JSON/],
  ["an unknown message", JSON.stringify({ kind: "launch" }), /not understood/],
  ["an output without sense", nowhere, /not understood/],
  ["an unknown field", JSON.stringify({ ...JSON.parse(outputs()), more: 1 }), /not understood/],
  ["too large a message", new Uint8Array(2_000_000), /^$/],
])("%s ends the connection and changes nothing", async (_, sent, why) => {
  const before = [...node.data("artnet", 3)!];
  const socket = connect(bridge.port);
  await opened(socket);
  const end = closed(socket);
  socket.send(sent);
  const { code, why: said } = await end;
  expect([1008, 1009]).toContain(code);
  expect(said).toMatch(why);
  expect([...node.data("artnet", 3)!]).toEqual(before);
});

test("a flood of messages is cut off", async () => {
  const socket = connect(bridge.port);
  await opened(socket);
  const end = closed(socket);
  // However slow the machine: all of it at one instant.
  jest.spyOn(performance, "now").mockReturnValue(performance.now());
  for (let i = 0; i < 2001; i++) socket.send(JSON.stringify({ kind: "poll" }));
  expect((await end).why).toMatch(/messages a second/);
  jest.restoreAllMocks();
});

test("malformed packets are counted by the node and do nothing else", async () => {
  const before = node.received().malformed;
  const socket = createSocket("udp4");
  const packets = [
    Buffer.from("hello"),
    Buffer.alloc(0),
    Buffer.from(artDmx(3, 1, data(99)).subarray(0, 100)),
    Buffer.alloc(9000, 65),
  ];
  for (const packet of packets) socket.send(packet, 6454, HOST);
  socket.send(Buffer.alloc(638), 5568, HOST);
  await until(() => node.received().malformed >= before + 5);
  socket.close();
  expect(node.data("artnet", 3)![0]).toBe(254);
});

test("losses are read from sequence numbers, round their ends too", () => {
  expect(missing("artnet", 1, 2)).toBe(0);
  expect(missing("artnet", 255, 1)).toBe(0);
  expect(missing("artnet", 254, 2)).toBe(2);
  expect(missing("sacn", 255, 0)).toBe(0);
  expect(missing("sacn", 10, 13)).toBe(2);
  expect(missing("sacn", 13, 12)).toBe(0);
});

test("slots of intensity travel as bits and arrive as they were", () => {
  for (const single of [[], [1], [512], [1, 2, 4, 5, 511, 512], Array.from({ length: 512 }, (_, i) => i + 1)])
    expect(unpackIntensity(packIntensity({ single, double: single.slice(1) }))).toEqual({
      single,
      double: single.slice(1),
    });
});

test("the broadcast address of an interface", () => {
  expect(broadcastOf("10.1.2.3", [{ name: "x", address: "10.1.2.3", netmask: "255.255.0.0" }])).toBe("10.1.255.255");
  expect(broadcastOf("", [])).toBe("255.255.255.255");
});
