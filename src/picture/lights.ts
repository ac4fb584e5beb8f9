/** How each lamp is lit, worked out once for a frame: its brightest source. */
import { light, lightOf } from "./light";
import type { Lit } from "./lit";
import type { Lamp } from "./plan";

export interface Lights {
  /** sRGB at full, 0..255. */
  r: Uint8Array;
  g: Uint8Array;
  b: Uint8Array;
  /** Brightness 0..1. */
  level: Float64Array;
}

export const createLights = (count: number): Lights => ({
  r: new Uint8Array(count),
  g: new Uint8Array(count),
  b: new Uint8Array(count),
  level: new Float64Array(count),
});

/** Works out how lamps are lit. @param into room for at least as many. */
export function lightLamps(lamps: readonly Lamp[], half: Lit, into: Lights): Lights {
  for (let i = 0; i < lamps.length; i++) {
    const lamp = lamps[i]!;
    into.level[i] = 0;
    // The cells of a bar are painted one by one.
    if (lamp.kind === "bar" && lamp.pan < 0) continue;
    for (let k = 0; k < lamp.sources.length; k++) {
      lightOf(lamp, lamp.sources[k]!, half);
      if (!(light.level > into.level[i]!)) continue;
      into.level[i] = light.level;
      into.r[i] = light.r;
      into.g[i] = light.g;
      into.b[i] = light.b;
    }
  }
  return into;
}
