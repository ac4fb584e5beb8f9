/** Physical values to DMX (SEMANTICS 1, "To DMX"). */
import type { ChannelFunction } from "../fixture/type";
import { clamp, roundHalfUp } from "../units/units";

/** The DMX value a step sends: the middle of its range, rounded down. */
const middle = (step: { dmxFrom: number; dmxTo: number }): number => Math.floor((step.dmxFrom + step.dmxTo) / 2);

/**
 * DMX of a physical value, in the function's own resolution (0..255 or 0..65535), rounded half up.
 * Between two slots of a wheel the DMX lies between their middles in proportion; the value is clamped
 * to the function's range.
 * @param invert norm becomes 1 - norm, after the clamp.
 * @param scale factor on norm, after the inversion (1 = none).
 */
export function toDmx(fn: ChannelFunction, physical: number, invert = false, scale = 1): number {
  if (fn.steps && fn.steps.length > 0) return stepToDmx(fn.steps, physical);
  let norm = fn.to === fn.from ? 0 : clamp((physical - fn.from) / (fn.to - fn.from), 0, 1);
  if (invert) norm = 1 - norm;
  return roundHalfUp(fn.dmxFrom + norm * scale * (fn.dmxTo - fn.dmxFrom));
}

function stepToDmx(steps: NonNullable<ChannelFunction["steps"]>, value: number): number {
  let below = steps[0]!;
  for (const step of steps) {
    if (step.value > value + 1e-9) {
      if (value <= below.value + 1e-9) return middle(below);
      const share = (value - below.value) / (step.value - below.value);
      return roundHalfUp(middle(below) + share * (middle(step) - middle(below)));
    }
    below = step;
  }
  return middle(below);
}
