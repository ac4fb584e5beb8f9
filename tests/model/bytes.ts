/**
 * Bytes by the words of SEMANTICS 1, "To DMX", slow and plain: swap pan and tilt (degrees), hang correction
 * (degrees added), clamp, invert, scale (percent of Dimmer); rounded half up, coarse byte first.
 */
export interface Hang {
  swap: boolean;
  correct: { pan: number; tilt: number };
  invertPan: boolean;
  invertTilt: boolean;
  scale: number;
}

const RANGE = { pan: [-270, 270], tilt: [-115, 115] } as const;

function sent(norm: number, bytes: 1 | 2): number[] {
  const whole = bytes === 2 ? 65535 : 255;
  const dmx = Math.floor(norm * whole + 0.5 + 1e-9);
  return bytes === 2 ? [Math.floor(dmx / 256), dmx % 256] : [dmx];
}
const clamp = (v: number) => Math.min(1, Math.max(0, v));

/** The channels of pan, tilt and dimmer. @param bytes of each. */
export function modelBytes(
  values: { pan: number; tilt: number; dimmer: number },
  hang: Hang,
  bytes: 1 | 2,
  dimmerBytes: 1 | 2,
): number[] {
  const axis = (which: "pan" | "tilt") => {
    const meant = hang.swap ? values[which === "pan" ? "tilt" : "pan"] : values[which];
    const [from, to] = RANGE[which];
    const norm = clamp((meant + hang.correct[which] - from) / (to - from));
    return sent((which === "pan" ? hang.invertPan : hang.invertTilt) ? 1 - norm : norm, bytes);
  };
  return [
    ...axis("pan"),
    ...axis("tilt"),
    ...sent(clamp(clamp(values.dimmer / 100) * (hang.scale / 100)), dimmerBytes),
  ];
}
