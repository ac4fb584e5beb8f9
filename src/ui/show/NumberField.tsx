"use client";

import { TextInput, type TextInputProps } from "@mantine/core";
import { useLayoutEffect, useRef, useState } from "react";
import { plain } from "@/core/units/units";
import { useSession } from "./useSession";
import { useNumberScrub } from "@/ui/base/gestures/scrub";
import { readNumberField } from "@/ui/base/typed/typedNumber";
import classes from "@/ui/base/parts/parts.module.css";

interface Props extends Omit<TextInputProps, "value" | "onChange" | "min" | "max" | "step"> {
  value: number;
  min: number;
  max?: number;
  /** The smallest change by wheel, drag and arrows; below 1 it may have a fraction. */
  step?: number;
  /** Shown behind the number: " s", " %". */
  suffix?: string;
  /** Each change; `first` begins a new step of undo. */
  onSet(value: number, first: boolean): void;
}

const DECIMALS = 3;

/**
 * A number to type, with its unit or without, and to scrub while it is not being typed in: drag, wheel, arrows; shift is
 * finer. +5 and -5 are added, =-5 is set.
 */
export function NumberField({ value, min, max, step = 1, suffix = "", onSet, ...rest }: Props) {
  const session = useSession();
  const input = useRef<HTMLInputElement>(null);
  const [draft, setDraft] = useState<string | null>(null);
  const typed = useRef(false);
  // What is there is taken by what is typed, from the first key on.
  const fresh = useRef(false);
  useLayoutEffect(() => {
    if (fresh.current) input.current?.select();
    fresh.current = false;
  }, [draft]);
  const range = { min, ...(max === undefined ? {} : { max }) };
  const scrub = useNumberScrub({
    value,
    step,
    ...range,
    onSet,
    onPress: () => (input.current?.focus(), input.current?.select()),
  });
  const read = (text: string) => readNumberField(text, value, { ...range, fraction: step < 1, unit: suffix.trim() });
  const set = (to: number) => {
    if (to === value) return;
    onSet(to, !typed.current);
    typed.current = true;
  };
  const done = () => {
    if (draft === null) return;
    setDraft(null);
    if (draft.trim() === "" || draft === plain(value, DECIMALS)) return;
    const found = read(draft);
    if (typeof found === "string") session.tell(`${found}: it stays ${plain(value, DECIMALS)}${suffix}`, "refused");
    else set(found.value);
  };
  return (
    <div
      className={classes.field}
      data-typing={draft !== null}
      data-scrub
      onWheel={(e) => (setDraft(null), scrub.onWheel(e))}
      onPointerMove={scrub.onPointerMove}
      onPointerUp={scrub.onPointerUp}
      onPointerCancel={scrub.onPointerCancel}
      onPointerDown={(e) =>
        draft === null && e.target === input.current && (scrub.onPointerDown(e), e.preventDefault())
      }
    >
      <TextInput
        title="A number; +5 or -5 for more or less, =-5 to set it"
        {...rest}
        ref={input}
        inputMode="decimal"
        autoComplete="off"
        value={draft ?? `${plain(value, DECIMALS)}${suffix}`}
        onFocus={() => {
          typed.current = false;
          fresh.current = true;
          setDraft(plain(value, DECIMALS));
        }}
        onBlur={done}
        onChange={(e) => {
          const text = e.currentTarget.value;
          setDraft(text);
          const found = read(text);
          if (typeof found !== "string" && !found.late) set(found.value);
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter") done();
          if (e.key === "Escape") setDraft(null);
          if (e.key !== "ArrowUp" && e.key !== "ArrowDown") return;
          e.preventDefault();
          const by = (e.key === "ArrowUp" ? 1 : -1) * (e.shiftKey && step < 1 ? step / 10 : step);
          const next = Math.min(max ?? Infinity, Math.max(min, Math.round((value + by) * 1e6) / 1e6));
          setDraft(plain(next, DECIMALS));
          set(next);
        }}
      />
    </div>
  );
}
