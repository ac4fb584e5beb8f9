/** Art-Net 4 packets (Artistic Licence, "Art-Net 4 Protocol Release", packet definitions of ArtPoll, ArtPollReply and ArtDmx). */

export const ARTNET_PORT = 0x1936;
const ID = [0x41, 0x72, 0x74, 0x2d, 0x4e, 0x65, 0x74, 0x00];
const OP_POLL = 0x2000;
const OP_POLL_REPLY = 0x2100;
const OP_DMX = 0x5000;
const VERSION = 14;
const HEADER = 18;

function start(length: number, op: number): Uint8Array {
  const packet = new Uint8Array(length);
  packet.set(ID, 0);
  packet[8] = op & 255;
  packet[9] = op >> 8;
  return packet;
}

/**
 * An ArtDmx packet.
 * @param number port-address, 0..32767.
 * @param sequence 1..255 (0 switches ordering off).
 * @param data 2..512 slots; an odd count is filled up with a 0, as the standard asks for even ones.
 */
export function artDmx(number: number, sequence: number, data: Uint8Array): Uint8Array {
  const length = Math.max(2, data.length + (data.length % 2));
  const packet = start(HEADER + length, OP_DMX);
  packet[11] = VERSION;
  packet[12] = sequence;
  packet[14] = number & 255;
  packet[15] = (number >> 8) & 127;
  packet[16] = length >> 8;
  packet[17] = length & 255;
  packet.set(data, HEADER);
  return packet;
}

/** An ArtPoll: asks nodes to tell of themselves once. */
export function artPoll(): Uint8Array {
  const packet = start(14, OP_POLL);
  packet[11] = VERSION;
  return packet;
}

export interface ArtNode {
  ip: string;
  short: string;
  long: string;
  /** Port-addresses it puts out. */
  ports: number[];
}

const REPLY = 239;
const LATIN = (text: string, length: number): number[] =>
  Array.from({ length }, (_, i) => (i < length - 1 && i < text.length ? text.charCodeAt(i) & 127 : 0));

/** An ArtPollReply of a node with up to four outputs that share a net and sub-net. */
export function artPollReply({ ip, short, long, ports }: ArtNode): Uint8Array {
  const packet = start(REPLY, OP_POLL_REPLY);
  const first = ports[0] ?? 0;
  packet.set(ip.split(".").map(Number), 10);
  packet[14] = ARTNET_PORT & 255;
  packet[15] = ARTNET_PORT >> 8;
  packet[18] = first >> 8;
  packet[19] = (first >> 4) & 15;
  packet[23] = 0xd0;
  packet.set(LATIN(short, 18), 26);
  packet.set(LATIN(long, 64), 44);
  packet.set(LATIN("#0001 [0000] ready", 64), 108);
  packet[173] = Math.min(4, ports.length);
  ports.slice(0, 4).forEach((port, i) => {
    packet[174 + i] = 0x80;
    packet[182 + i] = 0x80;
    packet[190 + i] = port & 15;
  });
  packet.set(ip.split(".").map(Number), 207);
  packet[211] = 1;
  packet[212] = 8;
  return packet;
}

export type ArtPacket =
  | { kind: "dmx"; number: number; sequence: number; data: Uint8Array }
  | { kind: "poll" }
  | { kind: "reply"; node: ArtNode };

const text = (bytes: Uint8Array): string =>
  String.fromCharCode(...bytes)
    .replace(/\0[\s\S]*$/, "")
    .replace(/[^\x20-\x7e]/g, "?");

/** Reads an Art-Net packet; undefined for anything malformed or of another kind. */
export function readArtNet(bytes: Uint8Array): ArtPacket | undefined {
  if (bytes.length < 12 || ID.some((b, i) => bytes[i] !== b)) return undefined;
  const op = bytes[8]! | (bytes[9]! << 8);
  if (op === OP_POLL && bytes.length >= 14) return { kind: "poll" };
  if (op === OP_DMX && bytes.length >= HEADER + 2) {
    const length = (bytes[16]! << 8) | bytes[17]!;
    if (length < 2 || length > 512 || bytes.length < HEADER + length || (bytes[15]! & 128) !== 0) return undefined;
    return {
      kind: "dmx",
      number: bytes[14]! | (bytes[15]! << 8),
      sequence: bytes[12]!,
      data: bytes.slice(HEADER, HEADER + length),
    };
  }
  if (op === OP_POLL_REPLY && bytes.length >= 207) {
    const base = ((bytes[18]! & 127) << 8) | ((bytes[19]! & 15) << 4);
    const count = Math.min(4, bytes[173]!);
    const ports = Array.from({ length: count }, (_, i) => i)
      .filter((i) => bytes[174 + i]! & 0x80)
      .map((i) => base | (bytes[190 + i]! & 15));
    return {
      kind: "reply",
      node: {
        ip: [...bytes.subarray(10, 14)].join("."),
        short: text(bytes.subarray(26, 44)),
        long: text(bytes.subarray(44, 108)),
        ports,
      },
    };
  }
  return undefined;
}
