/** MIDI as a window hears it: real ports where a person has allowed them, and the stand-in port of the windows beside it. */
import { z } from "@/core/units/zod";

/** What stand-in windows send: the bytes of one message, or that they are gone. */
export const StandInMidiSchema = z.union([
  z.object({ bytes: z.array(z.number().int().min(0).max(255)).min(1).max(64) }),
  z.object({ gone: z.literal(true) }),
]);
/** The stand-in port: windows of this browser hear each other on it. */
export const STAND_IN_PORT = "bold-comet-midi";

export type MidiHeard = (bytes: ArrayLike<number>) => void;

/** Listens to the stand-in port. @param gone is told when who sends on it has left. @returns a way to stop. */
export function listenToStandIn(heard: MidiHeard, gone: () => void): () => void {
  const channel = new BroadcastChannel(STAND_IN_PORT);
  channel.addEventListener("message", ({ data }: MessageEvent) => {
    const parsed = StandInMidiSchema.safeParse(data);
    if (!parsed.success) return;
    if ("gone" in parsed.data) gone();
    else heard(parsed.data.bytes);
  });
  return () => channel.close();
}

/** Whether this browser knows MIDI at all. */
export const knowsMidi = (): boolean => typeof navigator !== "undefined" && "requestMIDIAccess" in navigator;

/** Listens to all real ports. @param gone is told when one of them vanishes. @returns their names and a way to stop, or in words why not. */
export async function listenToPorts(
  heard: MidiHeard,
  gone: () => void,
): Promise<{ names: string[]; stop(): void } | string> {
  if (!knowsMidi()) return "this browser has no MIDI";
  try {
    const access = await navigator.requestMIDIAccess({ sysex: true });
    const hear = (event: MIDIMessageEvent) => event.data && event.data.length <= 64 && heard(event.data);
    const inputs = [...access.inputs.values()];
    for (const input of inputs) input.onmidimessage = hear;
    access.onstatechange = ({ port }) => {
      if (port?.state === "disconnected") gone();
      for (const input of access.inputs.values()) input.onmidimessage = hear;
    };
    return {
      names: inputs.map((i) => i.name ?? "a port"),
      stop() {
        access.onstatechange = null;
        for (const input of access.inputs.values()) input.onmidimessage = null;
      },
    };
  } catch {
    return "MIDI was not allowed";
  }
}
