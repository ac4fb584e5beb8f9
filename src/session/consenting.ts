import { WAITING, type Consent } from "@/core/dmx/consent";
import { keepConsent, readConsent } from "./storage/consents";

/**
 * Where a show may send, from its storage on.
 * @param mayGo told of it once it is known, and with each agreement. @param tell what went wrong, in words.
 * @returns what a person agrees to destinations by.
 */
export function followConsent(
  id: string,
  mayGo: (consent: Consent) => void,
  tell: (text: string) => void,
): (destinations: readonly string[]) => void {
  let known = readConsent(id).catch((): Consent => {
    tell("Where this show may send could not be read, so nothing goes out until you agree to it");
    return WAITING;
  });
  void known.then(mayGo);
  return (destinations) => {
    known = known.then((before) => {
      const made = { ...before, given: [...new Set([...before.given, ...destinations])] };
      mayGo(made);
      keepConsent(id, made).catch(() =>
        tell("It goes out, but your consent could not be kept: it will be asked again"),
      );
      return made;
    });
  };
}
