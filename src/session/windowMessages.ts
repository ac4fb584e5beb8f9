/** What windows of one show say to each other. One hosts; the others are in step with it. */
import { z } from "@/core/units/zod";
import { LayoutSchema } from "@/engine/layout";
import { PlayingSchema, RunningSchema, WireAskSchema, WireStateSchema } from "@/engine/messages";
import { PlayEventSchema } from "@/core/play/events";
import { WhySchema } from "@/core/play/why";
import { HandsSchema } from "@/core/show/hands";
import { DiffSchema } from "@/core/show/change/diff";
import { refuse } from "@/core/show/refusal";
import { ShowSchema } from "@/core/show/schema";
import { ConsentSchema } from "./storage/database";
import { StepSchema } from "./storage/steps";

/** Checked by a schema, and handed on with what a newer version has added to it. */
const whole = <T>(schema: z.ZodType<T>) => z.custom<T>((value) => schema.safeParse(value).success);
const IntentSchema = z.looseObject({ kind: z.string() });

/** What a guest asks the host to do. */
export const RequestSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("do"),
    intents: z.array(IntentSchema),
    events: z.array(PlayEventSchema),
    control: z.enum(["undo", "redo", "takeback"]).optional(),
    says: z.string().nullable(),
    join: z.boolean(),
  }),
  z.object({ kind: z.literal("pieces"), pieces: z.array(z.array(IntentSchema)), says: z.string() }),
  z.object({ kind: z.literal("why"), key: z.string() }),
  z.object({ kind: z.literal("macro"), id: z.string().max(20) }),
  z.object({ kind: z.literal("agree"), destinations: z.array(z.string().max(100)).max(10_000) }),
  WireAskSchema,
]);
export type Request = z.infer<typeof RequestSchema>;

/** What a request is known by, among all windows. */
export const requestRef = (from: string, id: number): string => `${from} ${id}`;
/** So many of the last requests are known as done: a new host is asked again only for those that are open. */
export const MOST_REFS = 500;

/**
 * Whether a request whose answer never came may be done by another host, where it is not known as done: edits are told
 * of as they are done. Playing is not: a second go would be a go too many.
 */
export const canRepeat = (request: Request): boolean =>
  request.kind === "do" ? request.events.length === 0 && request.control === undefined : request.kind !== "macro";

/** Told of a deed of which nobody knows whether it was done. */
export const HOST_LEFT = refuse(
  "the window that hosted this show closed before it answered, so this may not have been done",
  "Look at the stage, then do it again where it was not",
);

const StepsSchema = z.object({ done: z.string().nullable(), undone: z.string().nullable() });
export type Steps = z.infer<typeof StepsSchema>;
const SavedStateSchema = z.enum(["saved", "saving", "failed"]);

export const WindowMessageSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("join"), from: z.string() }),
  z.object({ kind: z.literal("leave"), from: z.string() }),
  z.object({ kind: z.literal("hosting") }),
  /** The host's window closes: its engine has stopped. */
  z.object({ kind: z.literal("leaving") }),
  z.object({ kind: z.literal("request"), from: z.string(), id: z.number().int(), request: RequestSchema }),
  z.object({
    kind: z.literal("answer"),
    to: z.string(),
    id: z.number().int(),
    refusal: z.object({ what: z.string(), cure: z.string().optional() }).nullable(),
    why: WhySchema.nullable(),
  }),
  z.object({
    kind: z.literal("welcome"),
    to: z.string(),
    world: z.object({ show: whole(ShowSchema), hands: whole(HandsSchema) }),
    playing: PlayingSchema,
    layout: LayoutSchema.nullable(),
    saved: SavedStateSchema,
    wire: WireStateSchema,
    steps: StepsSchema,
    seq: z.number().int(),
  }),
  z.object({
    kind: z.literal("diff"),
    diff: DiffSchema,
    steps: StepsSchema,
    seq: z.number().int(),
    step: StepSchema.nullable(),
    /** The request it was done for. */
    did: z.string().max(100).nullable(),
  }),
  /** All up to this change is in storage. */
  z.object({ kind: z.literal("written"), seq: z.number().int() }),
  z.object({ kind: z.literal("layout"), layout: LayoutSchema }),
  z.object({ kind: z.literal("playing"), playing: PlayingSchema }),
  z.object({ kind: z.literal("saved"), saved: SavedStateSchema }),
  z.object({ kind: z.literal("wire"), wire: WireStateSchema }),
  /** Why nothing plays and nothing will; null while it does. */
  z.object({ kind: z.literal("gone"), gone: z.string().nullable() }),
  /** Where the show may send. */
  z.object({ kind: z.literal("consent"), consent: ConsentSchema }),
  RunningSchema.partial().extend({ kind: z.literal("running") }),
]);
/** A request of a window of another version, say: what is known of it to answer it. */
export const UnknownRequestSchema = z.object({ kind: z.literal("request"), from: z.string(), id: z.number().int() });
export type WindowMessage = z.infer<typeof WindowMessageSchema>;

export const windowChannel = (show: string): string => `bold-comet-${show}`;
/** Frames come from the engine's worker itself, so that a hidden host keeps the others lit. */
export const frameChannel = (show: string): string => `bold-comet-frames-${show}`;

export const FrameMessageSchema = z.object({ generation: z.number().int(), memory: z.instanceof(ArrayBuffer) });
export type FrameMessage = z.infer<typeof FrameMessageSchema>;
