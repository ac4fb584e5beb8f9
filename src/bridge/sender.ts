/**
 * Sends universes by Art-Net and sACN: at most 44 frames a second and on change, kept alive as the
 * standards ask, held or faded out when the browser is gone, ended properly. Time and socket are handed in.
 */
import { artDmx } from "@/core/dmx/artnet";
import { SACN_PORT, sacnData } from "@/core/dmx/sacn";
import { DISCOVERY_GROUP, DISCOVERY_MS, sacnDiscovery } from "@/core/dmx/sacnDiscovery";
import { destinationsOf, type Destination } from "@/core/dmx/wire";
import type { Output, Wire } from "@/core/show/schema";
import type { Intensity } from "./messages";

/** Milliseconds between two frames of a universe at 44 a second. */
const SHORTEST = 1000 / 44;
/** Both standards ask for a repeat after 800 to 1000 ms without change. */
const ALIVE_MS = 900;
/** E1.31, 6.6.1: unchanged data is sent three times before it is kept back. */
const REPEATS = 2;
/** E1.31, 6.2.6: a stream's end is told three times. */
const GOODBYES = 3;
const FADE_STEP_MS = 40;
/** So many universes may leave in one burst; a larger show is spread evenly over the frame. */
const BURST = 32;

interface Line {
  universe: number;
  output: Output;
  destinations: Destination[];
  /** As the browser gave it, and as it was sent. */
  live: Uint8Array;
  sent: Uint8Array;
  fed: boolean;
  waiting: boolean;
  /** Since when it waits, and whether it waited longer than two frames since it was last asked. */
  since: number;
  late: boolean;
  repeats: number;
  sequence: number;
  lastAt: number;
  packets: number;
}

export interface Sender {
  configure(
    outputs: Readonly<Record<string, Output>>,
    wire: Wire,
    intensity: Readonly<Record<string, Intensity>>,
    now: number,
  ): void;
  frame(universe: number, data: Uint8Array, now: number): void;
  /** The browser is gone; or it is back. */
  lost(now: number): void;
  back(now: number): void;
  /** Does what is due. Called every few milliseconds. */
  tick(now: number): void;
  /** Ends every stream. */
  stop(now: number): void;
  /** Packets of each universe since the last call, and whether any came later than it should. */
  counts(): { universe: number; packets: number; late: boolean }[];
}

/** @param send puts a packet on the wire. @param cid 16 bytes that name this sender. @param broadcastOf broadcast address of an interface. */
export function createSender(
  send: (packet: Uint8Array, to: Destination) => void,
  cid: Uint8Array,
  broadcastOf: (from: string) => string,
): Sender {
  const lines = new Map<number, Line>();
  /** The lines in turn, and whose turn it is. */
  let turn: Line[] = [];
  let first = 0;
  let tickedAt = 0;
  let wire: Wire = { source: "Bold Comet", from: "", lost: "hold" };
  let intensity: Readonly<Record<string, Intensity>> = {};
  let lostAt: number | null = null;
  /** What the fade leaves of intensity, and how it moves. */
  let dim = 1;
  let fadedAt = 0;
  let announcedAt = 0;

  function put(line: Line, now: number, terminated = false): void {
    const { output } = line;
    line.sequence = output.protocol === "artnet" ? (line.sequence % 255) + 1 : (line.sequence + 1) & 255;
    const packet =
      output.protocol === "artnet"
        ? artDmx(output.number, line.sequence, line.sent)
        : sacnData({
            universe: output.number,
            sequence: line.sequence,
            priority: output.priority,
            source: wire.source,
            cid,
            terminated,
            data: line.sent,
          });
    for (const to of line.destinations) send(packet, to);
    // Kept to its own pace, so that late ticks do not make it slower than 44 a second.
    line.lastAt = now - line.lastAt < 2 * SHORTEST ? line.lastAt + SHORTEST : now;
    if (line.waiting && now - line.since > 2 * SHORTEST) line.late = true;
    line.waiting = false;
    line.packets += 1;
  }

  /** Takes what is live, dimmed, to what is sent. */
  function take(line: Line): boolean {
    const before = line.sent;
    const next = new Uint8Array(line.live);
    const own = intensity[line.universe];
    if (dim < 1 && own) {
      for (const slot of own.single) next[slot - 1] = Math.round(next[slot - 1]! * dim);
      for (const slot of own.double) {
        const word = Math.round(((next[slot - 1]! << 8) | next[slot]!) * dim);
        next[slot - 1] = word >> 8;
        next[slot] = word & 255;
      }
    }
    line.sent = next;
    return next.some((v, i) => v !== before[i]);
  }

  function offer(line: Line, now: number): void {
    if (now - line.lastAt >= SHORTEST && turn.length <= BURST) {
      put(line, now);
      line.repeats = REPEATS;
    } else if (!line.waiting) {
      line.waiting = true;
      line.since = now;
    }
  }

  /** Does what is due for one universe; true where a packet left. */
  function serve(line: Line, now: number): boolean {
    if (!line.fed || now - line.lastAt < SHORTEST) return false;
    if (line.waiting) {
      put(line, now);
      line.repeats = REPEATS;
    } else if (line.repeats > 0 && line.output.protocol === "sacn") {
      line.repeats -= 1;
      put(line, now);
    } else if (now - line.lastAt >= ALIVE_MS) put(line, now);
    else return false;
    return true;
  }

  function goodbye(line: Line, now: number): void {
    if (!line.fed || line.output.protocol !== "sacn") return;
    for (let i = 0; i < GOODBYES; i++) put(line, now, true);
  }

  const sameOutput = (a: Output, b: Output) => JSON.stringify(a) === JSON.stringify(b);

  function fade(now: number): void {
    const gone = lostAt !== null && wire.lost !== "hold" ? (now - lostAt) / 1000 - wire.lost.after : -1;
    const over = wire.lost === "hold" ? 1 : Math.max(wire.lost.over, 0.001);
    const want =
      gone > 0
        ? Math.max(0, 1 - gone / over)
        : lostAt === null && dim < 1
          ? Math.min(1, dim + (now - fadedAt) / 1000 / Math.max(over, 1))
          : dim;
    if (want === dim || now - fadedAt < FADE_STEP_MS) return;
    dim = want;
    fadedAt = now;
    for (const line of lines.values()) if (line.fed && take(line)) offer(line, now);
  }

  /** Tells which universes come by sACN: to their group, or to the nodes that get them unicast. */
  function announce(now: number): void {
    if (now - announcedAt < DISCOVERY_MS) return;
    announcedAt = now;
    const sent = [...lines.values()].filter((line) => line.fed && line.output.protocol === "sacn");
    const hosts = new Set(
      sent.flatMap(({ output: { to } }) => (typeof to === "string" ? [DISCOVERY_GROUP] : to.unicast)),
    );
    if (sent.length === 0) return;
    for (const packet of sacnDiscovery(
      wire.source,
      cid,
      sent.map((line) => line.output.number),
    )) {
      for (const host of hosts) send(packet, { host, port: SACN_PORT, broadcast: false });
    }
  }

  return {
    configure(outputs, nextWire, nextIntensity, now) {
      wire = nextWire;
      intensity = nextIntensity;
      for (const line of [...lines.values()]) {
        const next = outputs[line.universe];
        if (next && sameOutput(next, line.output)) continue;
        goodbye(line, now);
        if (!next) lines.delete(line.universe);
      }
      for (const [key, output] of Object.entries(outputs)) {
        const universe = Number(key);
        const old = lines.get(universe);
        const destinations = destinationsOf(output, broadcastOf(wire.from));
        if (old && sameOutput(old.output, output)) old.destinations = destinations;
        else
          lines.set(universe, {
            universe,
            output,
            destinations,
            live: old?.live ?? new Uint8Array(512),
            sent: old?.sent ?? new Uint8Array(512),
            fed: old?.fed ?? false,
            waiting: old?.fed ?? false,
            since: now,
            late: false,
            repeats: 0,
            sequence: 0,
            lastAt: -Infinity,
            packets: 0,
          });
      }
      turn = [...lines.values()];
      first = 0;
    },
    frame(universe, data, now) {
      const line = lines.get(universe);
      if (!line) return;
      line.live.set(data);
      const changed = take(line) || !line.fed;
      line.fed = true;
      if (changed) offer(line, now);
    },
    lost(now) {
      lostAt ??= now;
    },
    back(now) {
      lostAt = null;
      fadedAt = now;
    },
    tick(now) {
      fade(now);
      announce(now);
      // What a frame's length allows since the last tick, so that a large show leaves evenly.
      let left =
        turn.length <= BURST
          ? turn.length
          : Math.ceil((turn.length * Math.min(now - tickedAt, SHORTEST)) / SHORTEST) + 1;
      tickedAt = now;
      for (let i = 0; i < turn.length && left > 0; i++) {
        const at = (first + i) % turn.length;
        if (!serve(turn[at]!, now)) continue;
        left -= 1;
        if (left === 0) first = at + 1;
      }
    },
    stop(now) {
      for (const line of lines.values()) goodbye(line, now);
      lines.clear();
      turn = [];
    },
    counts: () =>
      [...lines.values()].map((line) => {
        const made = { universe: line.universe, packets: line.packets, late: line.late };
        line.packets = 0;
        line.late = false;
        return made;
      }),
  };
}
