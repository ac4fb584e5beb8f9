/** Named moments of a show: earlier versions that can be gone back to. */
import { z } from "@/core/units/zod";
import { readShow } from "@/core/show/checking/check";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { SealedSchema, database, entriesOf, readRange, readRecord, sealCalmly, strictly, unseal } from "./database";

/** A small picture, as a data address: what of the web it may be is said by its beginning. */
const PictureSchema = z
  .string()
  .max(120_000)
  .regex(/^data:image\/(webp|png);base64,[A-Za-z0-9+/=]*$/);
const MomentSchema = SealedSchema.extend({
  name: z.string(),
  fixtures: z.number(),
  cues: z.number(),
  picture: PictureSchema.optional().catch(undefined),
  named: z.boolean().default(false),
});
/** So many are kept of those that come by themselves, and of those that were named. */
const MOST = { byItself: 30, named: 100 };

export interface Moment {
  at: number;
  name: string;
  fixtures: number;
  cues: number;
  /** What the stage of that moment looked like, as a data address. */
  picture?: string | undefined;
  /** A person gave it its name: it outlives those that come by themselves. */
  named: boolean;
}

export interface Keeping {
  now?: number;
  picture?: string | undefined;
  named?: boolean;
}

/** Keeps a show as a moment, unless the last one is the very same and it has no name of its own; the oldest beyond what is kept go. */
export async function keepMoment(id: string, name: string, show: Show, how: Keeping = {}): Promise<void> {
  const { now = Date.now(), picture, named = false } = how;
  const sealed = await sealCalmly(show);
  const db = await database();
  const there = (await readRange(db, "moments", entriesOf(id))).map(({ key, value }) => ({
    key,
    moment: MomentSchema.safeParse(value).data,
  }));
  const keys = there.map(({ key }) => key);
  if (!named && there.at(-1)?.moment?.check === sealed.check) return;
  const kinds = there.map(({ moment }) => (moment?.named ? "named" : "byItself"));
  const own = named ? "named" : "byItself";
  const alike = keys.filter((_, i) => kinds[i] === own);
  const cues = Object.values(show.lists).reduce((sum, list) => sum + Object.keys(list.cues).length, 0);
  const tx = strictly(db, ["moments"]);
  const store = tx.objectStore("moments");
  await Promise.all([
    store.put(
      {
        ...sealed,
        name,
        fixtures: Object.keys(show.fixtures).length,
        cues,
        named,
        ...(PictureSchema.safeParse(picture).success ? { picture: picture! } : {}),
      },
      [id, now],
    ),
    ...alike.slice(0, Math.max(0, alike.length + 1 - MOST[own])).map((key) => store.delete(key)),
    tx.done,
  ]);
}

/** The moments of a show, the newest first. */
export async function listMoments(id: string): Promise<Moment[]> {
  const db = await database();
  return (await readRange(db, "moments", entriesOf(id)))
    .flatMap(({ key, value }) => {
      const parsed = MomentSchema.safeParse(value);
      return parsed.success
        ? [
            (({ name, fixtures, cues, picture, named }) => ({ at: key[1], name, fixtures, cues, picture, named }))(
              parsed.data,
            ),
          ]
        : [];
    })
    .reverse();
}

/** The show at a moment. */
export async function openMoment(id: string, at: number): Promise<Show | Refusal> {
  const parsed = MomentSchema.safeParse(await readRecord(await database(), "moments", [id, at]));
  const show = parsed.success
    ? readShow(unseal(parsed.data))
    : refuse("that moment is gone or damaged", "Choose another one");
  return isRefusal(show) ? refuse(show.what, "Choose another moment") : show;
}
