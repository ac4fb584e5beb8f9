"use client";

import { useEffect, useState } from "react";
import { decodeFrame } from "@/core/dmx/decode";
import { compileRig } from "@/core/play/stage/rig";
import type { Show } from "@/core/show/schema";
import { frameBytes, openFrame, publish } from "@/engine/frame";
import type { Layout } from "@/engine/layout";
import { openNode } from "@/session/nodeLink";
import type { Received } from "@/standin/messages";

/**
 * The stage as it arrived at the node: a frame of memory like the engine's, filled from what was received.
 * @param tell hands the memory to the painter, again after every change where it cannot be shared.
 */
export function useWireStage(
  on: boolean,
  show: Show,
  layout: Layout | undefined,
  tell: (layout: Layout, memory: ArrayBufferLike) => void,
): Received | null {
  const [received, setReceived] = useState<Received | null>(null);
  useEffect(() => {
    if (!on || !layout) return;
    const rig = compileRig(show);
    if (rig.size !== layout.size) return;
    const shared = typeof SharedArrayBuffer !== "undefined" && crossOriginIsolated;
    const memory = shared ? new SharedArrayBuffer(frameBytes(layout)) : new ArrayBuffer(frameBytes(layout));
    const frame = openFrame(layout, memory);
    const bytes = new Uint8Array(rig.universes.length * 512);
    const node = openNode(setReceived);
    let seen = -1;
    let handle = 0;
    const look = () => {
      handle = requestAnimationFrame(look);
      if (node.count() === seen) return;
      seen = node.count();
      rig.universes.forEach((universe, i) => {
        const output = show.outputs[universe];
        const slots = output && node.slots(output.protocol, output.number);
        if (slots) bytes.set(slots, i * 512);
        else bytes.fill(0, i * 512, (i + 1) * 512);
      });
      publish(frame, (half) => {
        decodeFrame(rig, bytes, half.value, half.fn);
        half.bytes.set(bytes);
      });
      if (!shared) tell(layout, memory);
    };
    look();
    tell(layout, memory);
    return () => {
      cancelAnimationFrame(handle);
      node.close();
    };
  }, [on, layout, show.fixtures, show.types, show.outputs]); // oxlint-disable-line react-hooks/exhaustive-deps
  return received;
}
