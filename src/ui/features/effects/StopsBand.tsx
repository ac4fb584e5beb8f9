"use client";

import { ActionIcon, Button, ColorInput, Group, SegmentedControl, Select } from "@mantine/core";
import { IconPlus, IconTrash } from "@tabler/icons-react";
import { useMemo, useRef, useState, type PointerEvent } from "react";
import { holdOf } from "@/core/effect/stops";
import { familiesOf } from "@/core/palette/families";
import { CURVES, type Stop, type StopsVoice } from "@/core/show/effectSchema";
import { palettesByNumber } from "@/core/show/world";
import { clamp } from "@/core/units/units";
import { NumberField } from "@/ui/show/NumberField";
import { useShow, useSize } from "@/ui/show/useSession";
import { bandOf } from "@/ui/stage/pictures/band";
import { useFrames } from "@/ui/stage/pictures/cycles";
import { dotsOf } from "@/ui/stage/pictures/shape";
import type { TargetVoice } from "./target";
import classes from "./Effects.module.css";

/** So many pixels of a drag are another curve. */
const A_BEND = 18;
const CURVE_PATHS: Record<Stop["curve"], string> = {
  snap: "M0 15 L20 15 L20 1 L40 1",
  linear: "M0 15 L40 1",
  smooth: "M0 15 C20 15 20 1 40 1",
};

interface Props {
  of: TargetVoice;
  voice: StopsVoice;
  cycles(): number;
  onPut(voice: StopsVoice, join: boolean): void;
}

/** The stops of a cycle as a band of blocks: how each type really mixes on the way, and the ends of the holds to drag. */
export function StopsBand({ of, voice, cycles, onPut }: Props) {
  const show = useShow((s) => s.world.show);
  const [chosen, choose] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const { width } = useSize(box);
  const bands = useMemo(() => bandOf(show, voice, of.items, 96), [show, voice, of.items]);
  const dots = useMemo(() => dotsOf(show, voice, of.items), [show, voice, of.items]);
  const marks = useRef(new Map<string, HTMLElement>());
  const drag = useRef<{ at: number; x: number; hold: number; first: boolean } | null>(null);
  const bending = useRef<{ at: number; y: number; from: number; first: boolean } | null>(null);
  const { stops } = voice;
  const n = stops.length;
  const stop = stops[Math.min(chosen, n - 1)]!;
  const put = (k: number, change: Partial<Stop>, join = false) =>
    onPut({ ...voice, stops: stops.map((s, i) => (i === k ? { ...s, ...change } : s)) }, join);
  useFrames(() => {
    const now = cycles();
    for (const { item, offset } of dots) {
      const at = now + offset;
      const there = at - 2 * Math.floor(at / 2);
      const u = voice.direction === "bounce" ? (there > 1 ? 2 - there : there) : at - Math.floor(at);
      const shown = voice.width >= 100 ? u : Math.min(1, u / (voice.width / 100));
      const mark = marks.current.get(item);
      if (mark) mark.style.left = `${(shown * 100).toFixed(2)}%`;
    }
  });
  const nameOf = ({ value }: Stop) =>
    typeof value === "number"
      ? String(value)
      : "colour" in value
        ? value.colour
        : `◇ ${show.palettes[value.palette]?.name || show.palettes[value.palette]?.number}`;
  const family = "family" in voice.of ? voice.of.family : undefined;
  const choices = palettesByNumber(show)
    .filter((p) => !family || familiesOf(p).includes(family))
    .map((p) => ({ value: p.id, label: `${p.number} ${p.name}` }));
  const grab = (k: number) => ({
    onPointerDown(e: PointerEvent<HTMLElement>) {
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current = { at: k, x: e.clientX, hold: holdOf(stops[k]!) * 100, first: true };
    },
    onPointerMove(e: PointerEvent<HTMLElement>) {
      const now = drag.current;
      if (now?.at !== k || width === 0) return;
      const hold = clamp(
        Math.round(now.hold + ((e.clientX - now.x) / (width / n)) * 100 * (e.shiftKey ? 0.1 : 1)),
        0,
        100,
      );
      if (hold === stops[k]!.hold) return;
      put(k, { hold }, !now.first);
      now.first = false;
    },
    onPointerUp: () => void (drag.current = null),
    onPointerCancel: () => void (drag.current = null),
  });
  /** Dragged up or down, the way over into the next stop is another. */
  const bendBy = (k: number) => ({
    onPointerDown(e: PointerEvent<SVGSVGElement>) {
      e.currentTarget.setPointerCapture(e.pointerId);
      bending.current = { at: k, y: e.clientY, from: CURVES.indexOf(stops[k]!.curve), first: true };
      choose(k);
    },
    onPointerMove(e: PointerEvent<SVGSVGElement>) {
      const now = bending.current;
      if (now?.at !== k) return;
      const curve = CURVES[clamp(now.from + Math.round((now.y - e.clientY) / A_BEND), 0, CURVES.length - 1)]!;
      if (curve === stops[k]!.curve) return;
      put(k, { curve }, !now.first);
      now.first = false;
    },
    onPointerUp: () => void (bending.current = null),
    onPointerCancel: () => void (bending.current = null),
  });
  return (
    <div className={classes.stops}>
      <div className={classes.band} ref={box}>
        <div className={classes.blocks}>
          {stops.map((s, k) => (
            <button
              key={k}
              type="button"
              aria-pressed={k === chosen}
              onClick={() => choose(k)}
              title={`Stop ${k + 1}: ${nameOf(s)}`}
            >
              {nameOf(s)}
            </button>
          ))}
        </div>
        {bands.map((band) => (
          <div key={band.type} className={classes.mix} title={`As ${band.model} mixes it`}>
            {band.colours.map((c, k) => (
              <i key={k} style={{ background: c }} />
            ))}
            <span>{band.model}</span>
          </div>
        ))}
        <div className={classes.holds}>
          {stops.map((s, k) => (
            <span key={k}>
              <i style={{ width: `${holdOf(s) * 100}%` }} />
              {holdOf(s) < 1 && (
                <svg
                  className={classes.curve}
                  style={{ left: `${holdOf(s) * 100}%`, width: `${(1 - holdOf(s)) * 100}%` }}
                  viewBox="0 0 40 16"
                  preserveAspectRatio="none"
                  data-grip={`curve ${k + 1}`}
                  aria-hidden
                  {...bendBy(k)}
                >
                  <title>Drag up or down: snap, linear, smooth</title>
                  <path d={CURVE_PATHS[s.curve]} />
                </svg>
              )}
              <b
                role="slider"
                tabIndex={0}
                aria-label={`Hold of stop ${k + 1}`}
                aria-valuenow={Math.round(holdOf(s) * 100)}
                aria-valuemin={0}
                aria-valuemax={100}
                data-grip={`hold ${k + 1}`}
                style={{ left: `${holdOf(s) * 100}%` }}
                {...grab(k)}
                onKeyDown={(e) => {
                  const by = e.key === "ArrowRight" ? 5 : e.key === "ArrowLeft" ? -5 : 0;
                  if (by) put(k, { hold: clamp(Math.round(holdOf(s) * 100) + by, 0, 100) });
                }}
              />
            </span>
          ))}
        </div>
        <div className={classes.runners} aria-hidden>
          {dots.map(({ item, label, more }) => (
            <i key={item} ref={(el) => void (el ? marks.current.set(item, el) : marks.current.delete(item))}>
              {dots.length <= 16 ? `${label}${more > 0 ? ` +${more}` : ""}` : ""}
            </i>
          ))}
        </div>
      </div>
      <Group gap="xs" wrap="wrap">
        <span className="muted">Stop {Math.min(chosen, n - 1) + 1}</span>
        {typeof stop.value === "number" ? (
          <NumberField
            size="xs"
            w={80}
            aria-label="Value of the stop"
            min={-1000}
            step={0.5}
            value={stop.value}
            onSet={(value, first) => put(chosen, { value }, !first)}
          />
        ) : (
          <>
            <Select
              size="xs"
              w={150}
              aria-label="Palette of the stop"
              placeholder="a palette"
              searchable
              data={choices}
              value={"palette" in stop.value ? stop.value.palette : null}
              onChange={(palette) => palette && put(chosen, { value: { palette } })}
            />
            {family === "Colour" && (
              <ColorInput
                withEyeDropper={false}
                size="xs"
                w={112}
                aria-label="Colour of the stop"
                placeholder="colour"
                value={"colour" in stop.value ? stop.value.colour : ""}
                onChangeEnd={(colour) =>
                  /^#[0-9a-f]{6}$/i.test(colour) && put(chosen, { value: { colour: colour.toLowerCase() } })
                }
              />
            )}
          </>
        )}
        <SegmentedControl
          size="xs"
          aria-label="Transition to the next stop"
          data={CURVES.map((c) => ({ value: c, label: c }))}
          value={stop.curve}
          onChange={(curve) => put(chosen, { curve })}
        />
        <ActionIcon
          variant="default"
          aria-label="Remove this stop"
          title="Remove this stop"
          disabled={n <= 2}
          onClick={() => onPut({ ...voice, stops: stops.filter((_, k) => k !== chosen) }, false)}
        >
          <IconTrash size={14} />
        </ActionIcon>
        <Button
          size="compact-sm"
          variant="default"
          leftSection={<IconPlus size={13} />}
          disabled={n >= 64}
          onClick={() => {
            onPut({ ...voice, stops: [...stops.slice(0, chosen + 1), { ...stop }, ...stops.slice(chosen + 1)] }, false);
            choose(chosen + 1);
          }}
        >
          Stop
        </Button>
      </Group>
    </div>
  );
}
