/** Pictures of looks, painted one at a time for whoever sees them; the same look is painted once. */
import { fillLook, fillSigned, placesOf, type LookFrame, type SeenEffect } from "@/core/play/stage/lookFrame";
import type { Player } from "@/core/play/state";
import { beforeGo, goneOn } from "@/core/play/arrive/transition";
import type { CueList, Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { lampsOf } from "@/picture/packed";
import type { Lamp } from "@/picture/plan";
import { paintLook, type Room } from "@/picture/lookPicture";
import type { FromLooks, ToLooks } from "./looksMessages";

type Asked = Extract<ToLooks, { kind: "picture" }>;

const MOST = 400;

const rooms = new WeakMap<
  Show["fixtures"],
  { types: Show["types"]; scenery: Show["scenery"]; room: Room; number: number }
>();
let counted = 0;

function roomOf(show: Show): { room: Room; number: number } {
  const held = rooms.get(show.fixtures);
  if (held && held.types === show.types && held.scenery === show.scenery) return held;
  const room = { lamps: lampsOf(show, placesOf(show).index), scenery: Object.values(show.scenery) };
  const made = { types: show.types, scenery: show.scenery, room, number: ++counted };
  rooms.set(show.fixtures, made);
  return made;
}

/** A text that two looks share only where they are the same picture: FNV-1a over their bits, in two halves. */
function contentOf({ value, fn }: LookFrame, effects: readonly SeenEffect[], about: string): string {
  let [a, b] = [0x811c9dc5, 0x1b873593];
  const take = (word: number) => {
    a = Math.imul(a ^ word, 0x01000193);
    b = Math.imul(b ^ (word + 0x9e3779b9), 0x85ebca6b);
  };
  for (const word of new Uint32Array(value.buffer, value.byteOffset, value.length * 2)) take(word);
  for (const word of fn) take(word);
  const bits = new Float64Array(1);
  const words = new Uint32Array(bits.buffer);
  for (const { at, after } of effects)
    for (const cycles of [0.2, 0.45, 0.7]) {
      bits[0] = after(cycles).value;
      take(at);
      take(words[0]!);
      take(words[1]!);
    }
  return `${about} ${(a >>> 0).toString(36)} ${(b >>> 0).toString(36)}`;
}

/** @param showOf the show a picture is of: now, or as a line would make it. */
export function pictures(
  showOf: (asked: Asked) => Show | undefined,
  say: (message: FromLooks, hand: Transferable[]) => void,
) {
  const waiting = new Map<number, Asked>();
  const kept = new Map<string, ImageBitmap>();
  let frame: LookFrame = { value: new Float64Array(0), fn: new Uint8Array(0) };
  let busy = false;
  /** The way into a cue that was looked at last: it is gone on with. */
  let way: { show: Show; cue: string; at: number; player: Player; lamps: Lamp[] } | undefined;

  function paint(asked: Asked): void {
    const { id, width, height, daylight, marks } = asked;
    const show = showOf(asked);
    const list = show?.lists[asked.list];
    const place = list ? cuesOf(list).findIndex((c) => c.id === asked.cue) : -1;
    if (!show || !list || place < 0) return say({ kind: "pictured", id, content: "", bitmap: null }, []);
    if (asked.at !== undefined) return paintOnTheWay(asked, show, list, asked.at);
    const { room, number } = roomOf(show);
    const size = placesOf(show).specs.length;
    if (frame.value.length !== size) frame = { value: new Float64Array(size), fn: new Uint8Array(size) };
    const wanted = asked.signed ? list.cues[asked.cue]!.signed : undefined;
    const effects = wanted ? fillSigned(show, wanted, frame) : fillLook(show, list, place, frame);
    const content = contentOf(frame, effects, `${number} ${width} ${height} ${daylight} ${marks?.join() ?? ""}`);
    if (content === asked.have) return say({ kind: "pictured", id, content, bitmap: null }, []);
    let picture = kept.get(content);
    if (picture) kept.delete(content);
    else picture = paintLook(room, frame, effects, { width, height, daylight, marks });
    kept.set(content, picture);
    const [oldest] = kept;
    if (kept.size > MOST && oldest) {
      oldest[1].close();
      kept.delete(oldest[0]);
    }
    const copy = new OffscreenCanvas(width, height);
    copy.getContext("2d", { alpha: false })!.drawImage(picture, 0, 0);
    const bitmap = copy.transferToImageBitmap();
    say({ kind: "pictured", id, content, bitmap }, [bitmap]);
  }

  /** The stage so many seconds after the go into a cue, as the engine plays it. */
  function paintOnTheWay(asked: Asked, show: Show, list: CueList, at: number): void {
    const { id, width, height, daylight } = asked;
    if (!way || way.show !== show || way.cue !== asked.cue || way.at > at) {
      const began = beforeGo(show, list, asked.cue);
      if (!began) return say({ kind: "pictured", id, content: "", bitmap: null }, []);
      const { player } = began;
      way = { show, cue: asked.cue, at: 0, player, lamps: lampsOf(player.world.show, player.rig.index) };
    }
    way.at = at;
    goneOn(way.player, at);
    const { value, fn } = way.player.stage;
    const room = { lamps: way.lamps, scenery: Object.values(show.scenery) };
    const bitmap = paintLook(room, { value, fn }, [], { width, height, daylight });
    say({ kind: "pictured", id, content: `${asked.cue} ${at}`, bitmap }, [bitmap]);
  }

  /** One picture a turn, so that lines are answered in between. */
  function next(): void {
    const [first] = waiting;
    if (!first) return void (busy = false);
    waiting.delete(first[0]);
    setTimeout(next, 0);
    try {
      paint(first[1]);
    } catch {
      say({ kind: "pictured", id: first[0], content: "", bitmap: null }, []);
    }
  }
  return {
    ask(asked: Asked): void {
      waiting.set(asked.id, asked);
      if (busy) return;
      busy = true;
      setTimeout(next, 0);
    },
    forget: (id: number): void => void waiting.delete(id),
  };
}
