/** The UDP socket of the bridge. Whatever goes wrong is told; nothing is thrown. */
import { createSocket, type Socket } from "node:dgram";
import { networkInterfaces } from "node:os";
import type { Destination } from "@/core/dmx/wire";
import type { Interface } from "./messages";

export const interfacesNow = (): Interface[] =>
  Object.entries(networkInterfaces()).flatMap(([name, all]) =>
    (all ?? []).filter((i) => i.family === "IPv4").map((i) => ({ name, address: i.address, netmask: i.netmask })),
  );

/** The broadcast address of an interface: its address with all host bits set. */
export function broadcastOf(from: string, all = interfacesNow()): string {
  const own = all.find((i) => i.address === from);
  if (!own) return "255.255.255.255";
  const mask = own.netmask.split(".").map(Number);
  return own.address
    .split(".")
    .map((part, i) => Number(part) | (~mask[i]! & 255))
    .join(".");
}

export interface Sending {
  /** Sends from an interface; empty for the machine's choice. @param local whether all goes to this machine itself. */
  from(address: string, local: boolean): void;
  send(packet: Uint8Array, to: Destination): void;
  close(): Promise<void>;
}

const LOOPBACK = "127.0.0.1";
const reason = (error: unknown): string => (error as NodeJS.ErrnoException).code ?? (error as Error).message;

/** @param heard a packet that came back, such as a node's answer. @param trouble what went wrong, in words. */
export function openSending(
  heard: (bytes: Uint8Array, from: string) => void,
  trouble: (text: string) => void,
): Sending {
  let socket: Socket | undefined;
  let boundTo: string | undefined;

  function open(address: string): void {
    const made = createSocket({ type: "udp4", reuseAddr: true });
    const failed = (error: unknown) => {
      trouble(`cannot send from ${address || "this machine"}: ${reason(error)}`);
      if (socket === made) socket = undefined;
      try {
        made.close();
      } catch {
        // Closed already.
      }
    };
    socket = made;
    made.on("error", failed);
    made.on("message", (bytes, { address: sender }) => heard(bytes, sender));
    try {
      made.bind(0, address || undefined, () => {
        try {
          made.setBroadcast(true);
          if (address && address !== LOOPBACK) made.setMulticastInterface(address);
        } catch (error) {
          failed(error);
        }
      });
    } catch (error) {
      failed(error);
    }
  }

  return {
    from(address, local) {
      const own = interfacesNow().map((i) => i.address);
      if (address !== "" && !own.includes(address)) {
        trouble(
          `${address} is no address of this machine, so nothing is sent. Choose one of ${own.join(", ")}, under Rig, Outputs`,
        );
        const old = socket;
        socket = undefined;
        boundTo = undefined;
        old?.close();
        return;
      }
      // Nothing listens on the network where all goes to this machine.
      const wanted = address === "" && local ? LOOPBACK : address;
      if (boundTo === wanted && socket) return;
      const old = socket;
      socket = undefined;
      old?.close();
      boundTo = wanted;
      open(wanted);
    },
    send(packet, to) {
      try {
        socket?.send(
          packet,
          to.port,
          to.host,
          (error) => error && trouble(`cannot send to ${to.host}: ${reason(error)}`),
        );
      } catch (error) {
        trouble(`cannot send to ${to.host}: ${reason(error)}`);
      }
    },
    async close() {
      const last = socket;
      socket = undefined;
      // What was handed to the socket goes out before it closes.
      if (last) await new Promise<void>((resolve) => setTimeout(() => last.close(() => resolve()), 50));
    },
  };
}
