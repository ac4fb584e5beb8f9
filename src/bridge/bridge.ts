/** The bridge: frames from the browser's engine go out by UDP. One show at a time holds the output. */
import { randomBytes } from "node:crypto";
import type { WebSocket } from "ws";
import { ARTNET_PORT, artPoll, readArtNet, type ArtNode } from "@/core/dmx/artnet";
import { destinationsOf } from "@/core/dmx/wire";
import { readFrame } from "@/core/dmx/wireFrame";
import type { Output, Wire } from "@/core/show/schema";
import { createRates } from "@/server/rates";
import { cutOff, guardedServer, type Guard } from "@/server/guarded";
import { createHold, type Claimant } from "./hold";
import { ToBridgeSchema, unpackIntensity, type FromBridge, type Intensity, type OutputsPart } from "./messages";
import { openOsc, OSC_PORT } from "./osc";
import { createSender } from "./sender";
import { broadcastOf, interfacesNow, openSending } from "./socket";

const TICK_MS = 2;
const STATE_MS = 500;
const NODE_FORGOTTEN_MS = 10_000;
/** A part of a configuration, or a frame, is smaller than this. */
const MOST_BYTES = 1024 * 1024;

export interface Bridge {
  port: number;
  stop(): Promise<void>;
}

interface Config {
  outputs: Record<string, Output>;
  wire: Wire;
  intensity: Record<string, Intensity>;
}

/** One window's engine. */
interface Client extends Claimant {
  socket: WebSocket;
  config: Config | undefined;
  parts: OutputsPart[];
  /** Whether a person has turned Open Sound Control on. */
  listens: boolean;
}

/** @param guard who may connect, and the port to listen on (0 for any). */
export async function startBridge(
  guard: Pick<Guard, "origins" | "token" | "host" | "port"> & { osc?: number },
): Promise<Bridge> {
  let trouble: string | null = null;
  let polled: string[] = [];
  const rates = createRates(STATE_MS);
  const nodes = new Map<string, { node: ArtNode; at: number }>();
  const now = () => performance.now();

  const sending = openSending(
    (bytes, from) => {
      const packet = readArtNet(bytes);
      if (packet?.kind === "reply" && nodes.size < 1000)
        nodes.set(from, { node: { ...packet.node, ip: from }, at: now() });
    },
    (text) => (trouble = text),
  );
  /** What comes by OSC is told to the show that holds the output, else to all. */
  const osc = openOsc(
    guard.osc ?? OSC_PORT,
    (message) => {
      const text = JSON.stringify({ kind: "osc", ...message });
      const holder = hold.holder();
      for (const client of holder ? [holder] : hold.claimants())
        if (client.listens && client.socket.readyState === 1) client.socket.send(text);
    },
    () => {
      for (const client of hold.claimants()) tell(client);
    },
  );
  const listen = () => osc.listen([...hold.claimants()].some((client) => client.listens));
  const sender = createSender((packet, to) => sending.send(packet, to), randomBytes(16), broadcastOf);

  const hold = createHold<Client>((holder, at) => {
    if (holder?.config) apply(holder.config, at);
    if (holder) sender.back(at);
    else sender.lost(at);
    for (const client of hold.claimants()) tell(client);
  });

  function apply({ outputs, wire, intensity }: Config, at: number): void {
    trouble = null;
    const broadcast = broadcastOf(wire.from);
    const hosts = Object.values(outputs).flatMap((o) => destinationsOf(o, broadcast).map((d) => d.host));
    sending.from(
      wire.from,
      hosts.every((host) => host.startsWith("127.")),
    );
    polled = [
      ...new Set([
        "127.0.0.1",
        ...Object.values(outputs).flatMap((o) =>
          o.protocol !== "artnet" ? [] : typeof o.to === "string" ? [broadcast] : o.to.unicast,
        ),
      ]),
    ];
    sender.configure(outputs, wire, intensity, at);
  }

  function tell(client: Client): void {
    if (client.socket.readyState !== 1) return;
    for (const [ip, { at }] of nodes) if (now() - at > NODE_FORGOTTEN_MS) nodes.delete(ip);
    const mine = hold.holder() === client;
    const said: FromBridge = {
      kind: "state",
      trouble: mine ? trouble : null,
      nodes: [...nodes.values()].map((n) => n.node),
      interfaces: interfacesNow(),
      mine,
      lost: client.lost,
      holder: hold.holder()?.name ?? null,
      osc: osc.at(),
      behind: mine ? behind : 0,
      sending: mine ? sent : [],
    };
    client.socket.send(JSON.stringify(said));
  }

  /** What the last half second brought, for everybody who is told. */
  let sent: FromBridge["sending"] = [];
  let behind = 0;

  /** Takes a part of a configuration; with the last one it counts. */
  function configure(client: Client, part: OutputsPart): void {
    if (part.part === 0) client.parts = [];
    if (part.part !== client.parts.length) return cutOff(client.socket, "parts of a configuration out of order");
    client.parts.push(part);
    if (client.parts.length < part.parts) return;
    client.config = {
      wire: part.wire,
      outputs: Object.assign({}, ...client.parts.map((p) => p.outputs)),
      intensity: Object.fromEntries(
        client.parts
          .flatMap((p) => Object.entries(p.intensity))
          .map(([universe, bits]) => [universe, unpackIntensity(bits)]),
      ),
    };
    client.parts = [];
    hold.want(client, Object.keys(client.config.outputs).length > 0, now());
    if (hold.holder() === client) apply(client.config, now());
    tell(client);
  }

  function hear(client: Client, data: Buffer, binary: boolean): void {
    if (binary) {
      const universes = readFrame(new Uint8Array(data.buffer, data.byteOffset, data.length));
      if (!universes) return cutOff(client.socket, "a frame that is not as it should be");
      if (hold.holder() === client) for (const { number, data: slots } of universes) sender.frame(number, slots, now());
      return;
    }
    let said: unknown;
    try {
      said = JSON.parse(data.toString("utf8"));
    } catch {
      return cutOff(client.socket, "a message that is no JSON");
    }
    const message = ToBridgeSchema.safeParse(said);
    if (!message.success)
      return cutOff(client.socket, `a message that is not understood: ${message.error.issues[0]!.path.join(".")}`);
    if (message.data.kind === "hello") Object.assign(client, { show: message.data.show, name: message.data.name });
    else if (message.data.kind === "outputs") configure(client, message.data);
    else if (message.data.kind === "listen") {
      client.listens = message.data.on;
      listen();
    } else if (message.data.kind === "osc") osc.send(message.data.port, message.data);
    else if (message.data.kind === "take") {
      if (client.config) hold.take(client, now());
    } else for (const host of polled) sending.send(artPoll(), { host, port: ARTNET_PORT, broadcast: false });
  }

  let count = 0;
  const server = await guardedServer({ ...guard, mostBytes: MOST_BYTES, mostMessages: 2000 }, (socket) => {
    const client: Client = {
      socket,
      show: `unnamed ${++count}`,
      name: "another show",
      wants: false,
      lost: false,
      heldAt: -Infinity,
      config: undefined,
      parts: [],
      listens: false,
    };
    hold.join(client);
    tell(client);
    socket.on("message", (data: Buffer, binary) => hear(client, data, binary));
    socket.on("close", () => {
      hold.leave(client, now());
      listen();
    });
  });
  const ticks = setInterval(() => {
    hold.tick(now());
    sender.tick(now());
  }, TICK_MS);
  const states = setInterval(() => {
    const counts = sender.counts();
    sent = counts.map(({ universe, packets }) => ({ universe, perSecond: rates.of(String(universe), packets) }));
    behind = counts.filter((line) => line.late).length;
    for (const client of hold.claimants()) tell(client);
  }, STATE_MS);

  return {
    port: server.port,
    async stop() {
      clearInterval(ticks);
      clearInterval(states);
      sender.stop(now());
      server.close();
      osc.close();
      await sending.close();
    },
  };
}
