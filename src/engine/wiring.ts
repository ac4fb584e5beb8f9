/** The engine's end of the bridge: what leaves, slots held for a test, and what is known of it. */
import type { Consent } from "@/core/dmx/consent";
import type { Player } from "@/core/play/state";
import type { FromEngine, ToEngine, WireAsk, WireState } from "./messages";
import { openWire, type WireOut } from "./wireOut";

type Bridge = Extract<ToEngine, { kind: "bridge" }>;

export interface Wiring {
  /** The bytes with the slots that are held for a test. */
  tested(player: Player, bytes: Uint8Array): Uint8Array;
  /** Sends what the player computed last. */
  send(player: Player): void;
  /** Tells the bridge of outputs and patch. */
  configure(player: Player): void;
  /** Does what is asked of the wire. Returns whether the bytes are others now. */
  ask(ask: WireAsk): boolean;
  /** Opens the way to a bridge, or to another one. @param quiet on standby it is reached, and told nothing. */
  reach(bridge: Bridge, quiet: boolean, player: Player | undefined): void;
  agree(consent: Consent): void;
  /** What was quiet speaks from here on. */
  speak(player: Player): void;
}

/** @param isQuiet whether nothing is to be said of it now. */
export function createWiring(say: (message: FromEngine) => void, isQuiet: () => boolean): Wiring {
  const state: WireState = { bridge: null, waiting: [], tests: {} };
  let out: WireOut | undefined;
  let bridge: Bridge | undefined;
  let consent: Consent | undefined;
  let listens = false;
  const tell = () => say({ kind: "wire", wire: state });

  const tested: Wiring["tested"] = (player, bytes) => {
    const held = Object.entries(state.tests);
    if (held.length === 0) return bytes;
    const made = bytes.slice();
    for (const [key, byte] of held) {
      const [universe, slot] = key.split(":").map(Number) as [number, number];
      const place = player.rig.universes.indexOf(universe);
      if (place >= 0) made[place * 512 + slot - 1] = byte;
    }
    return made;
  };

  return {
    tested,
    send: (player) => out?.send(tested(player, player.frame)),
    configure: (player) => out?.configure(player.world.show, player.rig),
    ask(ask) {
      if (ask === "poll") out?.poll();
      else if (ask === "take") out?.take();
      else if (typeof ask === "object" && "listen" in ask) {
        listens = ask.listen;
        out?.listen(listens);
      } else if (typeof ask === "object" && "osc" in ask) out?.osc(ask.osc, { address: ask.address, value: ask.value });
      else {
        if (ask === "endTests") state.tests = {};
        else {
          const key = `${ask.universe}:${ask.slot}`;
          const others = Object.entries(state.tests).filter(([held]) => held !== key);
          state.tests = Object.fromEntries(ask.byte === null ? others : [...others, [key, ask.byte]]);
        }
        tell();
        return true;
      }
      return false;
    },
    reach(to, quiet, player) {
      if (bridge?.port === to.port && bridge.token === to.token && out) return;
      bridge = to;
      out?.close();
      out = openWire(
        to.port,
        to.token,
        to.show,
        ({ bridge, waiting }) => {
          Object.assign(state, { bridge, waiting });
          if (!isQuiet()) tell();
        },
        quiet,
        (heard) => say({ kind: "osc", ...heard }),
      );
      if (consent) out.agree(consent);
      out.listen(listens);
      if (player) out.configure(player.world.show, player.rig);
    },
    agree(now) {
      consent = now;
      out?.agree(now);
    },
    speak(player) {
      if (!out) return;
      out.speak();
      out.send(tested(player, player.frame));
      tell();
    },
  };
}
