/** The other end of the stand-in MIDI port: what a surface or a timecode source beside the app sends. */
import { FromBridgeSchema, OscHeardSchema, type FromBridge, type ToBridge } from "@/bridge/messages";
import { STAND_IN_PORT } from "./midi";
import { findWire } from "./wirePlaces";

export interface MidiOut {
  send(bytes: number[]): void;
  close(): void;
}

export function openMidiOut(): MidiOut {
  const channel = new BroadcastChannel(STAND_IN_PORT);
  return {
    send: (bytes) => channel.postMessage({ bytes }),
    close: () => (channel.postMessage({ gone: true }), channel.close()),
  };
}

export interface OscOut {
  send(address: string, value: number): void;
  close(): void;
}

/**
 * Reaches the bridge by its guarded socket and sends by OSC to the port it listens to.
 * @param tell is told in words how that stands.
 */
export async function openOscOut(tell: (text: string) => void): Promise<OscOut> {
  const places = await findWire();
  if (!places?.bridge) {
    tell("the bridge is not reached");
    return { send: () => undefined, close: () => undefined };
  }
  const socket = new WebSocket(`ws://127.0.0.1:${places.bridge}/?token=${encodeURIComponent(places.token)}`);
  let to: FromBridge["osc"] | undefined;
  socket.addEventListener("message", ({ data }: MessageEvent) => {
    let json: unknown;
    try {
      json = JSON.parse(String(data));
    } catch {
      return;
    }
    if (OscHeardSchema.safeParse(json).success) return;
    const state = FromBridgeSchema.safeParse(json);
    if (!state.success || state.data.osc === to) return;
    to = state.data.osc;
    tell(
      to === "off"
        ? "OSC is not heard: turn it on under Control surfaces"
        : to === "taken"
          ? "its OSC port is taken by another program"
          : `to UDP port ${to} of this machine`,
    );
  });
  socket.addEventListener("close", () => tell("the bridge is not reached"));
  return {
    send(address, value) {
      if (typeof to !== "number" || socket.readyState !== WebSocket.OPEN) return;
      socket.send(JSON.stringify({ kind: "osc", port: to, address, value } satisfies ToBridge));
    },
    close: () => socket.close(),
  };
}
