/** The engine's way to the bridge: changed universes, straight from the worker. */
import {
  FromBridgeSchema,
  packIntensity,
  UNIVERSES_A_PART,
  type FromBridge,
  type Intensity,
  type OutputsPart,
  type ToBridge,
  OscHeardSchema,
  type OscMessage,
} from "@/bridge/messages";
import { agreed, type Consent } from "@/core/dmx/consent";
import { writeFrames, type WireUniverse } from "@/core/dmx/wireFrame";
import { carriesLight, type Rig } from "@/core/play/stage/rig";
import type { Show } from "@/core/show/schema";

const AGAIN_MS = 500;
/** With this much not yet taken by the bridge, a frame is skipped: the next one has it all. */
const MOST_WAITING = 2 * 1024 * 1024;

export interface WireOut {
  /** The show's outputs or the rig have changed. */
  configure(show: Pick<Show, "outputs" | "wire" | "name">, rig: Rig): void;
  /** What people have agreed to. */
  agree(consent: Consent): void;
  /** Sends what differs from what was sent last; the bridge keeps to 44 a second. @param bytes 512 for each of the rig's universes. */
  send(bytes: Uint8Array): void;
  poll(): void;
  /** Open Sound Control to a port of this machine. */
  osc(port: number, message: OscMessage): void;
  /** Hears Open Sound Control from here on, or no longer. */
  listen(on: boolean): void;
  /** Takes the output from the show that holds it. */
  take(): void;
  /** Ends the silence it was opened with: says who it is and what may leave. */
  speak(): void;
  close(): void;
}

export interface WireTold {
  /** What the bridge says of itself; null when it cannot be reached. */
  bridge: FromBridge | null;
  /** Destinations nobody has agreed to yet. */
  waiting: string[];
}

/** Which slots of each universe carry intensity: Dimmers, and emitters that have none. */
export function intensityOf(rig: Rig): Record<string, Intensity> {
  const made: Record<string, { single: number[]; double: number[] }> = {};
  for (const out of rig.outputs) {
    if (!carriesLight(rig, out)) continue;
    const own = (made[rig.universes[Math.floor(out.offset / 512)]!] ??= { single: [], double: [] });
    own[out.bytes >= 2 ? "double" : "single"].push((out.offset % 512) + 1);
  }
  return made;
}

/** A configuration in as many messages as it takes. */
export function partsOf(
  { outputs, wire }: Pick<Show, "outputs" | "wire">,
  intensity: Readonly<Record<string, Intensity>>,
): OutputsPart[] {
  const entries = Object.entries(outputs);
  const parts = Math.max(1, Math.ceil(entries.length / UNIVERSES_A_PART));
  return Array.from({ length: parts }, (_, part) => {
    const own = entries.slice(part * UNIVERSES_A_PART, (part + 1) * UNIVERSES_A_PART);
    return {
      kind: "outputs",
      part,
      parts,
      wire,
      outputs: Object.fromEntries(own),
      intensity: Object.fromEntries(own.flatMap(([u]) => (intensity[u] ? [[u, packIntensity(intensity[u])]] : []))),
    };
  });
}

/**
 * @param show names this show in this browser. @param tell how the wire stands. @param silent whether it only
 * listens until told to speak, so that going on for another window needs no new connection.
 */
export function openWire(
  port: number,
  token: string,
  show: string,
  tell: (told: WireTold) => void,
  silent = false,
  heard: (message: OscMessage) => void = () => undefined,
): WireOut {
  let socket: WebSocket | undefined;
  let closed = false;
  let now:
    | { show: Pick<Show, "outputs" | "wire" | "name">; rig: Rig; intensity: Record<string, Intensity> }
    | undefined;
  /** Until it is known nothing leaves, and nothing is said to wait. */
  let consent: Consent | undefined;
  let bridge: FromBridge | null = null;
  let waiting: string[] = [];
  let last = "";
  let universes: readonly number[] = [];
  let wanted = new Set<number>();
  let sent = new Uint8Array(0);
  /** Nothing is on the bridge's side yet: all goes out. */
  let whole = true;
  /** It has spoken and not yet heard whether the output is its own: what comes after is sent, and taken where it is. */
  let asked = false;
  let listens = false;

  const say = (message: ToBridge) => socket?.readyState === WebSocket.OPEN && socket.send(JSON.stringify(message));

  /** Tells the bridge what may leave, where that has changed. */
  function settle(again = false): void {
    if (!now || !bridge || !consent || silent) return;
    const found = agreed(now.show.outputs, consent, bridge.interfaces);
    wanted = new Set(Object.keys(found.allowed).map(Number));
    const parts = partsOf({ outputs: found.allowed, wire: now.show.wire }, now.intensity);
    const text = JSON.stringify(parts);
    if (again || text !== last) {
      last = text;
      whole = true;
      say({ kind: "hello", show, name: now.show.name });
      for (const part of parts) say(part);
    }
    if (found.waiting.join() === waiting.join()) return;
    waiting = found.waiting;
    tell({ bridge, waiting });
  }

  function hear(said: FromBridge): void {
    const first = bridge === null;
    const networks = JSON.stringify(bridge?.interfaces);
    asked = false;
    // What was sent before it was ours went nowhere.
    if (said.mine && !bridge?.mine) whole = true;
    bridge = said;
    tell({ bridge, waiting });
    if (first && listens) say({ kind: "listen", on: true });
    if (first || networks !== JSON.stringify(said.interfaces)) settle(first);
  }

  function connect(): void {
    if (closed) return;
    const made = new WebSocket(`ws://127.0.0.1:${port}/?token=${encodeURIComponent(token)}`);
    socket = made;
    made.addEventListener("message", ({ data }: MessageEvent) => {
      const json = typeof data === "string" ? readJson(data) : undefined;
      const osc = OscHeardSchema.safeParse(json);
      if (osc.success) return made === socket && !silent ? heard(osc.data) : undefined;
      const parsed = FromBridgeSchema.safeParse(json);
      if (parsed.success && made === socket) hear(parsed.data);
    });
    made.addEventListener("close", () => {
      if (made !== socket) return;
      bridge = null;
      tell({ bridge, waiting });
      if (!closed) setTimeout(connect, AGAIN_MS);
    });
  }
  connect();

  return {
    configure(next, rig) {
      universes = rig.universes;
      now = { show: next, rig, intensity: intensityOf(rig) };
      if (sent.length !== universes.length * 512) sent = new Uint8Array(universes.length * 512);
      whole = true;
      settle();
    },
    agree(next) {
      consent = next;
      settle();
    },
    send(bytes) {
      if (
        socket?.readyState !== WebSocket.OPEN ||
        !(asked || bridge?.mine) ||
        wanted.size === 0 ||
        socket.bufferedAmount > MOST_WAITING
      )
        return;
      const changed: WireUniverse[] = [];
      for (let u = 0; u < universes.length; u++) {
        if (!wanted.has(universes[u]!) || !(whole || differs(bytes, sent, u * 512))) continue;
        const data = bytes.slice(u * 512, (u + 1) * 512);
        sent.set(data, u * 512);
        changed.push({ protocol: 0, number: universes[u]!, data });
      }
      whole = false;
      for (const frame of writeFrames(changed)) socket.send(frame);
    },
    take: () => void say({ kind: "take" }),
    speak() {
      silent = false;
      asked = bridge !== null;
      settle(true);
    },
    poll: () => void say({ kind: "poll" }),
    listen(on) {
      if (on !== listens && bridge) say({ kind: "listen", on });
      listens = on;
    },
    osc: (port, message) => void say({ kind: "osc", port, ...message }),
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
