/** Where the bridge and the stand-in node of this start are. */
import { z } from "@/core/units/zod";

const PlacesSchema = z.object({
  token: z.string(),
  bridge: z.number().int().nullable(),
  node: z.number().int().nullable(),
});
export type WirePlaces = z.infer<typeof PlacesSchema>;

/** Asks the app; null where it does not know: then nothing goes out, and all else works. */
export async function findWire(): Promise<WirePlaces | null> {
  try {
    const answer = await fetch("/api/wire", { cache: "no-store" });
    const parsed = PlacesSchema.safeParse(await answer.json());
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}

const LOOK_MS = 2000;

/**
 * Tells where the bridge is, now and whenever it is another one: it is asked for again while it cannot be
 * reached. @returns what ends it.
 */
export function followWire(isReached: () => boolean, found: (port: number, token: string) => void): () => void {
  let last = "";
  let over = false;
  const look = async () => {
    const places = await findWire();
    const now = `${places?.bridge} ${places?.token}`;
    if (over || !places?.bridge || now === last) return;
    last = now;
    found(places.bridge, places.token);
  };
  void look();
  const timer = setInterval(() => void (isReached() || look()), LOOK_MS);
  return () => {
    over = true;
    clearInterval(timer);
  };
}
