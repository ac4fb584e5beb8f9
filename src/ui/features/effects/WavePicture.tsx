"use client";

import { useMemo, useRef, type PointerEvent } from "react";
import type { WaveVoice } from "@/core/show/effectSchema";
import { clamp } from "@/core/units/units";
import { useShow, useSize } from "@/ui/show/useSession";
import { useFrames } from "@/ui/stage/pictures/cycles";
import { dotsOf, heightAt, scaleOf } from "@/ui/stage/pictures/shape";
import type { TargetVoice } from "./target";
import classes from "./Effects.module.css";

const PAD = { left: 46, right: 66, top: 26, bottom: 34 };
const MOST_ACROSS = 1440;

type Grip = "low" | "high" | "centre" | "width" | "across" | "start";

interface Props {
  of: TargetVoice;
  voice: WaveVoice;
  cycles(): number;
  onPut(voice: WaveVoice, join: boolean): void;
}

/** A wave with its fixtures running on it. Its lines, its bracket, its ruler and the curve itself are grabbed. */
export function WavePicture({ of, voice, cycles, onPut }: Props) {
  const show = useShow((s) => s.world.show);
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const dots = useMemo(() => dotsOf(show, voice, of.items), [show, voice, of.items]);
  const scale = useMemo(() => scaleOf(show, voice, of.items), [show, voice, of.items]);
  const marks = useRef(new Map<string, SVGGElement>());
  const drag = useRef<{
    grip: Grip;
    x: number;
    y: number;
    from: WaveVoice;
    scale: typeof scale;
    first: boolean;
  } | null>(null);
  const w = Math.max(120, width - PAD.left - PAD.right);
  const h = Math.max(60, height - PAD.top - PAD.bottom);
  const x = (u: number) => PAD.left + u * w;
  const y = (value: number) => PAD.top + (1 - (value - scale.from) / (scale.to - scale.from || 1)) * h;
  const value = (u: number, cycle = 0) => scale.low + (scale.high - scale.low) * heightAt(show, voice, u, cycle);
  const steps = 120;
  const path = Array.from(
    { length: steps + 1 },
    (_, i) => `${i ? "L" : "M"}${x(i / steps).toFixed(1)} ${y(value(i / steps)).toFixed(1)}`,
  ).join(" ");
  const thin = Math.ceil(dots.length / Math.max(1, Math.floor(w / 22)));

  useFrames(() => {
    const now = cycles();
    dots.forEach(({ item, offset }) => {
      const mark = marks.current.get(item);
      if (!mark) return;
      const at = now + offset;
      let u = at - Math.floor(at);
      if (voice.direction === "bounce" && voice.wave !== "random") {
        const there = at - 2 * Math.floor(at / 2);
        u = there > 1 ? 2 - there : there;
      }
      mark.setAttribute("transform", `translate(${x(u).toFixed(1)} ${y(value(u, Math.floor(at))).toFixed(1)})`);
    });
  });

  const move = (
    { grip, x: fromX, y: fromY, from, scale: was }: NonNullable<typeof drag.current>,
    e: PointerEvent,
  ): WaveVoice => {
    const fine = e.shiftKey ? 0.1 : 1;
    const dx = ((e.clientX - fromX) / w) * fine;
    const dy = (-(e.clientY - fromY) / h) * (was.to - was.from) * fine;
    const round = (v: number) => Math.round(v * 10) / 10;
    const { range } = from;
    if (grip === "width") return { ...from, width: clamp(Math.round(from.width + dx * 100), 1, 100) };
    if (grip === "across")
      return { ...from, across: clamp(Math.round((from.across + dx * MOST_ACROSS) / 5) * 5, 0, 36_000) };
    if (grip === "start") return { ...from, start: Math.round((((from.start - dx * 360) % 360) + 360) % 360) };
    if ("size" in range) {
      if (grip === "centre") return { ...from, range: { ...range, centre: round(range.centre + dy) } };
      return { ...from, range: { ...range, size: round(range.size + (grip === "high" ? dy : -dy)) } };
    }
    const put = (v: number) => round(clamp(v, was.from, was.to));
    return {
      ...from,
      range: grip === "low" ? { ...range, low: put(was.low + dy) } : { ...range, high: put(was.high + dy) },
    };
  };
  const grab = (grip: Grip) => ({
    onPointerDown(e: PointerEvent<SVGElement>) {
      e.currentTarget.setPointerCapture(e.pointerId);
      e.stopPropagation();
      drag.current = { grip, x: e.clientX, y: e.clientY, from: voice, scale, first: true };
    },
    onPointerMove(e: PointerEvent<SVGElement>) {
      const now = drag.current;
      if (now?.grip !== grip) return;
      const made = move(now, e);
      if (JSON.stringify(made) === JSON.stringify(voice)) return;
      onPut(made, !now.first);
      now.first = false;
    },
    onPointerUp: () => void (drag.current = null),
    onPointerCancel: () => void (drag.current = null),
  });
  const around = "size" in voice.range;
  const line = (grip: Grip, at: number, label: string) => (
    <g className={classes.grip} data-grip={grip} {...grab(grip)}>
      <line className={classes.reach} x1={PAD.left} x2={PAD.left + w + 4} y1={y(at)} y2={y(at)} />
      <line className={classes.level} x1={PAD.left} x2={PAD.left + w} y1={y(at)} y2={y(at)} />
      <rect x={PAD.left + w + 2} y={y(at) - 9} width={62} height={18} rx={4} />
      <text x={PAD.left + w + 7} y={y(at) + 4}>
        {label}
      </text>
    </g>
  );
  const ruler = PAD.top + h + 16;
  const across = Math.min(1, voice.across / MOST_ACROSS);
  return (
    <div className={classes.picture} ref={box}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`The wave of ${voice.attribute}, with ${of.items.length} fixtures on it`}
      >
        {[0, 0.25, 0.5, 0.75, 1].map((part) => {
          const at = scale.from + (scale.to - scale.from) * part;
          return (
            <g key={part} className={classes.axis}>
              <line x1={PAD.left} x2={PAD.left + w} y1={y(at)} y2={y(at)} />
              <text x={PAD.left - 5} y={y(at) + 4} textAnchor="end">
                {scale.text(at)}
              </text>
            </g>
          );
        })}
        <g className={classes.bracket}>
          <line x1={x(0)} x2={x(voice.width / 100)} y1={14} y2={14} />
          <text x={x(voice.width / 200)} y={10} textAnchor="middle">
            width {voice.width} %
          </text>
          {voice.width < 86 && (
            <text className={classes.rest} x={x((1 + voice.width / 100) / 2)} y={18} textAnchor="middle">
              rests
            </text>
          )}
          <g className={classes.grip} data-grip="width" {...grab("width")}>
            <rect className={classes.reach} x={x(voice.width / 100) - 10} y={2} width={20} height={24} />
            <line x1={x(voice.width / 100)} x2={x(voice.width / 100)} y1={7} y2={21} />
          </g>
        </g>
        <g className={classes.curve} data-grip="start" {...grab("start")}>
          <path className={classes.reach} d={path} />
          <path d={path} />
        </g>
        {line("low", scale.low, around ? "−size" : `low ${Math.round(scale.low * 10) / 10}`)}
        {line(
          "high",
          scale.high,
          around
            ? `size ${Math.round(((scale.high - scale.low) / 2) * 10) / 10}`
            : `high ${Math.round(scale.high * 10) / 10}`,
        )}
        {around && line("centre", (scale.low + scale.high) / 2, "centre")}
        {dots.map(({ item, label, more }, k) => (
          <g
            key={item}
            className={classes.dot}
            ref={(g) => void (g ? marks.current.set(item, g) : marks.current.delete(item))}
          >
            <circle r={dots.length > 30 ? 4.5 : 6} />
            {k % thin === 0 && (
              <text y={-9} textAnchor="middle">
                {label}
                {more > 0 ? ` +${more}` : ""}
              </text>
            )}
          </g>
        ))}
        <g className={classes.ruler}>
          <rect x={PAD.left} y={ruler - 6} width={w} height={12} rx={6} />
          <rect
            className={classes.run}
            x={PAD.left}
            y={ruler - 6}
            width={Math.max(12, across * w)}
            height={12}
            rx={6}
          />
          <text x={PAD.left + w + 5} y={ruler + 4}>
            across {voice.across}°
          </text>
          <g className={classes.grip} data-grip="across" {...grab("across")}>
            <circle className={classes.reach} cx={PAD.left + Math.max(6, across * w)} cy={ruler} r={16} />
            <circle cx={PAD.left + Math.max(6, across * w)} cy={ruler} r={7} />
          </g>
        </g>
      </svg>
    </div>
  );
}
