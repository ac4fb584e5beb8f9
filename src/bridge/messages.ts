/** What the engine and the bridge say to each other, beside the frames. */
import { z } from "@/core/units/zod";
import { OutputSchema, WireSchema } from "@/core/show/schema";

const slots = z.array(z.number().int().min(1).max(512)).max(512);
/** Slots that carry intensity: those of 8 bits, and the coarse ones of 16. */
export const IntensitySchema = z.object({ single: slots, double: slots });
export type Intensity = z.infer<typeof IntensitySchema>;

export const ToBridgeSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("outputs"), outputs: z.record(z.string().regex(/^\d{1,5}$/), OutputSchema), wire: WireSchema,
    intensity: z.record(z.string().regex(/^\d{1,5}$/), IntensitySchema),
  }),
  z.strictObject({ kind: z.literal("poll") }),
]);
export type ToBridge = z.infer<typeof ToBridgeSchema>;

const NodeSchema = z.object({ ip: z.string(), short: z.string(), long: z.string(), ports: z.array(z.number()) });
export const FromBridgeSchema = z.object({
  kind: z.literal("state"),
  /** Universes sent, with packets a second. */
  sending: z.array(z.object({ universe: z.number(), perSecond: z.number() })),
  nodes: z.array(NodeSchema),
  /** What went wrong last; null where nothing did. */
  trouble: z.string().nullable(),
  /** Network interfaces of the machine. */
  interfaces: z.array(z.object({ name: z.string(), address: z.string() })),
});
export type FromBridge = z.infer<typeof FromBridgeSchema>;
