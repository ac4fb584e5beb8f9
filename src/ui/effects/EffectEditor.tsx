"use client";

import { ActionIcon, Button, CloseButton, Menu, Tooltip } from "@mantine/core";
import { IconEar, IconPlus, IconRefresh, IconTrash, IconVolumeOff } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import { castVoice } from "@/core/effect/casting";
import { deleteEffect, recordEffect, setEffect, updateEffect } from "@/core/effect/intents";
import { castEntries } from "@/core/effect/lane";
import { drivenText, PLAIN_PHASING } from "@/core/effect/words";
import { drop, hold, keepOut } from "@/core/program/intents";
import { hasStops, type Phasing, type Voice } from "@/core/show/effectSchema";
import { NO_SPREAD } from "@/core/show/spreadSchema";
import { effectsByNumber } from "@/core/show/world";
import { playEffect } from "@/core/cue/intents";
import { listsByNumber } from "@/core/show/world";
import { several } from "@/core/palette/words";
import { EditableText } from "../parts/EditableText";
import { NumberField } from "../parts/NumberField";
import { useKeyTable } from "../shell/useKeyTable";
import { useSession, useShow } from "../useSession";
import { useCycles } from "./cycles";
import { editEffect, useEditing } from "./editing";
import { Gallery } from "./Gallery";
import { PathPicture } from "./PathPicture";
import { StopsBand } from "./StopsBand";
import { useTarget, type Target, type TargetVoice } from "./target";
import { VoiceFields } from "./VoiceFields";
import { VoicePicture } from "./VoicePicture";
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
          <Menu position="right-end" shadow="md" withinPortal>
            <Menu.Target>
              <button type="button" className={classes.another}>
                <IconPlus size={14} aria-hidden /> another voice
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              {NEW_VOICES.map(({ label, voice }) => (
                <Menu.Item
                  key={label}
                  onClick={() =>
                    target.add({ ...voice, spread: of.voice.spread, bpm: hasStops(voice) ? voice.bpm : of.voice.bpm })
                  }
                >
                  {label}
                </Menu.Item>
              ))}
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
            <Tooltip label={muted ? "Let it be heard" : "Silence it wherever the effect runs"}>
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
            <Tooltip label={solo ? "Let all voices be heard" : "Hear this voice alone"}>
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
        <Tooltip label="Take this voice out">
          <ActionIcon
            size="sm"
            variant="subtle"
            color="gray"
            aria-label={`Take out ${drivenText(voice)}`}
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

function EditorHead({ target }: { target: Target }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { shownKey } = useKeyTable();
  const { show, hands } = world;
  const { record } = target;
  const before = useRef(record?.voices);
  const [after, setAfter] = useState<NonNullable<typeof record>["voices"] | null>(null);
  const [trial, setTrial] = useState<string[] | null>(null);
  const next = (effectsByNumber(show).at(-1)?.number ?? 0) + 1;
  const selection = hands.selection;
  const swap = () => {
    const to = after ?? before.current;
    if (!record || !to) return;
    setAfter(after ? null : record.voices);
    target.putAll(to.filter((v) => record.voices.some((r) => r.key === v.key)));
  };
  const changed = record !== undefined && JSON.stringify(before.current) !== JSON.stringify(record.voices);
  const latest = useRef(swap);
  useEffect(() => {
    latest.current = swap;
  });
  useEffect(() => {
    const onKey = () => latest.current();
    addEventListener("bold-comet-before", onKey);
    return () => removeEventListener("bold-comet-before", onKey);
  }, []);
  const tryIt = () => {
    if (!record) return;
    if (trial) {
      session.act([drop.of({ keys: trial.filter((key) => hands.held[key]) })], "ends the trial");
      return setTrial(null);
    }
    const values = castEntries(show, record, selection);
    const keys = Object.keys(values);
    if (
      keys.length === 0 ||
      session.act(
        [hold.of({ values, says: `tries effect ${record.number}` }), keepOut.of({ keys, out: true })],
        `tries effect ${record.number}, kept out of recording`,
      )
    )
      return;
    setTrial(keys);
  };
  const freeList = () => {
    const taken = new Set(listsByNumber(show).map((l) => l.number));
    for (let n = 1; ; n++) if (!taken.has(n)) return n;
  };
  if (!record)
    return (
      <header className={classes.title}>
        <h2>What is held</h2>
        <span className="muted">{several(target.voices.length, "voice")} in the programmer</span>
        <span className={classes.spacer} />
        {effectsByNumber(show).length > 0 && target.voices.length > 0 && (
          <Menu position="bottom-end" shadow="md" withinPortal>
            <Menu.Target>
              <Button size="compact-sm" variant="default">
                Update …
              </Button>
            </Menu.Target>
            <Menu.Dropdown mah={300} style={{ overflow: "auto" }}>
              {effectsByNumber(show).map((e) => (
                <Menu.Item key={e.id} onClick={() => session.act([updateEffect.of({ effect: e.id })])}>
                  {e.number} {e.name}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        )}
        <Tooltip label="Starts the cycles of all held effects now, so that they stand in step">
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconRefresh size={13} />}
            onClick={() => void session.event({ kind: "resync", list: null })}
          >
            In step
          </Button>
        </Tooltip>
        {([true, false] as const).map((cast) => (
          <Tooltip
            key={String(cast)}
            label={
              cast
                ? "An effect that keeps these fixtures, and can go on a lane"
                : "An effect that takes whatever is selected"
            }
          >
            <Button
              size="compact-sm"
              variant={cast ? "light" : "default"}
              disabled={target.voices.length === 0}
              onClick={() => {
                if (session.act([recordEffect.of({ number: next, cast })])) return;
                const made = effectsByNumber(session.store.getState().world.show).find((e) => e.number === next);
                if (made) {
                  session.act([updateEffect.of({ effect: made.id })]);
                  editEffect(made.id);
                }
              }}
            >
              Record {next}, {cast ? "cast" : "open"}
            </Button>
          </Tooltip>
        ))}
        <CloseButton aria-label="Close the editor" onClick={() => editEffect(null)} />
      </header>
    );
  return (
    <header className={classes.title}>
      <span className="num">{record.number}</span>
      <EditableText
        value={record.name}
        label="Effect name"
        empty="no name"
        onSave={(name) => session.act([setEffect.of({ effect: record.id, name })])}
      />
      <Menu position="bottom-start" shadow="md" withinPortal>
        <Menu.Target>
          <button type="button" className={classes.chip}>
            {record.cast ? `keeps its ${record.cast.length} fixtures` : "open: takes the selection"}
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item
            disabled={selection.length === 0}
            onClick={() => session.act([setEffect.of({ effect: record.id, cast: [...selection] })])}
          >
            Cast it on the selection ({selection.length})
          </Menu.Item>
          <Menu.Item
            disabled={!record.cast}
            onClick={() => session.act([setEffect.of({ effect: record.id, cast: null })])}
          >
            Open it to any selection
          </Menu.Item>
          <Menu.Item
            disabled={!record.cast}
            onClick={() => session.act([playEffect.of({ list: freeList(), effect: record.id })])}
          >
            Put it on a lane of its own
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item
            color="red"
            onClick={() => (session.act([deleteEffect.of({ effect: record.id })]), editEffect(null))}
          >
            Delete{target.uses ? `: used ${target.uses}, its voices stay there` : " (can be undone)"}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <span className={classes.uses}>{target.uses ? `used ${target.uses}` : "nothing uses it yet"}</span>
      <span className={classes.spacer} />
      <NumberField
        size="xs"
        w={64}
        aria-label="Speed of all voices"
        title="Speed of all voices, percent of their own"
        suffix=" %"
        min={0}
        max={1000}
        step={5}
        value={record.rate}
        onSet={(rate, first) => void session.act([setEffect.of({ effect: record.id, rate })], undefined, !first)}
      />
      <Tooltip label={`As it was when it was opened, and as it is now (${shownKey("before")})`}>
        <Button
          size="compact-sm"
          variant={after ? "light" : "default"}
          disabled={!changed && !after}
          aria-pressed={after !== null}
          onClick={swap}
        >
          {after ? "Before" : "Before / after"}
        </Button>
      </Tooltip>
      <Tooltip label="Runs it on the selection, kept out of recording, until pressed again">
        <Button
          size="compact-sm"
          variant={trial ? "light" : "default"}
          disabled={!trial && selection.length === 0}
          aria-pressed={trial !== null}
          onClick={tryIt}
        >
          Trial
        </Button>
      </Tooltip>
      <CloseButton aria-label="Close the editor" onClick={() => editEffect(null)} />
    </header>
  );
}

/** A wave on one attribute of the selection, to begin with. */
export const firstWave = (attribute: string, min: number, max: number): Voice => ({
  ...PLAIN_PHASING,
  spread: NO_SPREAD,
  bpm: 20,
  attribute,
  wave: "sine",
  range:
    attribute === "Dimmer" || min === 0 ? { low: min, high: max } : { centre: 0, size: Math.min(12, (max - min) / 8) },
});
