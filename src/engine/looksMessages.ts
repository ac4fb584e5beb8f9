/** What the looks worker and its window say to each other. */
import { z } from "@/core/units/zod";
import { HandsSchema } from "@/core/show/hands";
import { FindingSchema } from "@/core/check/finding";
import { TransitionSchema } from "@/core/play/arrive/transition";
import { ShowSchema } from "@/core/show/schema";
import { LayoutSchema } from "./layout";
import { MemorySchema } from "./messages";

const words = z.string().nullable();
const intents = z.array(z.looseObject({ kind: z.string() })).readonly();
const AskedSchema = z.union([z.object({ line: z.string() }), z.object({ intents })]);
/** What is asked about: a line, or edits that stand already. */
export type Asked = z.infer<typeof AskedSchema>;

export const ToLooksSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("open"), world: z.object({ show: ShowSchema, hands: HandsSchema }) }),
  /** Diffs are text: cheap to hand over however large. */
  z.object({ kind: z.literal("diff"), diff: z.string() }),
  /** Where the stage is published. */
  z.object({ kind: z.literal("stage"), layout: LayoutSchema, memory: MemorySchema }),
  /** What would this line, or these edits, do, and which looks would they change? A newer question takes the place of one still being worked out. */
  z.object({
    kind: z.literal("foresee"),
    asked: AskedSchema,
    steps: z.object({ done: words, undone: words }),
    id: z.number().int(),
  }),
  /** Another version of the show that pictures are asked of: what it differs by from the show as it is now. */
  z.object({ kind: z.literal("version"), id: z.number().int(), diff: z.string() }),
  /** The picture of a cue's look: as it is, as the line of a question would make it, or in another version of the show. */
  z.object({
    kind: z.literal("picture"),
    id: z.number().int(),
    list: z.string(),
    cue: z.string(),
    after: z.number().int().nullable(),
    version: z.number().int().optional(),
    width: z.number().int().min(1).max(4096),
    height: z.number().int().min(1).max(4096),
    daylight: z.boolean(),
    /** The look it was signed off with, in place of its own. */
    signed: z.boolean().optional(),
    /** On its way in: so many seconds after its go. */
    at: z.number().min(0).max(1e6).optional(),
    /** Fixtures that are ringed. */
    marks: z.array(z.string()).max(20_000).optional(),
    /** The content of the picture that is there already. */
    have: z.string(),
  }),
  z.object({ kind: z.literal("forget"), id: z.number().int() }),
  /** How the stage gets into a cue. */
  z.object({ kind: z.literal("timeline"), id: z.number().int(), list: z.string(), cue: z.string() }),
]);
export type ToLooks = z.infer<typeof ToLooksSchema>;

export const FromLooksSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("says"),
    id: z.number().int(),
    says: z.string().nullable(),
    follows: z.string().nullable(),
    means: z.array(z.string()),
    refusal: z.object({ what: z.string(), cure: z.string().optional() }).nullable(),
    /** The same edits with later looks kept, where they let them change. */
    keeps: intents.nullable(),
    /** The palettes it would change. */
    palettes: z.array(z.string()),
  }),
  /** Everything suspicious in the show as it is; and by cue the fixtures that have moved there in the dark. */
  z.object({ kind: z.literal("timed"), id: z.number().int(), transition: TransitionSchema.nullable() }),
  z.object({
    kind: z.literal("found"),
    findings: z.array(FindingSchema),
    moons: z.record(z.string(), z.array(z.string())),
  }),
  z.object({
    kind: z.literal("rippled"),
    id: z.number().int(),
    /** Cues whose signed-off look would be broken. */
    signed: z.array(z.object({ list: z.string(), cue: z.string() })),
    rippled: z.array(z.object({ list: z.string(), cue: z.string(), fixtures: z.array(z.string()) })),
  }),
  /** A picture; none where it is the one that is there, or where (without content) there is no such cue. */
  z.object({
    kind: z.literal("pictured"),
    id: z.number().int(),
    content: z.string(),
    bitmap: z.custom<ImageBitmap>((v) => v instanceof ImageBitmap).nullable(),
  }),
]);
export type FromLooks = z.infer<typeof FromLooksSchema>;
