/** A stand-in for a DMX node: listens for both protocols, answers polls, and shows the app what it received. */
import { createSocket, type Socket } from "node:dgram";
import type { WebSocket } from "ws";
import { createRates } from "@/server/rates";
import { guardedServer, type Guard } from "@/server/guarded";
import { ARTNET_PORT, artPollReply, readArtNet } from "@/core/dmx/artnet";
import { readSacn, SACN_PORT } from "@/core/dmx/sacn";
import { DISCOVERY_MS, readSacnDiscovery } from "@/core/dmx/sacnDiscovery";
import { writeFrames, type WireUniverse } from "@/core/dmx/wireFrame";
import type { Announced, Received, Stream } from "./messages";

const TELL_MS = 500;
const SHOW_MS = 1000 / 44;
/** More senders than this is an attack, not a show. */
const MOST_STREAMS = 2048;
const MOST_SOURCES = 64;
const FORGOTTEN_MS = 60_000;
/** A source that has not told of itself twice is gone (E1.31, 12.2). */
const SILENT_MS = 2 * DISCOVERY_MS;

interface Heard extends Omit<Stream, "perSecond" | "age"> {
  data: Uint8Array;
  sequence: number;
  at: number;
  recent: number;
  perSecond: number;
  shown: boolean;
}

export interface DmxNode {
  port: number;
  received(): Received;
  /** The slots last received of a universe. */
  data(protocol: Stream["protocol"], number: number): Uint8Array | undefined;
  stop(): void;
}

/** Packets missing between two sequence numbers; what comes late or twice counts as none. */
export function missing(protocol: Stream["protocol"], before: number, now: number): number {
  const around = protocol === "artnet" ? 255 : 256;
  const gap = (now - before + around) % around;
  return gap === 0 || gap > 20 ? 0 : gap - 1;
}

/** @param host where it listens for packets. */
export async function startNode(guard: Pick<Guard, "origins" | "token" | "port">, host: string): Promise<DmxNode> {
  const heard = new Map<string, Heard>();
  const sources = new Map<string, Announced & { at: number }>();
  const rates = createRates(TELL_MS);
  let malformed = 0;
  let trouble: string | null = null;
  const clients = new Set<WebSocket>();

  function hear(
    protocol: Stream["protocol"],
    number: number,
    from: string,
    more: { source: string; priority: number; sequence: number; ended: boolean; data: Uint8Array },
  ): void {
    const key = `${protocol} ${number} ${from}`;
    let stream = heard.get(key);
    if (!stream) {
      if (heard.size >= MOST_STREAMS) return;
      heard.set(
        key,
        (stream = {
          protocol,
          number,
          from,
          ...more,
          packets: 0,
          lost: 0,
          at: 0,
          recent: 0,
          perSecond: 0,
          shown: false,
          data: new Uint8Array(512),
        }),
      );
    } else if (more.sequence !== 0 || protocol === "sacn")
      stream.lost += missing(protocol, stream.sequence, more.sequence);
    const data = stream.data;
    data.set(more.data);
    Object.assign(stream, more, { data, at: performance.now(), shown: false });
    stream.packets += 1;
    stream.recent += 1;
  }

  function announced(bytes: Buffer, from: string): void {
    const list = readSacnDiscovery(bytes);
    if (!list) return void (malformed += 1);
    const key = `${from} ${list.source}`;
    if (!sources.has(key) && sources.size >= MOST_SOURCES) return;
    const before = list.page === 0 ? [] : (sources.get(key)?.universes ?? []);
    sources.set(key, {
      source: list.source,
      from,
      universes: [...before, ...list.universes].slice(0, MOST_STREAMS),
      at: performance.now(),
    });
  }

  function answer(socket: Socket, to: { address: string; port: number }): void {
    try {
      socket.send(
        artPollReply({ ip: host, short: "Stand-in", long: "Bold Comet stand-in node", ports: [0, 1, 2, 3] }),
        to.port,
        to.address,
        () => undefined,
      );
    } catch {
      // An address nothing can be sent to gets no answer.
    }
  }
  const onArtNet = (socket: Socket) => (bytes: Buffer, rinfo: { address: string; port: number }) => {
    const packet = readArtNet(bytes);
    if (!packet) malformed += 1;
    else if (packet.kind === "poll") answer(socket, rinfo);
    else if (packet.kind === "dmx")
      hear("artnet", packet.number, rinfo.address, {
        source: "",
        priority: 100,
        sequence: packet.sequence,
        ended: false,
        data: packet.data,
      });
  };
  const onSacn = () => (bytes: Buffer, rinfo: { address: string }) => {
    const packet = readSacn(bytes);
    if (!packet) announced(bytes, rinfo.address);
    else
      hear("sacn", packet.universe, rinfo.address, {
        source: packet.source,
        priority: packet.priority,
        sequence: packet.sequence,
        ended: packet.terminated,
        data: packet.data,
      });
  };
  const listen = (
    port: number,
    on: (socket: Socket) => (bytes: Buffer, rinfo: { address: string; port: number }) => void,
  ): Promise<Socket> =>
    new Promise((resolve) => {
      const socket = createSocket({ type: "udp4", recvBufferSize: 4 * 1024 * 1024 });
      socket.on("message", on(socket));
      socket.on("error", (error: NodeJS.ErrnoException) => {
        trouble =
          error.code === "EADDRINUSE"
            ? `port ${port} of ${host} is in use by another program, so nothing arrives here`
            : `cannot listen on ${host}:${port}: ${error.message}`;
        resolve(socket);
      });
      socket.bind(port, host, () => resolve(socket));
    });
  const sockets = [await listen(ARTNET_PORT, onArtNet), await listen(SACN_PORT, onSacn)];

  const received = (): Received => ({
    kind: "received",
    host,
    malformed,
    trouble,
    announced: [...sources.values()].map(({ source, from, universes }) => ({ source, from, universes })),
    streams: [...heard.values()].map(
      ({ protocol, number, from, source, priority, packets, lost, ended, at, perSecond }) => ({
        protocol,
        number,
        from,
        source,
        priority,
        packets,
        lost,
        ended,
        perSecond,
        age: Math.round(performance.now() - at),
      }),
    ),
  });
  const entry = ({ protocol, number, data }: Heard): WireUniverse => ({
    protocol: protocol === "artnet" ? 1 : 2,
    number,
    data,
  });
  const server = await guardedServer({ ...guard, host: "127.0.0.1", mostBytes: 1024, mostMessages: 50 }, (client) => {
    clients.add(client);
    client.on("close", () => clients.delete(client));
    for (const frame of writeFrames([...heard.values()].map(entry))) client.send(frame);
    client.send(JSON.stringify(received()));
  });
  const telling = setInterval(() => {
    for (const [key, stream] of heard) {
      stream.perSecond = rates.of(key, stream.recent);
      stream.recent = 0;
      if (performance.now() - stream.at > FORGOTTEN_MS) heard.delete(key);
    }
    for (const [key, { at }] of sources) if (performance.now() - at > SILENT_MS) sources.delete(key);
    const text = JSON.stringify(received());
    for (const client of clients) client.send(text);
  }, TELL_MS);
  const showing = setInterval(() => {
    const fresh = [...heard.values()].filter((s) => !s.shown);
    if (fresh.length === 0) return;
    for (const stream of fresh) stream.shown = true;
    if (clients.size === 0) return;
    const frames = writeFrames(fresh.map(entry));
    for (const client of clients)
      if (client.bufferedAmount < 4 * 1024 * 1024) for (const frame of frames) client.send(frame);
  }, SHOW_MS);

  return {
    port: server.port,
    received,
    data: (protocol, number) => [...heard.values()].find((s) => s.protocol === protocol && s.number === number)?.data,
    stop() {
      clearInterval(telling);
      clearInterval(showing);
      server.close();
      for (const socket of sockets) socket.close();
    },
  };
}
