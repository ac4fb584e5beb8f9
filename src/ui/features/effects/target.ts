"use client";

/** What the effect editor works on: the voices that are held, or an effect of the show. */
import { useMemo } from "react";
import { castVoice } from "@/core/effect/casting";
import { allItems, voicesIn } from "@/core/effect/gather";
import { dropVoice, muteVoices, setVoice } from "@/core/effect/intents";
import { castOf } from "@/core/effect/lane";
import { effectUses, effectUsesText } from "@/core/effect/users";
import { voiceText } from "@/core/effect/words";
import { drop, hold } from "@/core/program/intents";
import { isFrom, isStop, type EffectRecord, type Voice } from "@/core/show/effectSchema";
import type { Item, ParamKey } from "@/core/show/ids";
import type { World } from "@/core/show/world";
import type { Session } from "@/session/state";
import { useSession, useShow } from "@/ui/show/useSession";
import { useEditing } from "@/ui/show/effects/editing";

export interface TargetVoice {
  key: number;
  voice: Voice;
  muted: boolean;
  /** What it runs over, in order. */
  items: readonly Item[];
  /** A parameter that runs it now, to see where it stands; none where it runs nowhere. */
  live: ParamKey | undefined;
}

export interface Target {
  /** The effect of the show; undefined for what is held. */
  record: EffectRecord | undefined;
  uses: string;
  voices: readonly TargetVoice[];
  /** Puts a voice in place of one; with `join`, as part of the step before. */
  put(key: number, voice: Voice, join?: boolean): void;
  /** Puts several at once. */
  putAll(voices: readonly { key: number; voice: Voice }[], join?: boolean): void;
  add(voice: Voice): void;
  drop(key: number): void;
  mute(keys: readonly number[]): void;
}

/** The open one; null where none is, or where it is gone. */
export function useTarget(): Target | null {
  const session = useSession();
  const open = useEditing((s) => s.open);
  const world = useShow((s) => s.world);
  return useMemo(
    () => (open === null ? null : open === "held" ? heldTarget(session, world) : effectTarget(session, world, open)),
    [session, open, world],
  );
}

function effectTarget(session: Session, world: World, id: string): Target | null {
  const record = world.show.effects[id];
  if (!record) return null;
  const { show, hands } = world;
  const items = record.cast ?? hands.selection;
  const cast = castOf(show, { ...record, cast: [...items] });
  const keys = Object.entries(cast);
  const heldKeys = Object.entries(hands.held);
  const runs = (key: number) => (entry: [ParamKey, { effect?: unknown }]) => {
    const effect = entry[1].effect as Parameters<typeof isStop>[0] | undefined;
    return effect !== undefined && !isStop(effect) && isFrom(effect) && effect.from === id && effect.voice === key;
  };
  return {
    record,
    uses: effectUsesText(effectUses(world, id)),
    voices: record.voices.map(({ key, voice, muted }) => ({
      key,
      voice,
      muted: muted === true,
      items,
      live: (heldKeys.find(runs(key)) ?? keys.find(runs(key)))?.[0],
    })),
    put: (key, voice, join) => void session.act([setVoice.of({ effect: id, key, voice })], undefined, join),
    putAll: (voices, join) =>
      void session.act(
        voices.map((v) => setVoice.of({ effect: id, ...v })),
        `sets ${voices.length} voices`,
        join,
      ),
    add: (voice) => void session.act([setVoice.of({ effect: id, voice })]),
    drop: (key) => void session.act([dropVoice.of({ effect: id, key })]),
    mute: (keys2) => void session.act([muteVoices.of({ effect: id, keys: [...keys2] })]),
  };
}

function heldTarget(session: Session, world: World): Target {
  const { show, hands } = world;
  const voices = voicesIn(show, hands.held);
  const keysOf = (voice: Voice) => {
    const text = JSON.stringify(voice);
    return Object.entries(hands.held).flatMap(([key, { effect }]) => {
      if (!effect || isStop(effect)) return [];
      const own = isFrom(effect)
        ? show.effects[effect.from]?.voices.find((v) => v.key === effect.voice)?.voice
        : effect.plays;
      return own && JSON.stringify(own) === text ? [key] : [];
    });
  };
  const putAll: Target["putAll"] = (changed, join) => {
    const values: Record<ParamKey, ReturnType<typeof castVoice>[string]> = {};
    const gone: ParamKey[] = [];
    for (const { key, voice } of changed) {
      const old = voices[key - 1];
      if (!old) continue;
      const made = castVoice(show, old.items, voice, (turn) => ({ plays: voice, ...turn }));
      Object.assign(values, made);
      gone.push(...keysOf(old.voice).filter((k) => !made[k] && !values[k]));
    }
    const says = changed.map(({ voice }) => voiceText(show, voice)).join("; ");
    session.act([...(gone.length > 0 ? [drop.of({ keys: gone })] : []), hold.of({ values, says })], undefined, join);
  };
  const items = allItems(voices);
  return {
    record: undefined,
    uses: "",
    voices: voices.map(({ voice, items: own }, k) => ({
      key: k + 1,
      voice,
      muted: false,
      items: own,
      live: keysOf(voice)[0],
    })),
    put: (key, voice, join) => putAll([{ key, voice }], join),
    putAll,
    add(voice) {
      const on = items.length > 0 ? items : hands.selection;
      const values = castVoice(show, on, voice, (turn) => ({ plays: voice, ...turn }));
      session.act([hold.of({ values, says: voiceText(show, voice) })]);
      // What is added stands in step with the rest.
      void session.event({ kind: "resync", list: null });
    },
    drop: (key) => void session.act([drop.of({ keys: keysOf(voices[key - 1]!.voice) })]),
    mute: () => undefined,
  };
}
