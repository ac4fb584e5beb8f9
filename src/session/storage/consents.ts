/** What people agreed to in this browser: kept beside a show, never in it or its file. */
import { WAITING, type Consent } from "@/core/dmx/consent";
import { ConsentSchema, database, readRecord, strictly } from "./database";

/** What was agreed to for a show; where nothing can be read, its outputs wait. */
export async function readConsent(id: string): Promise<Consent> {
  const kept = ConsentSchema.safeParse(await readRecord(await database(), "consents", id));
  return kept.success ? kept.data : WAITING;
}

export async function keepConsent(id: string, consent: Consent): Promise<void> {
  const tx = strictly(await database(), ["consents"]);
  await Promise.all([tx.objectStore("consents").put(consent, id), tx.done]);
}
