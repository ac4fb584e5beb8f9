/** What people agreed to in this browser: kept here, never in a show or its file. */
import { z } from "@/core/units/zod";
import { NO_CONSENT, type Consent } from "@/core/dmx/consent";

const ConsentSchema = z.object({ imported: z.boolean(), given: z.array(z.string().max(100)).max(10_000) });
const keyOf = (show: string): string => `bold-comet-consent-${show}`;
const BROWSER = "bold-comet-browser";

export function consentOf(show: string): Consent {
  try {
    const parsed = ConsentSchema.safeParse(JSON.parse(localStorage.getItem(keyOf(show)) ?? "null"));
    return parsed.success ? parsed.data : NO_CONSENT;
  } catch {
    // What cannot be read was not agreed to.
    return { imported: true, given: [] };
  }
}

function keep(show: string, consent: Consent): void {
  try {
    localStorage.setItem(keyOf(show), JSON.stringify(consent));
  } catch {
    // Then it is asked again next time.
  }
}

/** A show came from a file: its outputs wait. */
export const waitForConsent = (show: string): void => keep(show, { imported: true, given: [] });

/** A copy of a show may send where the show may. */
export const copyConsent = (from: string, to: string): void => keep(to, consentOf(from));

/** A person agrees to destinations. */
export function give(show: string, destinations: readonly string[]): Consent {
  const now = consentOf(show);
  const made = { ...now, given: [...new Set([...now.given, ...destinations])] };
  keep(show, made);
  return made;
}

/** Names this browser towards the bridge, so that all windows of a show count as one. */
export function browserId(): string {
  try {
    const known = localStorage.getItem(BROWSER);
    if (known && /^[0-9a-f-]{36}$/.test(known)) return known;
    const made = crypto.randomUUID();
    localStorage.setItem(BROWSER, made);
    return made;
  } catch {
    return crypto.randomUUID();
  }
}
