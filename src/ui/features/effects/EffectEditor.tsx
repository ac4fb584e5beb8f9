"use client";

import { ActionIcon, Menu, Tooltip } from "@mantine/core";
import { IconEar, IconPlus, IconTrash, IconVolumeOff } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import { attributeInfo } from "@/core/fixture/attribute";
import { rangeOf } from "@/core/fixture/parameters";
import { castVoice } from "@/core/effect/casting";
import { castEntries } from "@/core/effect/lane";
import { drivenText, PLAIN_PHASING } from "@/core/effect/words";
import { hasStops, type Phasing, type Voice } from "@/core/show/effectSchema";
import { attributesOf } from "@/ui/show/held/summary";
import { Levels, Under, useFirstLevel } from "@/ui/base/parts/Levels";
import { useShow } from "@/ui/show/useSession";
import { useCycles } from "@/ui/stage/pictures/cycles";
import { editEffect, useEditing } from "@/ui/show/effects/editing";
import { firstWave } from "@/ui/show/effects/firstWave";
import { EditorHead } from "./EditorHead";
import { Gallery } from "./Gallery";
import { PathPicture } from "./PathPicture";
import { StopsBand } from "./StopsBand";
import { useTarget, type Target, type TargetVoice } from "./target";
import { VoiceFields } from "./VoiceFields";
import { VoicePicture } from "@/ui/stage/pictures/VoicePicture";
import { WavePicture } from "./WavePicture";
import classes from "./Effects.module.css";

/** Voices that can be added: one of each kind of movement. */
const NEW_VOICES: { label: string; voice: Voice }[] = [
  ...(["Dimmer", "Pan", "Tilt", "Zoom"] as const).map((attribute): { label: string; voice: Voice } => ({
    label: `${attribute === "Dimmer" ? "Intensity" : attribute}, a wave`,
    voice: {
      ...PLAIN_PHASING,
      bpm: 20,
      attribute,
      wave: "sine",
      range: attribute === "Dimmer" ? { low: 10, high: 90 } : { centre: 0, size: attribute === "Zoom" ? 6 : 10 },
    },
  })),
  {
    label: "Colour, stops",
    voice: {
      ...PLAIN_PHASING,
      bpm: 10,
      of: { family: "Colour" },
      stops: [
        { value: { colour: "#2ad1c9" }, hold: 35, curve: "smooth" },
        { value: { colour: "#ff8a18" }, hold: 35, curve: "smooth" },
      ],
    },
  },
];

/** An effect under the stage: its voices, a picture of one to grab, its exact numbers, and ready ones to begin from. */
export function EffectEditor() {
  const target = useTarget();
  const open = useEditing((s) => s.open);
  useEffect(() => {
    if (open !== null && !target) editEffect(null);
  }, [open, target]);
  if (!target) return null;
  return (
    <section className={classes.editor} aria-label="Effect editor">
      <EditorHead key={target.record?.id ?? "held"} target={target} />
      {target.voices.length === 0 ? (
        <div className={classes.nothing}>
          <p>No effect is held. Select fixtures and press one to begin from, or a wave beside a number.</p>
          <Gallery />
        </div>
      ) : (
        <Voices target={target} />
      )}
    </section>
  );
}

function Voices({ target }: { target: Target }) {
  const chosen = useEditing((s) => s.voice);
  const [all, setAll] = useState(false);
  const of = target.voices.find((v) => v.key === chosen) ?? target.voices[0]!;
  const put = (voice: Voice, join: boolean) => target.put(of.key, voice, join);
  // A voice that is added is the chosen one.
  const before = useRef<ReadonlySet<number> | null>(null);
  useEffect(() => {
    const fresh = before.current && target.voices.find((v) => !before.current!.has(v.key));
    if (!fresh) return;
    before.current = null;
    useEditing.setState({ voice: fresh.key });
  }, [target.voices]);
  const add = (voice: Voice) => {
    before.current = new Set(target.voices.map((v) => v.key));
    target.add({ ...voice, spread: of.voice.spread, bpm: hasStops(voice) ? voice.bpm : of.voice.bpm });
  };
  const world = useShow((s) => s.world);
  const [menu, levels] = useFirstLevel();
  const usual = new Set(NEW_VOICES.flatMap(({ voice }) => ("attribute" in voice ? [voice.attribute] : [])));
  const more = [...attributesOf(world, world.hands.selection)].flatMap(([attribute, [first]]) =>
    usual.has(attribute) || !first || first.fn.steps ? [] : [{ attribute, range: rangeOf(first.fn) }],
  );
  const run = (change: Partial<Phasing>, join: boolean) =>
    all
      ? target.putAll(
          target.voices.map((v) => ({ key: v.key, voice: { ...v.voice, ...change } })),
          join,
        )
      : put({ ...of.voice, ...change }, join);
  return (
    <div className={classes.columns}>
      <ul className={classes.voices} aria-label="Voices">
        {target.voices.map((v) => (
          <VoiceCard key={v.key} target={target} of={v} chosen={v.key === of.key} />
        ))}
        <li>
          <Menu {...menu} position="right-end" shadow="md" withinPortal>
            <Menu.Target>
              <button type="button" className={classes.another}>
                <IconPlus size={14} aria-hidden /> another voice
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              <Levels {...levels}>
                {NEW_VOICES.map(({ label, voice }) => (
                  <Menu.Item key={label} onClick={() => add(voice)}>
                    {label}
                  </Menu.Item>
                ))}
                {more.length > 0 && (
                  <Under label="Another attribute of the selected">
                    {more.map(({ attribute, range }) => (
                      <Menu.Item key={attribute} onClick={() => add(firstWave(attribute, ...range))}>
                        {attributeInfo(attribute).label}, a wave
                      </Menu.Item>
                    ))}
                  </Under>
                )}
              </Levels>
            </Menu.Dropdown>
          </Menu>
        </li>
      </ul>
      <Picture key={of.key} target={target} of={of} onPut={put} />
      <VoiceFields
        voice={of.voice}
        all={all}
        several={target.voices.length > 1}
        onAll={setAll}
        onPut={put}
        onRun={run}
      />
    </div>
  );
}

function VoiceCard({ target, of, chosen }: { target: Target; of: TargetVoice; chosen: boolean }) {
  const { key, voice, muted } = of;
  const others = target.voices.filter((v) => v.key !== key).map((v) => v.key);
  const solo = others.length > 0 && !muted && target.voices.every((v) => v.key === key || v.muted);
  const silent = target.voices.filter((v) => v.muted).map((v) => v.key);
  return (
    <li className={classes.card} data-chosen={chosen} data-muted={muted}>
      <button type="button" aria-pressed={chosen} onClick={() => useEditing.setState({ voice: key })}>
        <b>{drivenText(voice)}</b>{" "}
        <span>{hasStops(voice) ? `${voice.stops.length} stops` : "size" in voice.range ? "around" : "wave"}</span>
        <VoicePicture voice={voice} items={of.items} moving={!muted} />
      </button>
      <div>
        {target.record && (
          <>
            <Tooltip label={muted ? "Unmute it" : "Mute it wherever the effect runs"}>
              <ActionIcon
                size="sm"
                variant={muted ? "light" : "subtle"}
                color="gray"
                aria-label={`Mute ${drivenText(voice)}`}
                aria-pressed={muted}
                onClick={() => target.mute(muted ? silent.filter((k) => k !== key) : [...silent, key])}
              >
                <IconVolumeOff size={13} />
              </ActionIcon>
            </Tooltip>
            <Tooltip label={solo ? "End solo" : "Solo: this voice only"}>
              <ActionIcon
                size="sm"
                variant={solo ? "light" : "subtle"}
                color="gray"
                aria-label={`Solo ${drivenText(voice)}`}
                aria-pressed={solo}
                disabled={others.length === 0}
                onClick={() => target.mute(solo ? [] : others)}
              >
                <IconEar size={13} />
              </ActionIcon>
            </Tooltip>
          </>
        )}
        <Tooltip label="Remove this voice">
          <ActionIcon
            size="sm"
            variant="subtle"
            color="gray"
            aria-label={`Remove ${drivenText(voice)}`}
            disabled={target.record !== undefined && target.voices.length === 1}
            onClick={() => target.drop(key)}
          >
            <IconTrash size={13} />
          </ActionIcon>
        </Tooltip>
      </div>
    </li>
  );
}

function Picture({ target, of, onPut }: { target: Target; of: TargetVoice; onPut(voice: Voice, join: boolean): void }) {
  const { show, hands } = useShow((s) => s.world);
  const cast = target.record && castEntries(show, target.record, of.items);
  const effect =
    of.live === undefined
      ? undefined
      : (hands.held[of.live]?.effect ??
        cast?.[of.live]?.effect ??
        castVoice(show, of.items, of.voice, (turn) => ({ plays: of.voice, ...turn }))[of.live]?.effect);
  const cycles = useCycles(of.voice, of.live, effect, target.record?.rate ?? 100);
  const { voice } = of;
  const seconds = voice.bpm > 0 ? (60 / voice.bpm) * (100 / (target.record?.rate || 100)) : 0;
  return (
    <div className={classes.middle}>
      <div className={classes.row}>
        {hasStops(voice) ? (
          <StopsBand of={of} voice={voice} cycles={cycles} onPut={onPut} />
        ) : (
          <WavePicture of={of} voice={voice} cycles={cycles} onPut={onPut} />
        )}
        <PathPicture target={target} cycles={cycles} />
      </div>
      <p className={classes.hint}>
        {seconds > 0 ? `One cycle, ${seconds.toFixed(seconds < 10 ? 1 : 0)} s. ` : "It stands still. "}
        {hasStops(voice)
          ? "Drag the ends of the holds; the marks are the fixtures, running now."
          : "Grab the lines, the bracket, the ruler or the curve; the dots are the fixtures, running now."}
      </p>
      <Gallery />
    </div>
  );
}
