/** What arrived at the stand-in node, for whoever looks: the wire monitor and the stage drawn from the wire. */
import { readFrame } from "@/core/dmx/wireFrame";
import { ReceivedSchema, type Received, type Stream } from "@/standin/messages";
import { findWire } from "./wirePlaces";

const AGAIN_MS = 1500;

export interface NodeLink {
  /** The slots last received; undefined for a universe that never arrived. */
  slots(protocol: Stream["protocol"], number: number): Uint8Array | undefined;
  /** Counts frames that came, so that a painter knows of new ones. */
  count(): number;
  close(): void;
}

/** Connects to the node and stays connected. @param tell its statistics; null while it cannot be reached. */
export function openNode(tell: (received: Received | null) => void): NodeLink {
  const universes = new Map<string, Uint8Array>();
  let socket: WebSocket | undefined;
  let closed = false;
  let count = 0;

  async function connect(): Promise<void> {
    const places = await findWire();
    if (closed) return;
    if (!places?.node) {
      tell(null);
      return void setTimeout(() => void connect(), AGAIN_MS);
    }
    const made = new WebSocket(`ws://127.0.0.1:${places.node}/?token=${encodeURIComponent(places.token)}`);
    made.binaryType = "arraybuffer";
    socket = made;
    made.addEventListener("message", ({ data }: MessageEvent) =>
      data instanceof ArrayBuffer ? take(new Uint8Array(data)) : hear(String(data)),
    );
    made.addEventListener("close", () => {
      if (closed) return;
      tell(null);
      setTimeout(() => void connect(), AGAIN_MS);
    });
  }
  function take(bytes: Uint8Array): void {
    const frame = readFrame(bytes);
    if (!frame) return;
    for (const { protocol, number, data } of frame)
      universes.set(`${protocol === 1 ? "artnet" : "sacn"} ${number}`, data);
    count += 1;
  }
  function hear(text: string): void {
    try {
      const parsed = ReceivedSchema.safeParse(JSON.parse(text));
      if (parsed.success) tell(parsed.data);
    } catch {
      // Not ours: left alone.
    }
  }
  void connect();
  return {
    slots: (protocol, number) => universes.get(`${protocol} ${number}`),
    count: () => count,
    close() {
      closed = true;
      socket?.close();
    },
  };
}
