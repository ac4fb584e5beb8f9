/**
 * What may leave the machine without being asked for. Outputs that a file brought, and places outside the
 * networks this machine is on, broadcast and multicast wait until a person has agreed to them.
 */
import type { Output, Show } from "../show/schema";

export interface Network {
  address: string;
  netmask: string;
}

export interface Consent {
  /** Whether the show came from a file: then all its outputs wait. */
  imported: boolean;
  /** Destinations agreed to, as `destinationNames` writes them. */
  given: readonly string[];
}

/** Of a show made here: it sends to the networks this machine is on. */
export const OWN: Consent = { imported: false, given: [] };
/** Of a show of which nobody has said anything: its outputs wait. */
export const WAITING: Consent = { imported: true, given: [] };

/** Where an output goes, as it is agreed to: "artnet 10.0.0.5", "sacn multicast". */
export const destinationNames = ({ protocol, to }: Pick<Output, "protocol" | "to">): string[] =>
  typeof to === "string" ? [`${protocol} ${to}`] : to.unicast.map((host) => `${protocol} ${host}`);

const bits = (address: string): number => address.split(".").reduce((all, part) => all * 256 + Number(part), 0);

/** Whether an address lies in one of the networks a machine is on, loopback included. */
export function isNear(host: string, networks: readonly Network[]): boolean {
  if (/^127\./.test(host)) return true;
  return networks.some(({ address, netmask }) => {
    const size = 2 ** 32 - bits(netmask);
    return Math.floor(bits(host) / size) === Math.floor(bits(address) / size);
  });
}

/** The destinations of an output that nobody has agreed to yet. */
export function unagreed(
  output: Pick<Output, "protocol" | "to">,
  { imported, given }: Consent,
  networks: readonly Network[],
): string[] {
  return destinationNames(output).filter(
    (name) => !given.includes(name) && (imported || !isNear(name.split(" ")[1]!, networks)),
  );
}

/** The outputs that may leave, and the destinations that wait. An output of which one destination waits, waits whole. */
export function agreed(
  outputs: Show["outputs"],
  consent: Consent,
  networks: readonly Network[],
): { allowed: Show["outputs"]; waiting: string[] } {
  const waiting = new Set<string>();
  const allowed = Object.fromEntries(
    Object.entries(outputs).filter(([, output]) => {
      const left = unagreed(output, consent, networks);
      for (const name of left) waiting.add(name);
      return left.length === 0;
    }),
  );
  return { allowed, waiting: [...waiting].sort() };
}
