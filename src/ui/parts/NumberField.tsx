"use client";

import { NumberInput, type NumberInputProps } from "@mantine/core";
import { useRef, useState } from "react";
import { useNumberScrub } from "./scrub";
import classes from "./parts.module.css";

interface Props extends Omit<NumberInputProps, "value" | "onChange" | "min" | "max" | "step"> {
  value: number;
  min: number;
  max?: number;
  /** The smallest change by wheel, drag and arrows. */
  step?: number;
  /** Each change; `first` begins a new step of undo. */
  onSet(value: number, first: boolean): void;
}

/** A number to type, and to scrub while it is not being typed in: drag, wheel, arrows; shift is finer. */
export function NumberField({ value, min, max, step = 1, onSet, ...rest }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [typing, setTyping] = useState(false);
  const typed = useRef(false);
  const range = { min, ...(max === undefined ? {} : { max }) };
  const scrub = useNumberScrub({
    value,
    step,
    ...range,
    onSet,
    onPress: () => (input.current?.focus(), input.current?.select()),
  });
  return (
    <div
      className={classes.field}
      data-typing={typing}
      data-scrub
      onWheel={scrub.onWheel}
      onPointerMove={scrub.onPointerMove}
      onPointerUp={scrub.onPointerUp}
      onPointerCancel={scrub.onPointerCancel}
      onPointerDown={(e) => !typing && e.target === input.current && (scrub.onPointerDown(e), e.preventDefault())}
    >
      <NumberInput
        {...rest}
        {...range}
        ref={input}
        value={value}
        step={step}
        allowDecimal={step < 1}
        clampBehavior="strict"
        hideControls
        onFocus={() => (setTyping(true), (typed.current = false))}
        onBlur={() => setTyping(false)}
        onChange={(v) => {
          if (typeof v !== "number" || v === value || v < min) return;
          onSet(v, !typed.current);
          typed.current = true;
        }}
      />
    </div>
  );
}
