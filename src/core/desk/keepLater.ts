/** The same edit with later looks kept: what a line means is asked of what was read of it, never of its text. */
import { INTENTS } from "../intents";
import type { Intent } from "../show/change/intent";

/** Undefined where nothing of it lets later looks change, or where it says itself what becomes of them. */
export function keepingLater(intents: readonly Intent[]): Intent[] | undefined {
  let keeps = false;
  const made = intents.map((intent): Intent => {
    const fields = INTENTS.get(intent.kind)?.schema.shape as Record<string, unknown> | undefined;
    const { looks = "track", keepLooks = false } = intent;
    const field =
      fields?.["looks"] && looks === "track"
        ? { looks: "keeplooks" }
        : fields?.["keepLooks"] && !keepLooks
          ? { keepLooks: true }
          : undefined;
    keeps ||= field !== undefined;
    return { ...intent, ...field };
  });
  return keeps ? made : undefined;
}
