"use client";

/** Which effect is being edited, under the stage. */
import { create } from "zustand";
import type { EffectRecord } from "@/core/show/effectSchema";
import type { Hands } from "@/core/show/hands";
import type { Id } from "@/core/show/ids";

export interface Editing {
  /** What is held, or an effect of the show; null where none is open. */
  open: "held" | Id | null;
  /** The key of the voice in hand. */
  voice: number | null;
  /** The effect that is tried, and what hands held before and just after it began: it lasts while the effect is open. */
  trial: { of: Id; before: Hands; during: Hands } | null;
  /** An effect's voices as they were when it was opened. */
  before: { of: Id; voices: EffectRecord["voices"] } | null;
}

export const useEditing = create<Editing>(() => ({ open: null, voice: null, trial: null, before: null }));

/** Opens the editor. @param voice the one to begin with. */
export const editEffect = (open: Editing["open"], voice: number | null = null): void =>
  useEditing.setState((now) => ({ open, voice, before: now.before?.of === open ? now.before : null }));
