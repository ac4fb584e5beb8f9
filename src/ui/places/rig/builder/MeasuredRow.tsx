"use client";

import { NumberInput } from "@mantine/core";
import type { Xy } from "@/core/colour/chromaticity";
import { EMITTERS, FILTERS } from "@/core/colour/emitters";
import { hexOfColour } from "@/core/exchange/gdtf/values";
import { isEmitter, isFilter } from "@/core/fixture/attribute";
import type { ChannelFunction } from "@/core/fixture/type";
import classes from "./Builder.module.css";

interface Props {
  fn: ChannelFunction;
  onChange(fn: ChannelFunction): void;
}

/** The light of an emitter, or what a filter leaves of daylight: as measured; our table's where nothing is said. */
export function MeasuredRow({ fn, onChange }: Props) {
  const emits = isEmitter(fn.attribute);
  if (!emits && !isFilter(fn.attribute)) return null;
  const usual = emits ? EMITTERS[fn.attribute] : undefined;
  const xy: Xy | undefined = emits ? (fn.emitter ?? usual)?.xy : (fn.through ?? FILTERS[fn.attribute]);
  const [x, y] = xy ?? [0.3127, 0.329];
  const flux = (fn.emitter ?? usual)?.flux ?? 100;
  const own = emits ? fn.emitter !== undefined : fn.through !== undefined;
  const put = (made: { x?: number; y?: number; flux?: number }) => {
    const at: [number, number] = [made.x ?? x, made.y ?? y];
    onChange(emits ? { ...fn, emitter: { xy: at, flux: made.flux ?? flux } } : { ...fn, through: at });
  };
  const clear = () => {
    const { emitter: _e, through: _t, ...usualOnes } = fn;
    onChange(usualOnes);
  };
  const number = (name: "x" | "y" | "flux", value: number, max: number, min: number) => (
    <NumberInput
      size="xs"
      w={78}
      hideControls
      min={min}
      max={max}
      step={name === "flux" ? 1 : 0.001}
      decimalScale={name === "flux" ? 1 : 4}
      aria-label={`${fn.attribute} measured ${name}`}
      leftSection={<span className="muted">{name === "flux" ? "lm" : name}</span>}
      value={value}
      data-usual={!own}
      onChange={(v) => v !== "" && Number(v) >= min && put({ [name]: Number(v) })}
    />
  );
  return (
    <div className={classes.master}>
      <span className={classes.swatch} style={{ background: hexOfColour({ xy: [x, y], Y: 100 }) }} aria-hidden />
      <span className="muted">{emits ? "gives" : "daylight through it"}</span>
      {number("x", x, 1, 0)}
      {number("y", y, 1, 0.0001)}
      {emits && number("flux", flux, 1_000_000, 0)}
      {own ? (
        <button type="button" className={classes.usual} onClick={clear}>
          use the usual value
        </button>
      ) : (
        <span className="muted">the usual value; type what was measured</span>
      )}
    </div>
  );
}
