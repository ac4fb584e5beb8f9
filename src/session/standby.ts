/** An engine kept in step beside the host's, so that the stage goes on at once when the host closes. */
import { CLOCK_EVERY_MS, type Running } from "@/engine/messages";
import type { Consent } from "@/core/dmx/consent";
import type { World } from "@/core/show/world";
import { browserId } from "./browserId";
import { startEngine, type EngineLink } from "./engineLink";
import { frameChannel } from "./windowMessages";
import { findWire } from "./wirePlaces";

export interface Standby {
  /** Starts the engine, where there is none yet. */
  warm(world: World): void;
  /** @param diff as text. */
  diff(diff: string): void;
  /** The running state as the host saves it, or its clock alone. */
  heard(change: Partial<Running>): void;
  /** Where the show may send, as the host has it. */
  agree(consent: Consent): void;
  /** The host leaves: the engine goes on from where the stage is by now. */
  begin(): void;
  /** Gives the running state and the engine away. */
  inherit(): { running: Running | null; engine: EngineLink | undefined };
  close(): void;
}

export function createStandby(id: string): Standby {
  let running: Running | null = null;
  let heardAt = 0;
  let engine: EngineLink | undefined;
  let consent: Consent | undefined;
  return {
    warm(world) {
      if (engine) return;
      const made = startEngine(world, null, frameChannel(id), true);
      engine = made;
      if (running) made.running({ saved: running.saved });
      if (consent) made.consent(consent);
      void findWire().then(
        (places) =>
          places?.bridge && engine === made && made.bridge(places.bridge, places.token, `${browserId()} ${id}`),
      );
    },
    diff: (diff) => engine?.diff(diff),
    heard({ saved, now }) {
      heardAt = performance.now();
      if (saved !== undefined) running = { saved, now: 0 };
      if (now !== undefined && running) running = { ...running, now };
      engine?.running(saved === undefined ? {} : { saved });
    },
    agree(now) {
      consent = now;
      engine?.consent(now);
    },
    begin: () => engine?.begin(running, Math.min(performance.now() - heardAt, CLOCK_EVERY_MS) / 1000),
    inherit() {
      const given = engine;
      engine = undefined;
      return { running, engine: given };
    },
    close: () => engine?.close(),
  };
}
