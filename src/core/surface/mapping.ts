/** A control surface: what its messages are, what they are mapped to, and faders that are picked up (MIDI 1.0; Open Sound Control 1.0). */
import { z } from "../units/zod";
import { IdSchema } from "../show/ids";
import type { PlayEvent } from "../play/events";
import type { Show } from "../show/schema";

/** What a surface sends: which control, and where it stands, 0 to 1. */
export interface Moved {
  /** "cc 1 7": control change, channel, number; "note 1 36"; "osc /fader/1". */
  control: string;
  value: number;
}

const ControlSchema = z
  .string()
  .max(120)
  .regex(/^((cc|note) \d{1,2} \d{1,3}|osc \/[!-~]{1,100})$/);

/** What a control can do. */
export const DoesSchema = z.discriminatedUnion("does", [
  z.object({ does: z.literal("level"), list: IdSchema }),
  z.object({ does: z.literal("go"), list: IdSchema }),
  z.object({ does: z.literal("back"), list: IdSchema }),
  z.object({ does: z.literal("pause"), list: IdSchema }),
  z.object({ does: z.literal("release"), list: IdSchema }),
  z.object({ does: z.literal("flash"), list: IdSchema }),
  z.object({ does: z.literal("tap"), list: IdSchema }),
  z.object({ does: z.literal("grand") }),
  z.object({ does: z.literal("macro"), macro: IdSchema }),
]);
export type Does = z.infer<typeof DoesSchema>;
export const MappingSchema = z.object({ control: ControlSchema, to: DoesSchema });
export type Mapping = z.infer<typeof MappingSchema>;
export const MappingsSchema = z.array(MappingSchema).max(500);

/** A MIDI message of a control; undefined for any other. */
export function movedBy(bytes: ArrayLike<number>): Moved | undefined {
  const [status = 0, a, b] = [bytes[0], bytes[1], bytes[2]];
  if (a === undefined || b === undefined || a > 127 || b > 127) return undefined;
  const channel = (status & 0x0f) + 1;
  if ((status & 0xf0) === 0xb0) return { control: `cc ${channel} ${a}`, value: b / 127 };
  if ((status & 0xf0) === 0x90) return { control: `note ${channel} ${a}`, value: b / 127 };
  if ((status & 0xf0) === 0x80) return { control: `note ${channel} ${a}`, value: 0 };
  return undefined;
}

/** A fader is picked up where it comes this near to what it moves, percent. */
const NEAR = 2.5;

/** How each fader stands to what it moves. */
export interface Pickup {
  /** Where it was last, percent. */
  at: number;
  /** It has been picked up: what it moves follows, until something else moves that. */
  holds: boolean;
}

/**
 * Whether a fader that was moved has what it moves: it is picked up where it meets it or passes it, so that nothing jumps.
 * @param now where what it moves stands, percent.
 */
export function pickUp(last: Pickup | undefined, to: number, now: number): Pickup {
  if (last?.holds && Math.abs(last.at - now) <= NEAR) return { at: to, holds: true };
  const meets = Math.abs(to - now) <= NEAR;
  const passes = last !== undefined && (last.at - now) * (to - now) <= 0;
  return { at: to, holds: meets || passes };
}

/** What a control that was moved plays; undefined for what is no playing, or only happens when it is pressed. */
export function eventOf(show: Pick<Show, "lists">, to: Does, value: number): PlayEvent | undefined {
  if (to.does === "grand") return { kind: "grand", value: Math.round(value * 1000) / 10 };
  if (to.does === "macro") return undefined;
  const { list } = to;
  if (!show.lists[list]) return undefined;
  if (to.does === "level") return { kind: "level", list, value: Math.round(value * 1000) / 10 };
  if (to.does === "flash") return { kind: "flash", list, on: value > 0 };
  return value > 0 ? { kind: to.does, list } : undefined;
}

/** In words. */
export function doesText(show: Pick<Show, "lists" | "macros">, to: Does): string {
  if (to.does === "grand") return "grand master";
  if (to.does === "macro")
    return `macro ${show.macros[to.macro]?.number ?? "?"} ${show.macros[to.macro]?.name ?? ""}`.trim();
  const list = show.lists[to.list];
  return `${to.does} of list ${list?.number ?? "?"} ${list?.name ?? ""}`.trim();
}

/** What a place on the screen can be learned as: "level l4", "grand", "macro m7". */
export function doesOf(text: string): Does | undefined {
  const [does, id] = text.split(" ");
  const made = does === "macro" ? { does, macro: id } : does === "grand" ? { does } : { does, list: id };
  return DoesSchema.safeParse(made).data;
}
