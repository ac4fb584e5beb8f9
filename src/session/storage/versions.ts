/** Earlier versions of a show, also of one that does not open: its moments, and every step its journal still leads to. */
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import { newHands, type World } from "@/core/show/world";
import { z } from "@/core/units/zod";
import { database, entriesUpTo, readRange, unseal } from "./database";
import { listMoments, openMoment, type Moment } from "./moments";
import { basesOf, openShow, replayAll, worldOf, type Replayed } from "./shows";
import { StepSchema } from "./steps";

/** Which version: after a step of the journal, or a kept moment. */
export const VersionSchema = z.union([
  z.strictObject({ step: z.coerce.number().int().min(0) }),
  z.strictObject({ moment: z.coerce.number().min(0) }),
]);
export type Version = z.infer<typeof VersionSchema>;

export interface StepVersion {
  seq: number;
  /** What the step did, in words; null where that is not kept. */
  says: string | null;
}

export interface Versions {
  /** Why the show does not open; null where it does. */
  wrong: string | null;
  moments: Moment[];
  /** The newest first. */
  steps: StepVersion[];
  /** The newest step whose show opens; null where none does. */
  newest: number | null;
}

/** All states that can still be reached, oldest first. */
async function statesOf(id: string): Promise<Replayed[]> {
  const bases = await basesOf(id);
  const oldest = bases.at(-1);
  if (!oldest) return [];
  const { states } = await replayAll(await database(), id, oldest);
  const newest = bases[0]!;
  // Where the journal between the snapshots is damaged, the newer one leads on.
  return newest.seq <= states.at(-1)!.seq
    ? states
    : [...states, ...(await replayAll(await database(), id, newest)).states];
}

export async function listVersions(id: string): Promise<Versions> {
  const opened = await openShow(id);
  const states = await statesOf(id);
  const db = await database();
  const range = entriesUpTo(id, Infinity);
  const steps = await readRange(db, "steps", range);
  const says = new Map(steps.map(({ key, value }) => [key[1], StepSchema.safeParse(unseal(value)).data?.says ?? null]));
  const good = states.findLast(({ world }) => !isRefusal(worldOf(world)));
  return {
    wrong: isRefusal(opened) ? opened.what : null,
    moments: await listMoments(id),
    newest: good?.seq ?? null,
    steps: states.map(({ seq }) => ({ seq, says: says.get(seq) ?? null })).reverse(),
  };
}

/** A show as it was then; nothing is written. */
export async function openVersion(id: string, version: Version): Promise<World | Refusal> {
  if ("moment" in version) {
    const show = await openMoment(id, version.moment);
    return isRefusal(show) ? show : { show, hands: newHands(show) };
  }
  const state = (await statesOf(id)).find(({ seq }) => seq === version.step);
  return state
    ? worldOf(state.world)
    : refuse(`step ${version.step} of this show is not kept any more`, "Choose another one");
}
