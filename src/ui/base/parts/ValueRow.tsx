"use client";

import { IconTrendingUp, IconWaveSine } from "@tabler/icons-react";
import { useState } from "react";
import { useScrub } from "@/ui/base/gestures/scrub";
import classes from "./parts.module.css";

export type Form = "held" | "list" | "default";

interface Props {
  label: string;
  /** The value as text, with its unit. */
  text: string;
  /** Where it comes from, in words. */
  source: string;
  form: Form;
  /** Own timing, in words. */
  time?: string;
  /** The palette it comes from, with its diamond. */
  palette?: string;
  /** Of how many of several it is, where not of all. */
  only?: string;
  /** 0..1 along its range; undefined draws no bar. */
  share?: number;
  perPixel: number;
  onScrub(by: number, first: boolean): void;
  /** What was typed: a value, or a spread such as "20 to 80". */
  onType(text: string): void;
  /** What stands in the field while it is typed; null when it closes. */
  onTyping?(text: string | null): void;
  /** Asks for the stack behind it. */
  onWhy?(): void;
  /** Whether its fan over several is open, and opening or closing it. */
  fan?: boolean;
  onFan?(): void;
  /** Whether an effect runs on it, and starting or opening one. */
  wave?: boolean;
  onWave?(): void;
}

/** One value: label, bar and number. Its form tells where it comes from; dragging, wheel and arrows change it, a press types. */
export function ValueRow({
  label,
  text,
  source,
  form,
  time,
  palette,
  only,
  share,
  perPixel,
  onScrub,
  onType,
  onTyping,
  onWhy,
  fan,
  onFan,
  wave = false,
  onWave,
}: Props) {
  const [draft, put] = useState<string | null>(null);
  const setDraft = (text: string | null) => (put(text), onTyping?.(text));
  const scrub = useScrub({ perPixel, onChange: onScrub, onPress: () => setDraft("") });
  const bar = useScrub({ perPixel, onChange: onScrub });
  return (
    <div className={classes.row} data-form={form} data-attribute={label}>
      <button
        type="button"
        className={classes.label}
        style={{ gridColumn: `span ${1 + Number(!onFan) + Number(!onWave)}` }}
        title={`Why ${label.toLowerCase()} shows this${only ? `. ${only} selected have it` : ""}`}
        data-partly={only !== undefined}
        onClick={onWhy}
      >
        {label}
      </button>
      {onFan && (
        <button
          type="button"
          className={classes.fan}
          aria-pressed={fan}
          aria-label={`Fan ${label.toLowerCase()} over the selection`}
          title="Fan over the selection"
          onClick={onFan}
        >
          <IconTrendingUp size={14} aria-hidden />
        </button>
      )}
      {onWave && (
        <button
          type="button"
          className={classes.fan}
          data-runs={wave}
          aria-pressed={wave}
          aria-label={wave ? `Open the effect on ${label.toLowerCase()}` : `A wave on ${label.toLowerCase()}`}
          title={wave ? "An effect runs here: open it" : "Start a wave on it"}
          onClick={onWave}
        >
          <IconWaveSine size={14} aria-hidden />
        </button>
      )}
      <div className={classes.bar} {...bar} aria-hidden>
        {share !== undefined && <span style={{ width: `${Math.round(share * 1000) / 10}%` }} />}
      </div>
      {draft === null ? (
        <button
          type="button"
          className={classes.number}
          data-long={text.length + (palette ? 2 : 0) + (time ? 2 : 0) > 9}
          title={`${palette ? `${palette}, ` : ""}${source}${time ? ` · own time ${time}` : ""}`}
          aria-label={`${label} ${text}, ${source}`}
          {...scrub}
          onKeyDown={(e) => (e.key === "Enter" ? setDraft("") : scrub.onKeyDown(e))}
        >
          {palette && (
            <span className={classes.clock} aria-hidden>
              {palette.slice(0, 1)}
            </span>
          )}
          {time && (
            <span className={classes.clock} aria-hidden>
              ◷
            </span>
          )}
          {text}
        </button>
      ) : (
        <input
          className={classes.number}
          value={draft}
          autoFocus
          aria-label={`${label}: type a value, or a spread such as 20 to 80`}
          title="A value; a spread such as 20 to 80; +5 or -5 for more or less, =-5 to set it; 50 over 3 to take 3 s"
          placeholder={text}
          onChange={(e) => setDraft(e.currentTarget.value)}
          onBlur={() => setDraft(null)}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === "Escape") setDraft(null);
            if (e.key !== "Enter") return;
            if (draft.trim()) onType(draft.trim());
            setDraft(null);
          }}
        />
      )}
    </div>
  );
}
