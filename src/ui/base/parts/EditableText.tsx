"use client";

import { useRef, useState } from "react";
import { useNumberScrub } from "@/ui/base/gestures/scrub";
import classes from "./parts.module.css";

interface Props {
  value: string;
  label: string;
  empty?: string;
  mono?: boolean;
  onSave(text: string): void;
  /** It begins as a field, and tells when it no longer is one. */
  onClosed?(): void;
  /** Where the text is a number: what scrubbing it does. */
  scrub?: { value: number; min: number; step: number; onSet(value: number, first: boolean): void };
}

/** With Shift or Ctrl a press chooses what the text stands in. */
const chooses = (event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): boolean =>
  event.shiftKey || event.ctrlKey || event.metaKey;

/** A text that turns into a field where it stands: click or Enter to edit, Enter keeps, Esc leaves it. A number is scrubbed too: drag, wheel, arrows. */
export function EditableText({ value, label, empty = "", mono = false, onSave, onClosed, scrub }: Props) {
  const [draft, setDraft] = useState<string | null>(onClosed ? value : null);
  const { onKeyDown, ...pointer } = useNumberScrub({
    value: 0,
    onSet: () => undefined,
    ...scrub,
    onPress: (e) => chooses(e) || setDraft(value),
  });
  const taken = useRef(false);
  /** Whether the keys were in the field: they stay where it was. */
  const stays = useRef(false);
  const close = (byKey = true) => {
    stays.current = byKey;
    setDraft(null);
    onClosed?.();
  };
  const keep = (byKey: boolean) => {
    if (draft !== null && draft.trim() !== value) onSave(draft.trim());
    close(byKey);
  };
  if (draft === null) {
    return (
      <button
        type="button"
        autoFocus={stays.current}
        className={classes.editable}
        data-mono={mono}
        data-empty={value === ""}
        data-number={scrub !== undefined}
        aria-label={`${label}: ${value || empty || "empty"}. Press to edit`}
        {...(scrub
          ? { ...pointer, onKeyDown: (e) => (e.key === "Enter" ? setDraft(value) : onKeyDown(e)) }
          : { onClick: (e) => chooses(e) || setDraft(value) })}
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
      onBlur={(e) => {
        // The menu it was opened from gives the focus back to its button once: the field takes it again.
        const toMenu = e.relatedTarget?.matches("[aria-haspopup=menu]") ?? false;
        if (!onClosed || !toMenu || taken.current) return keep(false);
        taken.current = true;
        e.currentTarget.focus();
      }}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === "Escape") {
          // Else the press would go on to the button that takes the field's place, and open it again.
          e.preventDefault();
          if (e.key === "Enter") keep(true);
          else close();
        }
        e.stopPropagation();
      }}
    />
  );
}
