/** What the engine's worker and its window say to each other. */
import { z } from "@/core/units/zod";
import { FromBridgeSchema, OscHeardSchema } from "@/bridge/messages";
import { PlayEventSchema } from "@/core/play/events";
import { WhySchema } from "@/core/play/why";
import { HandsSchema } from "@/core/show/hands";
import { ShowSchema } from "@/core/show/schema";
import { LayoutSchema } from "./layout";

/**
 * The running state as it is kept: the text of a SavedPlay, read by the engine alone, and the stage time
 * up to which nothing but time has passed since.
 */
export const RunningSchema = z.object({ saved: z.string(), now: z.number() });
export type Running = z.infer<typeof RunningSchema>;
/** While something moves, the time is told this often, milliseconds. */
export const CLOCK_EVERY_MS = 250;

/** Asked of the wire: nodes to tell of themselves; the bridge back from another window; a slot held at a byte to test it, null to let go. */
export const WireAskSchema = z.object({
  kind: z.literal("wire"),
  ask: z.union([
    z.literal("poll"),
    z.literal("take"),
    z.literal("endTests"),
    /** Whether Open Sound Control is heard. */
    z.object({ listen: z.boolean() }),
    /** Open Sound Control to a port of this machine. */
    z.object({ osc: z.number().int().min(1).max(65_535), address: z.string(), value: z.number() }),
    z.object({
      universe: z.number().int(),
      slot: z.number().int().min(1).max(512),
      byte: z.number().int().min(0).max(255).nullable(),
    }),
  ]),
});
export type WireAsk = z.infer<typeof WireAskSchema>["ask"];

export const WireStateSchema = z.object({
  /** What the bridge says; null while it cannot be reached. */
  bridge: FromBridgeSchema.nullable(),
  /** Destinations that wait for a person to agree to them. */
  waiting: z.array(z.string()),
  /** Slots held for a test, "universe:slot" to byte. */
  tests: z.record(z.string(), z.number()),
});
export type WireState = z.infer<typeof WireStateSchema>;

export const ToEngineSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("open"),
    world: z.object({ show: ShowSchema, hands: HandsSchema }),
    running: RunningSchema.nullable(),
    frames: z.string(),
    standby: z.boolean(),
  }),
  /** On standby: the running state as the other window saves it. */
  RunningSchema.partial().extend({ kind: z.literal("running") }),
  /** Ends the standby: goes on for the window that has gone. */
  z.object({
    kind: z.literal("begin"),
    running: RunningSchema.nullable(),
    /** Seconds the other engine went on for after it was last heard of. */
    since: z.number().min(0),
  }),
  /** What of the outputs people have agreed to. */
  z.object({
    kind: z.literal("consent"),
    consent: z.object({ imported: z.boolean(), given: z.array(z.string()).readonly() }),
  }),
  z.object({ kind: z.literal("audience"), on: z.boolean() }),
  /** Where the bridge is, and what this show is called there. */
  z.object({ kind: z.literal("bridge"), port: z.number().int(), token: z.string(), show: z.string() }),
  WireAskSchema,
  /** A change as a teller tells it, or a diff as text: cheap to hand over however large. */
  z.object({
    kind: z.literal("diff"),
    text: z.string(),
    numbers: z.custom<Float64Array<ArrayBuffer>>((v) => v instanceof Float64Array).optional(),
  }),
  /** A step of several edits begins; or it was taken back, and lists it had ended stand as they did before it. */
  z.object({ kind: z.literal("step"), is: z.enum(["begun", "back"]) }),
  z.object({ kind: z.literal("why"), key: z.string(), id: z.number().int() }),
  /** `at`: milliseconds since the epoch, with fractions. */
  z.object({ kind: z.literal("event"), event: PlayEventSchema, at: z.number(), id: z.number().int() }),
]);
export type ToEngine = z.infer<typeof ToEngineSchema>;

export const RunViewSchema = z.object({
  slot: z.number().int(),
  cue: z.string().nullable(),
  /** The cue that the next go leads to. */
  next: z.string().nullable(),
  level: z.number(),
  paused: z.boolean(),
  /** Still giving the stage something after its release. */
  fading: z.boolean(),
  /** Percent: of its times, and of its effects. */
  rate: z.number(),
  effectRate: z.number(),
  /** Of a chase: beats a minute as they are now. */
  bpm: z.number().nullable(),
  /** It was tapped, or its hands took it over: crossfaded so far by hand, 0..1. */
  byHand: z.number().nullable(),
  /** Its flash is held. */
  flashed: z.boolean(),
  /** Of a chase: its tempo is what was tapped, not what is stored. */
  tapped: z.boolean(),
  /** Whether it has the stage for all, some or none of what it holds. */
  has: z.enum(["all", "some", "none"]),
});

export const PlayingSchema = z.object({
  runs: z.record(z.string(), RunViewSchema),
  grand: z.number(),
  blackout: z.boolean(),
  timecode: z.object({
    frames: z.number(),
    speed: z.union([z.literal(1), z.literal(0), z.literal(-1)]),
    outside: z.boolean(),
    /** Lost: it goes on by itself, or holds. */
    lost: z.boolean(),
  }),
  /** Macros that wait. */
  waiting: z.array(z.number()),
  /** Dark fixtures on their way to where they will next be lit, degrees. */
  moving: z.array(z.object({ fixture: z.string(), pan: z.number(), tilt: z.number() })),
});
export type Playing = z.infer<typeof PlayingSchema>;

/** The memory of a frame, shared where it can be. */
export const MemorySchema = z.union([
  z.instanceof(ArrayBuffer),
  z.custom<SharedArrayBuffer>((v) => typeof SharedArrayBuffer !== "undefined" && v instanceof SharedArrayBuffer),
]);

export const FromEngineSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("layout"), layout: LayoutSchema, memory: MemorySchema }),
  /** A copy of the frame, where memory cannot be shared. */
  z.object({ kind: z.literal("frame"), generation: z.number().int(), memory: z.instanceof(ArrayBuffer) }),
  z.object({ kind: z.literal("playing"), playing: PlayingSchema }),
  z.object({ kind: z.literal("saved"), saved: z.string() }),
  z.object({ kind: z.literal("clock"), now: z.number() }),
  z.object({ kind: z.literal("wire"), wire: WireStateSchema }),
  z.object({ kind: z.literal("done"), id: z.number().int(), refusal: z.string().nullable() }),
  z.object({ kind: z.literal("because"), id: z.number().int(), why: WhySchema.nullable() }),
  z.object({ kind: z.literal("trouble"), text: z.string() }),
  OscHeardSchema,
  /** What is left of a macro from the first line that does more than play: for whoever can edit. */
  z.object({ kind: z.literal("runs"), macro: z.number().int(), lines: z.array(z.string()) }),
  /** Said now and then, so that an engine that has died or hangs is noticed. */
  z.object({ kind: z.literal("alive") }),
]);
export type FromEngine = z.infer<typeof FromEngineSchema>;
