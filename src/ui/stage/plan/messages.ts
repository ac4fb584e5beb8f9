/** What the window and the painter say to each other. */
import { z } from "@/core/units/zod";
import type { Scenic } from "@/core/show/schema";
import type { Layout } from "@/engine/layout";
import type { Trace } from "@/picture/draw";
import type { Plan } from "@/picture/packed";
import type { View } from "@/picture/plan";

export type ToPainter =
  | { kind: "canvas"; canvas: OffscreenCanvas }
  | { kind: "memory"; layout: Layout; memory: ArrayBufferLike }
  | { kind: "plan"; plan: Plan; scenery: Scenic[] }
  | { kind: "view"; width: number; height: number; ratio: number; view: View; daylight: boolean; calm: boolean }
  /** Fixtures that a trial lights up on the picture, all others dark; null for the stage as it is. */
  | { kind: "trial"; lit: string[] | null }
  /** Dark lamps on their way to where they will next be lit. */
  | { kind: "traces"; traces: readonly Trace[] }
  /** Place in the selection (from 1) of fixtures, and of those with only cells selected. */
  | { kind: "selection"; order: Record<string, number>; cells: Record<string, number[]> };

/** How the painter does: frames a second, and milliseconds for each. */
export const PaceSchema = z.object({ frames: z.number(), ms: z.number() });
