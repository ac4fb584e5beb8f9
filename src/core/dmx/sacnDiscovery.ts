/** sACN universe discovery: what a source sends, told every ten seconds (ANSI E1.31-2018, 4.3, 8 and tables 4-3, 8-9). */
import { acnPacket, isAcn, read16, read32, readSource, sacnGroup, u16, u32 } from "./sacn";

/** E131_UNIVERSE_DISCOVERY_INTERVAL, milliseconds. */
export const DISCOVERY_MS = 10_000;
/** The group that discovery packets go to: that of universe 64214. */
export const DISCOVERY_GROUP = sacnGroup(64_214);

const HEADER = 120;
const ON_A_PAGE = 512;

export interface Discovery {
  source: string;
  /** 16 bytes that name the sender. */
  cid: Uint8Array;
  page: number;
  lastPage: number;
  /** In rising order. */
  universes: number[];
}

/** The discovery packets of a source, 512 universes on each; one empty page for none. @param universes 1..63999, in any order. */
export function sacnDiscovery(source: string, cid: Uint8Array, universes: readonly number[]): Uint8Array[] {
  const sorted = [...new Set(universes)].sort((a, b) => a - b);
  const pages = Math.max(1, Math.ceil(sorted.length / ON_A_PAGE));
  return Array.from({ length: pages }, (_, page) => {
    const own = sorted.slice(page * ON_A_PAGE, (page + 1) * ON_A_PAGE);
    const { packet, lengthFrom } = acnPacket(HEADER + own.length * 2, 8, 2, cid, source);
    u16(packet, 112, lengthFrom(112));
    u32(packet, 114, 0x00000001);
    packet[118] = page;
    packet[119] = pages - 1;
    own.forEach((universe, i) => u16(packet, HEADER + i * 2, universe));
    return packet;
  });
}

/** Reads a discovery packet; undefined for anything malformed or of another kind. */
export function readSacnDiscovery(bytes: Uint8Array): Discovery | undefined {
  if (bytes.length < HEADER || (bytes.length - HEADER) % 2 !== 0 || bytes.length > HEADER + ON_A_PAGE * 2)
    return undefined;
  if (!isAcn(bytes, 8, 2) || read32(bytes, 114) !== 1 || (read16(bytes, 112) & 0xfff) !== bytes.length - 112)
    return undefined;
  const universes = Array.from({ length: (bytes.length - HEADER) / 2 }, (_, i) => read16(bytes, HEADER + i * 2));
  return { source: readSource(bytes), cid: bytes.slice(22, 38), page: bytes[118]!, lastPage: bytes[119]!, universes };
}
