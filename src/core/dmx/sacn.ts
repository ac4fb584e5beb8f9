/** sACN data packets (ANSI E1.31-2018, tables 4-1, 5-1 to 6-2 and 7-1). */

export const SACN_PORT = 5568;
const HEADER = 126;
const ACN_ID = [0x41, 0x53, 0x43, 0x2d, 0x45, 0x31, 0x2e, 0x31, 0x37, 0x00, 0x00, 0x00];
/** Bit 6 of the options: this stream ends. */
const TERMINATED = 0x40;

export interface SacnFrame {
  universe: number;
  sequence: number;
  priority: number;
  source: string;
  /** 16 bytes that name the sender. */
  cid: Uint8Array;
  terminated: boolean;
  data: Uint8Array;
}

/** The multicast group of a universe (E1.31, 9.3.1). */
export const sacnGroup = (universe: number): string => `239.255.${universe >> 8}.${universe & 255}`;

/** A number as 2 bytes, the higher first (E1.31 is big endian). @param value 0..65535. */
export const u16 = (packet: Uint8Array, at: number, value: number): void => {
  packet[at] = value >> 8;
  packet[at + 1] = value & 255;
};
/** A number as 4 bytes, the higher first. @param value 0..2^32 - 1. */
export const u32 = (packet: Uint8Array, at: number, value: number): void => {
  u16(packet, at, value >>> 16);
  u16(packet, at + 2, value & 65_535);
};

/** A packet with the root and framing layers that all E1.31 packets share; @param size of the whole. */
export function acnPacket(
  size: number,
  rootVector: number,
  framingVector: number,
  cid: Uint8Array,
  source: string,
): { packet: Uint8Array; lengthFrom(at: number): number } {
  const packet = new Uint8Array(size);
  const lengthFrom = (at: number) => 0x7000 | (size - at);
  u16(packet, 0, 0x0010);
  packet.set(ACN_ID, 4);
  u16(packet, 16, lengthFrom(16));
  u32(packet, 18, rootVector);
  packet.set(cid.subarray(0, 16), 22);
  u16(packet, 38, lengthFrom(38));
  u32(packet, 40, framingVector);
  packet.set(new TextEncoder().encode(source).subarray(0, 63), 44);
  return { packet, lengthFrom };
}

/** Whether a packet begins with the layers of `acnPacket`, with these vectors. */
export const isAcn = (bytes: Uint8Array, rootVector: number, framingVector: number): boolean =>
  read16(bytes, 0) === 0x0010 &&
  ACN_ID.every((b, i) => bytes[4 + i] === b) &&
  read32(bytes, 18) === rootVector &&
  read32(bytes, 40) === framingVector;

/** An E1.31 data packet. @param frame data of 1..512 slots; priority 0..200; source at most 63 bytes of UTF-8. */
export function sacnData({ universe, sequence, priority, source, cid, terminated, data }: SacnFrame): Uint8Array {
  const { packet, lengthFrom } = acnPacket(HEADER + data.length, 4, 2, cid, source);
  packet[108] = priority;
  packet[111] = sequence;
  packet[112] = terminated ? TERMINATED : 0;
  u16(packet, 113, universe);
  u16(packet, 115, lengthFrom(115));
  packet[117] = 0x02;
  packet[118] = 0xa1;
  u16(packet, 121, 1);
  u16(packet, 123, data.length + 1);
  packet.set(data, HEADER);
  return packet;
}

/** The 2 bytes at a place as a number, the higher first. */
export const read16 = (bytes: Uint8Array, at: number): number => (bytes[at]! << 8) | bytes[at + 1]!;
/** The 4 bytes at a place as a number, the higher first. */
export const read32 = (bytes: Uint8Array, at: number): number => read16(bytes, at) * 65_536 + read16(bytes, at + 2);

/** The source name, at the same place in every E1.31 packet. */
export function readSource(bytes: Uint8Array): string {
  const end = bytes.indexOf(0, 44);
  return new TextDecoder().decode(bytes.subarray(44, end < 0 || end > 107 ? 107 : end));
}

/** Reads an E1.31 data packet; undefined for anything malformed, of another kind, or with another start code. */
export function readSacn(bytes: Uint8Array): SacnFrame | undefined {
  if (bytes.length < HEADER || !isAcn(bytes, 4, 2) || bytes[117] !== 2 || bytes[118] !== 0xa1) return undefined;
  const count = read16(bytes, 123) - 1;
  const universe = read16(bytes, 113);
  const priority = bytes[108]!;
  if (
    count < 0 ||
    count > 512 ||
    bytes.length < HEADER + count ||
    bytes[125] !== 0 ||
    universe < 1 ||
    universe > 63_999 ||
    priority > 200
  )
    return undefined;
  return {
    universe,
    priority,
    sequence: bytes[111]!,
    terminated: (bytes[112]! & TERMINATED) !== 0,
    cid: bytes.slice(22, 38),
    source: readSource(bytes),
    data: bytes.slice(HEADER, HEADER + count),
  };
}
