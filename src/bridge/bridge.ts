/** The bridge: frames from the browser's engine go out by UDP. */
import { randomBytes } from "node:crypto";
import { createSocket, type Socket } from "node:dgram";
import { networkInterfaces } from "node:os";
import type { WebSocket } from "ws";
import { ARTNET_PORT, artPoll, readArtNet, type ArtNode } from "@/core/dmx/artnet";
import { MOST_FRAME_BYTES, readFrame } from "@/core/dmx/wireFrame";
import type { Output } from "@/core/show/schema";
import { createRates } from "@/server/rates";
import { cutOff, guardedServer, type Guard } from "@/server/guarded";
import { ToBridgeSchema, type FromBridge } from "./messages";
import { createSender } from "./sender";

const TICK_MS = 5;
const STATE_MS = 500;
const NODE_FORGOTTEN_MS = 10_000;

export interface Bridge {
  port: number;
  stop(): Promise<void>;
}

const ipv4 = () => Object.entries(networkInterfaces()).flatMap(([name, all]) => (all ?? []).filter((i) => i.family === "IPv4").map((i) => ({ name, address: i.address, netmask: i.netmask })));

/** The broadcast address of an interface: its address with all host bits set. */
export function broadcastOf(from: string, all = ipv4()): string {
  const own = all.find((i) => i.address === from);
  if (!own) return "255.255.255.255";
  const mask = own.netmask.split(".").map(Number);
  return own.address.split(".").map((part, i) => (Number(part) | (~mask[i]! & 255))).join(".");
}

export async function startBridge(guard: Pick<Guard, "origins" | "token" | "host">): Promise<Bridge> {
  let socket: Socket | undefined;
  let boundTo: string | undefined;
  let trouble: string | null = null;
  let client: WebSocket | undefined;
  let polled: string[] = [];
  const rates = createRates(STATE_MS);
  const nodes = new Map<string, { node: ArtNode; at: number }>();
  const now = () => performance.now();

  const sender = createSender((packet, to) => {
    socket?.send(packet, to.port, to.host, (error) => {
      if (error) trouble = `cannot send to ${to.host}: ${(error as NodeJS.ErrnoException).code ?? error.message}`;
    });
  }, randomBytes(16), broadcastOf);

  /** Sends from an interface; empty for the machine's choice. */
  function sendFrom(from: string): void {
    if (boundTo === from && socket) return;
    socket?.close();
    boundTo = from;
    const made = createSocket({ type: "udp4", reuseAddr: true });
    socket = made;
    made.on("error", (error: NodeJS.ErrnoException) => {
      trouble = `cannot send from ${from || "this machine"}: ${error.code ?? error.message}`;
      if (socket === made) socket = undefined;
      made.close();
    });
    made.on("message", (bytes, { address }) => {
      const packet = readArtNet(bytes);
      if (packet?.kind === "reply") nodes.set(address, { node: { ...packet.node, ip: address }, at: now() });
    });
    made.bind(0, from || undefined, () => {
      made.setBroadcast(true);
      if (from) made.setMulticastInterface(from);
    });
  }

  function poll(): void {
    for (const host of polled) socket?.send(artPoll(), ARTNET_PORT, host, () => undefined);
  }

  function state(): FromBridge {
    for (const [ip, { at }] of nodes) if (now() - at > NODE_FORGOTTEN_MS) nodes.delete(ip);
    return {
      kind: "state", trouble, nodes: [...nodes.values()].map((n) => n.node), interfaces: ipv4().map(({ name, address }) => ({ name, address })),
      sending: sender.counts().map(({ universe, packets }) => ({ universe, perSecond: rates.of(String(universe), packets) })),
    };
  }

  function hear(from: WebSocket, data: Buffer, binary: boolean): void {
    if (binary) {
      const universes = readFrame(new Uint8Array(data.buffer, data.byteOffset, data.length));
      if (!universes) return cutOff(from, "a frame that is not as it should be");
      for (const { number, data: slots } of universes) sender.frame(number, slots, now());
      return;
    }
    let said: unknown;
    try {
      said = JSON.parse(data.toString("utf8"));
    } catch {
      return cutOff(from, "a message that is no JSON");
    }
    const message = ToBridgeSchema.safeParse(said);
    if (!message.success) return cutOff(from, `a message that is not understood: ${message.error.issues[0]!.path.join(".")}`);
    if (message.data.kind === "poll") return poll();
    const { outputs, wire, intensity } = message.data;
    trouble = null;
    sendFrom(wire.from);
    polled = [...new Set(["127.0.0.1", ...Object.values(outputs as Record<string, Output>).flatMap((o) => (o.protocol !== "artnet" ? [] : typeof o.to === "string" ? [broadcastOf(wire.from)] : o.to.unicast))])];
    sender.configure(outputs, wire, intensity, now());
  }

  const server = await guardedServer({ ...guard, mostBytes: MOST_FRAME_BYTES, mostMessages: 400 }, (made) => {
    // One window hosts a show: the last one to come is it.
    if (client && client !== made) client.close(1000, "another window has taken over");
    client = made;
    sender.back(now());
    made.on("message", (data: Buffer, binary) => made === client && hear(made, data, binary));
    made.on("close", () => {
      if (client !== made) return;
      client = undefined;
      sender.lost(now());
    });
  });
  const ticks = setInterval(() => sender.tick(now()), TICK_MS);
  const states = setInterval(() => client?.readyState === 1 && client.send(JSON.stringify(state())), STATE_MS);

  return {
    port: server.port,
    async stop() {
      clearInterval(ticks);
      clearInterval(states);
      sender.stop(now());
      server.close();
      const last = socket;
      // What was handed to the socket goes out before it closes.
      if (last) await new Promise<void>((resolve) => setTimeout(() => last.close(() => resolve()), 50));
    },
  };
}
