/** Where a universe goes on the wire, and under which number. */
import type { Output } from "../show/schema";
import { ARTNET_PORT } from "./artnet";
import { SACN_PORT, sacnGroup } from "./sacn";

export interface Destination {
  host: string;
  port: number;
  /** Needs the socket's leave to broadcast. */
  broadcast: boolean;
}

/** The numbers a protocol has for universes: Art-Net's 15-bit port-address, sACN's universe (E1.31, 6.2.7). */
export const numberRange = (protocol: Output["protocol"]): [number, number] =>
  protocol === "artnet" ? [0, 32_767] : [1, 63_999];

/** The usual number of one of our universes, which count from 1. */
export const usualNumber = (protocol: Output["protocol"], universe: number): number =>
  protocol === "artnet" ? Math.min(universe - 1, 32_767) : universe;

/** Art-Net's three parts of a port-address: net 0..127, sub-net 0..15, universe 0..15. */
export const artnetParts = (number: number): { net: number; sub: number; universe: number } => ({
  net: number >> 8,
  sub: (number >> 4) & 15,
  universe: number & 15,
});

/** Both ways of counting, side by side. */
export function numberText({ protocol, number }: Pick<Output, "protocol" | "number">): string {
  if (protocol === "sacn") return `sACN ${number}`;
  const { net, sub, universe } = artnetParts(number);
  return `Art-Net ${number} (net ${net}, sub-net ${sub}, universe ${universe})`;
}

/**
 * Destinations of an output's packets.
 * @param broadcast the interface's own broadcast address, for Art-Net.
 */
export function destinationsOf({ protocol, to, number }: Output, broadcast = "255.255.255.255"): Destination[] {
  const port = protocol === "artnet" ? ARTNET_PORT : SACN_PORT;
  if (to === "broadcast") return [{ host: broadcast, port, broadcast: true }];
  // Art-Net has no groups of its own: what is asked for is broadcast.
  if (to === "multicast")
    return protocol === "sacn"
      ? [{ host: sacnGroup(number), port, broadcast: false }]
      : [{ host: broadcast, port, broadcast: true }];
  return to.unicast.map((host) => ({ host, port, broadcast: false }));
}

/** An output in words: protocol, number and where it goes. */
export function destinationText(output: Output): string {
  const to = typeof output.to === "string" ? output.to : output.to.unicast.join(" and ");
  return `${numberText(output)} to ${to}${output.protocol === "sacn" && output.priority !== 100 ? `, priority ${output.priority}` : ""}`;
}
