/** Named moments of a show: earlier versions that can be gone back to. */
import { z } from "@/core/units/zod";
import { readShow } from "@/core/show/check";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { database, entriesOf, seal, SealedSchema, strictly, unseal } from "./database";

const MomentSchema = SealedSchema.extend({ name: z.string(), fixtures: z.number(), cues: z.number() });
const MOST = 30;

export interface Moment {
  at: number;
  name: string;
  fixtures: number;
  cues: number;
}

/** Keeps a show as a moment, unless the last one is the very same; the oldest beyond 30 go. */
export async function keepMoment(id: string, name: string, show: Show, now = Date.now()): Promise<void> {
  const sealed = seal(show);
  const db = await database();
  const keys = await db.getAllKeys("moments", entriesOf(id));
  const last = keys.at(-1);
  if (last && (await db.get("moments", last))?.check === sealed.check) return;
  const cues = Object.values(show.lists).reduce((sum, list) => sum + Object.keys(list.cues).length, 0);
  const tx = strictly(db, ["moments"]);
  const store = tx.objectStore("moments");
  await Promise.all([
    store.put({ ...sealed, name, fixtures: Object.keys(show.fixtures).length, cues }, [id, now]),
    ...keys.slice(0, Math.max(0, keys.length + 1 - MOST)).map((key) => store.delete(key)),
    tx.done,
  ]);
}

/** The moments of a show, the newest first. */
export async function listMoments(id: string): Promise<Moment[]> {
  const db = await database();
  const [keys, values] = await Promise.all([
    db.getAllKeys("moments", entriesOf(id)),
    db.getAll("moments", entriesOf(id)),
  ]);
  return keys
    .flatMap((key, i) => {
      const parsed = MomentSchema.safeParse(values[i]);
      return parsed.success
        ? [{ at: key[1], name: parsed.data.name, fixtures: parsed.data.fixtures, cues: parsed.data.cues }]
        : [];
    })
    .reverse();
}

/** The show at a moment. */
export async function openMoment(id: string, at: number): Promise<Show | Refusal> {
  const parsed = MomentSchema.safeParse(await (await database()).get("moments", [id, at]));
  const show = parsed.success
    ? readShow(unseal(parsed.data))
    : refuse("that moment is gone or damaged", "Choose another one");
  return isRefusal(show) ? refuse(show.what, "Choose another moment") : show;
}
