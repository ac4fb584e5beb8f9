/**
 * Universes as one binary message, between the engine, the bridge and the stand-in node:
 * version 1, a zero, the count (16 bits), then for each universe its protocol (0 none, 1 Art-Net,
 * 2 sACN), a zero, its number (16 bits, high byte first) and 512 bytes.
 */
export const FRAME_VERSION = 1;
const HEAD = 4;
const ENTRY = 4 + 512;
/** Universes in one message; more of them take several. */
export const MOST_UNIVERSES = 256;

export interface WireUniverse {
  protocol: 0 | 1 | 2;
  number: number;
  /** 512 slots. */
  data: Uint8Array;
}

/** Universes as one message for the bridge: 512 bytes each. */
export function writeFrame(universes: readonly WireUniverse[]): Uint8Array<ArrayBuffer> {
  const frame = new Uint8Array(HEAD + universes.length * ENTRY);
  frame[0] = FRAME_VERSION;
  frame[2] = universes.length >> 8;
  frame[3] = universes.length & 255;
  universes.forEach(({ protocol, number, data }, i) => {
    const at = HEAD + i * ENTRY;
    frame[at] = protocol;
    frame[at + 2] = number >> 8;
    frame[at + 3] = number & 255;
    frame.set(data.subarray(0, 512), at + 4);
  });
  return frame;
}

/** As many messages as the universes take. */
export const writeFrames = (universes: readonly WireUniverse[]): Uint8Array<ArrayBuffer>[] =>
  Array.from({ length: Math.ceil(universes.length / MOST_UNIVERSES) }, (_, i) =>
    writeFrame(universes.slice(i * MOST_UNIVERSES, (i + 1) * MOST_UNIVERSES)),
  );

/** Reads a message; undefined where a byte of it is not as it should be. */
export function readFrame(frame: Uint8Array): WireUniverse[] | undefined {
  if (frame.length < HEAD || frame[0] !== FRAME_VERSION || frame[1] !== 0) return undefined;
  const count = (frame[2]! << 8) | frame[3]!;
  if (count > MOST_UNIVERSES || frame.length !== HEAD + count * ENTRY) return undefined;
  const read: WireUniverse[] = [];
  for (let i = 0; i < count; i++) {
    const at = HEAD + i * ENTRY;
    const protocol = frame[at]!;
    if (protocol > 2 || frame[at + 1] !== 0) return undefined;
    read.push({
      protocol: protocol as 0 | 1 | 2,
      number: (frame[at + 2]! << 8) | frame[at + 3]!,
      data: frame.subarray(at + 4, at + ENTRY),
    });
  }
  return read;
}
