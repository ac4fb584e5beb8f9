/** The engine's way to the bridge: changed universes, straight from the worker. */
import { FromBridgeSchema, type FromBridge, type Intensity, type ToBridge } from "@/bridge/messages";
import { writeFrame, type WireUniverse } from "@/core/dmx/wireFrame";
import { attributeInfo } from "@/core/fixture/attribute";
import type { Rig } from "@/core/play/rig";
import type { Show } from "@/core/show/schema";

const AGAIN_MS = 1000;
/** With this much not yet taken by the bridge, a frame is skipped: the next one has it all. */
const MOST_WAITING = 2 * 1024 * 1024;

export interface WireOut {
  /** The show's outputs or the rig have changed. */
  configure(show: Pick<Show, "outputs" | "wire">, rig: Rig): void;
  /** Sends what differs from what was sent last; the bridge keeps to 44 a second. @param bytes 512 for each of the rig's universes. */
  send(bytes: Uint8Array): void;
  poll(): void;
  /** Connects again where another window has taken the bridge over. */
  take(): void;
  close(): void;
}

/** Which slots of each universe carry intensity: Dimmers, and emitters that have none. */
export function intensityOf(rig: Rig): Record<string, Intensity> {
  const made: Record<string, Intensity> = {};
  for (const out of rig.outputs) {
    const isIntensity = attributeInfo(out.functions[0]!.attribute).name === "Dimmer" || out.dimmer >= 0 || rig.scaled[out.param] === 1;
    if (!isIntensity) continue;
    const own = (made[rig.universes[Math.floor(out.offset / 512)]!] ??= { single: [], double: [] });
    own[out.bytes === 2 ? "double" : "single"].push((out.offset % 512) + 1);
  }
  return made;
}

/** @param tell what the bridge says of itself; undefined when it cannot be reached. */
export function openWire(port: number, token: string, tell: (state: FromBridge | undefined) => void): WireOut {
  let socket: WebSocket | undefined;
  let closed = false;
  let config: ToBridge | undefined;
  let universes: readonly number[] = [];
  let wanted = new Set<number>();
  let sent = new Uint8Array(0);
  /** Nothing is on the bridge's side yet: all goes out. */
  let whole = true;

  const say = (message: ToBridge) => socket?.readyState === WebSocket.OPEN && socket.send(JSON.stringify(message));
  function connect(): void {
    if (closed) return;
    const made = new WebSocket(`ws://127.0.0.1:${port}/?token=${encodeURIComponent(token)}`);
    socket = made;
    made.addEventListener("open", () => {
      whole = true;
      if (config) say(config);
    });
    made.addEventListener("message", ({ data }: MessageEvent) => {
      const parsed = typeof data === "string" ? FromBridgeSchema.safeParse(readJson(data)) : undefined;
      if (parsed?.success) tell(parsed.data);
    });
    made.addEventListener("close", ({ code }) => {
      tell(undefined);
      // 1000: another window hosts the show now.
      if (!closed && code !== 1000) setTimeout(connect, AGAIN_MS);
    });
  }
  connect();

  return {
    configure({ outputs, wire }, rig) {
      universes = rig.universes;
      wanted = new Set(Object.keys(outputs).map(Number));
      const intensity = Object.fromEntries(Object.entries(intensityOf(rig)).filter(([universe]) => wanted.has(Number(universe))));
      const next: ToBridge = { kind: "outputs", outputs, wire, intensity };
      if (sent.length !== universes.length * 512) sent = new Uint8Array(universes.length * 512);
      whole = true;
      if (JSON.stringify(next) === JSON.stringify(config)) return;
      config = next;
      say(config);
    },
    send(bytes) {
      if (socket?.readyState !== WebSocket.OPEN || wanted.size === 0 || socket.bufferedAmount > MOST_WAITING) return;
      const changed: WireUniverse[] = [];
      for (let u = 0; u < universes.length; u++) {
        if (!wanted.has(universes[u]!) || !(whole || differs(bytes, sent, u * 512))) continue;
        const data = bytes.slice(u * 512, (u + 1) * 512);
        sent.set(data, u * 512);
        changed.push({ protocol: 0, number: universes[u]!, data });
      }
      whole = false;
      if (changed.length === 0) return;
      socket.send(writeFrame(changed));
    },
    take() {
      if (socket?.readyState === WebSocket.CLOSED) connect();
    },
    poll: () => void say({ kind: "poll" }),
    close() {
      closed = true;
      socket?.close(1000);
    },
  };
}

function differs(a: Uint8Array, b: Uint8Array, from: number): boolean {
  for (let i = from; i < from + 512; i++) if (a[i] !== b[i]) return true;
  return false;
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
