/** Open Sound Control on this machine alone: what comes in is checked and bounded, what goes out goes to this machine. */
import { createSocket, type Socket } from "node:dgram";
import { fromBuffer, toBuffer, type OscPacketOutput } from "osc-min";
import type { OscMessage } from "./messages";

/** The port that is listened on unless another is told. */
export const OSC_PORT = 53_010;
const LOOPBACK = "127.0.0.1";
const MOST_BYTES = 2048;
/** The most messages of a bundle, bundles in it included, and how deep they lie. */
const MOST_MESSAGES = 64;
const DEEPEST = 4;
/** Messages taken in a second. */
const MOST_A_SECOND = 2000;
const ADDRESS = /^\/[!-~]{1,100}$/;

/** The messages of a packet with a number, or none: that counts as 1. Undefined where it is no OSC. */
export function readOsc(bytes: Uint8Array): OscMessage[] | undefined {
  if (bytes.length > MOST_BYTES) return undefined;
  const found: OscMessage[] = [];
  const add = (packet: OscPacketOutput, depth: number): void => {
    if (found.length >= MOST_MESSAGES || depth > DEEPEST) return;
    if (packet.oscType === "bundle") {
      for (const element of packet.elements) add(element, depth + 1);
      return;
    }
    const [first] = packet.args;
    const value = first === undefined ? 1 : first.type === "true" ? 1 : first.type === "false" ? 0 : first.value;
    if (ADDRESS.test(packet.address) && typeof value === "number" && Number.isFinite(value))
      found.push({ address: packet.address, value: Math.max(-1e6, Math.min(1e6, value)) });
  };
  try {
    add(fromBuffer(bytes), 0);
  } catch {
    return undefined;
  }
  return found;
}

export interface Osc {
  /** Listens or not: nothing is bound while nobody wants it. */
  listen(on: boolean): void;
  /** The port that is listened on, or why none is. */
  at(): number | "off" | "taken";
  send(port: number, message: OscMessage): void;
  close(): void;
}

/** @param port 0 for any. @param heard is told every message that is one. @param changed when it listens, or does not. */
export function openOsc(
  port: number,
  heard: (message: OscMessage) => void,
  changed: () => void = () => undefined,
): Osc {
  let out: Socket | undefined;
  let ear: Socket | undefined;
  let at: ReturnType<Osc["at"]> = "off";
  let closed = false;
  const end = () => {
    ear?.close();
    ear = undefined;
    at = "off";
  };
  function open(): void {
    const socket = createSocket("udp4");
    ear = socket;
    let [second, count] = [0, 0];
    socket.on("message", (bytes) => {
      const now = Math.floor(performance.now() / 1000);
      if (now !== second) [second, count] = [now, 0];
      for (const message of readOsc(bytes) ?? []) {
        count += 1;
        if (count <= MOST_A_SECOND) heard(message);
      }
    });
    socket.on("error", () => {
      if (ear !== socket) return;
      end();
      at = "taken";
      changed();
    });
    socket.bind(port, LOOPBACK, () => {
      if (ear !== socket) return;
      at = socket.address().port;
      changed();
    });
  }
  return {
    listen(on) {
      if (closed || (on ? ear !== undefined : at === "off" && !ear)) return;
      end();
      if (on) return open();
      changed();
    },
    at: () => at,
    send(to, { address, value }) {
      if (!ADDRESS.test(address)) return;
      out ??= createSocket("udp4").on("error", () => undefined);
      const packet = toBuffer({ address, args: [{ type: "float", value }] });
      out.send(new Uint8Array(packet.buffer, packet.byteOffset, packet.byteLength), to, LOOPBACK, () => undefined);
    },
    close() {
      closed = true;
      end();
      out?.close();
    },
  };
}
