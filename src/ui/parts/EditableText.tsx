"use client";

import { useState } from "react";
import { useNumberScrub } from "./scrub";
import classes from "./parts.module.css";

interface Props {
  value: string;
  label: string;
  empty?: string;
  mono?: boolean;
  onSave(text: string): void;
  /** Where the text is a number: what scrubbing it does. */
  scrub?: { value: number; min: number; step: number; onSet(value: number, first: boolean): void };
}

/** A text that turns into a field where it stands: click or Enter to edit, Enter keeps, Esc leaves it. A number is scrubbed too: drag, wheel, arrows. */
export function EditableText({ value, label, empty = "", mono = false, onSave, scrub }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const { onKeyDown, ...pointer } = useNumberScrub({
    value: 0,
    onSet: () => undefined,
    ...scrub,
    onPress: () => setDraft(value),
  });
  const keep = () => {
    if (draft !== null && draft.trim() !== value) onSave(draft.trim());
    setDraft(null);
  };
  if (draft === null) {
    return (
      <button
        type="button"
        className={classes.editable}
        data-mono={mono}
        data-empty={value === ""}
        data-number={scrub !== undefined}
        aria-label={`${label}: ${value || empty || "empty"}. Press to edit`}
        {...(scrub
          ? { ...pointer, onKeyDown: (e) => (e.key === "Enter" ? setDraft(value) : onKeyDown(e)) }
          : { onClick: () => setDraft(value) })}
      >
        {value || empty}
      </button>
    );
  }
  return (
    <input
      className={classes.editing}
      data-mono={mono}
      value={draft}
      aria-label={label}
      autoFocus
      onFocus={(e) => e.currentTarget.select()}
      onChange={(e) => setDraft(e.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") setDraft(null);
        e.stopPropagation();
      }}
    />
  );
}
