"use client";

import { useEffect } from "react";
import { create } from "zustand";
import {
  doesOf,
  doesText,
  eventOf,
  movedBy,
  pickUp,
  type Does,
  type Mapping,
  type Moved,
  type Pickup,
} from "@/core/surface/mapping";
import { doesAt, oscOf } from "@/core/surface/osc";
import { newMtcReader, readMtc } from "@/core/timecode/mtc";
import { refusalText } from "@/core/show/refusal";
import { listenToPorts, listenToStandIn } from "@/session/midi";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { goOnce } from "@/ui/show/playing/goOnce";
import { useSession } from "@/ui/show/useSession";

interface Surface {
  /** Learning: what was pressed on the screen and waits for a control; null for nothing pressed yet. */
  learns: boolean;
  wanted: Does | null;
  /** The last control that was moved. */
  last: Moved | null;
  /** Real ports that are heard. */
  ports: readonly string[];
  wantsPorts: boolean;
}

export const useSurfaceState = create<Surface>()(() => ({
  learns: false,
  wanted: null,
  last: null,
  ports: [],
  wantsPorts: false,
}));

export const useMappings = (): [readonly Mapping[], (next: Mapping[]) => void] => useRemembered(REMEMBERED.surface);

/** The port of this machine that is told by OSC what plays; 0 for none. */
export const useOscOut = () => useRemembered(REMEMBERED.oscOut);

/** Whether Open Sound Control is heard: off until a person turns it on in this browser. */
export const useOscIn = () => useRemembered(REMEMBERED.oscIn);

/** Hears surfaces and timecode in the window that hosts, and does what they are mapped to. */
export function useSurface(): void {
  const session = useSession();
  const [mappings, setMappings] = useMappings();
  const wantsPorts = useSurfaceState((s) => s.wantsPorts);
  const [out] = useOscOut();
  const [hears] = useOscIn();
  useEffect(() => {
    if (session.hosts) session.askWire({ listen: hears });
  }, [session, hears]);
  useEffect(() => {
    if (!session.hosts) return;
    const pickups = new Map<string, Pickup>();
    const mtc = newMtcReader();
    /** Lists that keys of a surface hold. */
    const flashed = new Set<string>();
    const letGo = () => {
      for (const list of flashed) void session.event({ kind: "flash", list, on: false });
      flashed.clear();
    };
    const moved = (now: Moved) => {
      useSurfaceState.setState({ last: now });
      const { learns, wanted } = useSurfaceState.getState();
      const { world, playing } = session.store.getState();
      if (learns && wanted) {
        setMappings([...mappings.filter((m) => m.control !== now.control), { control: now.control, to: wanted }]);
        useSurfaceState.setState({ wanted: null });
        return session.tell(`${now.control} is ${doesText(world.show, wanted)} from now on`);
      }
      const own = now.control.startsWith("osc ") ? doesAt(world.show, now.control.slice(4)) : undefined;
      const all = own ? [{ control: now.control, to: own }] : mappings;
      for (const { control, to } of all) {
        if (control !== now.control) continue;
        if (to.does === "macro" && now.value > 0)
          void session.macro(to.macro).then((no) => no && session.tell(refusalText(no), "refused"));
        const event = eventOf(world.show, to, now.value);
        if (!event) continue;
        // What has an address of its own says where it shall be; a fader has to be picked up.
        if (!own && (event.kind === "level" || event.kind === "grand")) {
          const stands = event.kind === "grand" ? playing.grand : (playing.runs[event.list]?.level ?? 0);
          const key = `${control} ${event.kind === "grand" ? "" : event.list}`;
          const hold = pickUp(pickups.get(key), event.value, stands);
          pickups.set(key, hold);
          if (!hold.holds) continue;
        }
        // A key that bounces is one press.
        if (event.kind === "flash") flashed[event.on ? "add" : "delete"](event.list);
        if (event.kind === "go") goOnce(session, [event.list]);
        else void session.event(event);
      }
    };
    const heard = (bytes: ArrayLike<number>) => {
      const { rate } = session.store.getState().world.show.timecode;
      const time = readMtc(mtc, bytes, rate);
      if (time) return void session.event({ kind: "timecode", does: "heard", ...time });
      const now = movedBy(bytes);
      if (now) moved(now);
    };
    const ends = [listenToStandIn(heard, letGo), letGo];
    let over = false;
    if (wantsPorts)
      void listenToPorts(heard, letGo).then((found) => {
        if (typeof found === "string") {
          useSurfaceState.setState({ wantsPorts: false });
          return session.tell(`No ports are heard: ${found}`, "refused");
        }
        if (over) return found.stop();
        ends.push(found.stop);
        useSurfaceState.setState({ ports: found.names });
      });
    const unwatch = session.store.subscribe((is, was) => {
      if (is.playing === was.playing || out === 0) return;
      for (const { address, value } of oscOf(is.world.show, is.playing, was.playing).slice(0, 200))
        session.askWire({ osc: out, address, value });
    });
    ends.push(unwatch);
    const osc = session.onOsc((address, value) => moved({ control: `osc ${address}`, value }));
    ends.push(osc);
    return () => {
      over = true;
      for (const end of ends) end();
    };
  }, [session, mappings, setMappings, wantsPorts, out]);

  // While learning, a press on the screen chooses what is learned, and does nothing else.
  const learns = useSurfaceState((s) => s.learns);
  useEffect(() => {
    if (!learns) return;
    const choose = (event: Event) => {
      const found = (event.target as HTMLElement | null)?.closest?.<HTMLElement>("[data-learn]");
      if (!found) return;
      event.preventDefault();
      event.stopPropagation();
      if (event.type === "pointerdown") useSurfaceState.setState({ wanted: doesOf(found.dataset.learn!) ?? null });
    };
    for (const type of ["pointerdown", "pointerup", "click"]) document.addEventListener(type, choose, true);
    return () => {
      for (const type of ["pointerdown", "pointerup", "click"]) document.removeEventListener(type, choose, true);
    };
  }, [learns]);
}
