"use client";

import { useState } from "react";
import classes from "./parts.module.css";

interface Props {
  value: string;
  label: string;
  empty?: string;
  mono?: boolean;
  onSave(text: string): void;
}

/** A text that turns into a field where it stands: click or Enter to edit, Enter keeps, Esc leaves it. */
export function EditableText({ value, label, empty = "", mono = false, onSave }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const keep = () => {
    if (draft !== null && draft.trim() !== value) onSave(draft.trim());
    setDraft(null);
  };
  if (draft === null) {
    return (
      <button type="button" className={classes.editable} data-mono={mono} data-empty={value === ""} aria-label={`${label}: ${value || "empty"}. Press to edit`} onClick={() => setDraft(value)}>
        {value || empty}
      </button>
    );
  }
  return (
    <input
      className={classes.editing} data-mono={mono} value={draft} aria-label={label} autoFocus onFocus={(e) => e.currentTarget.select()}
      onChange={(e) => setDraft(e.currentTarget.value)} onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") setDraft(null);
        e.stopPropagation();
      }}
    />
  );
}
