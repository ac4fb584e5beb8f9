/** What the stand-in node tells of what it received. */
import { z } from "@/core/units/zod";

export const StreamSchema = z.object({
  protocol: z.enum(["artnet", "sacn"]),
  number: z.number().int(),
  /** Address of the sender, and the name it gives itself. */
  from: z.string(),
  source: z.string(),
  priority: z.number(),
  perSecond: z.number(),
  packets: z.number(),
  lost: z.number(),
  /** Milliseconds since the last packet. */
  age: z.number(),
  ended: z.boolean(),
});
export type Stream = z.infer<typeof StreamSchema>;

/** The universes a source says it sends, by sACN universe discovery. */
export const AnnouncedSchema = z.object({ source: z.string(), from: z.string(), universes: z.array(z.number().int()) });
export type Announced = z.infer<typeof AnnouncedSchema>;

export const ReceivedSchema = z.object({
  kind: z.literal("received"),
  host: z.string(),
  streams: z.array(StreamSchema),
  announced: z.array(AnnouncedSchema),
  /** Packets that were none. */
  malformed: z.number(),
  trouble: z.string().nullable(),
});
export type Received = z.infer<typeof ReceivedSchema>;
