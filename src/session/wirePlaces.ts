/** Where the bridge and the stand-in node of this start are. */
import { z } from "@/core/units/zod";

const PlacesSchema = z.object({ token: z.string(), bridge: z.number().int().nullable(), node: z.number().int().nullable() });
export type WirePlaces = z.infer<typeof PlacesSchema>;

/** Asks the app; null where it does not know: then nothing goes out, and all else works. */
export async function findWire(): Promise<WirePlaces | null> {
  try {
    const answer = await fetch("/api/wire");
    const parsed = PlacesSchema.safeParse(await answer.json());
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}
