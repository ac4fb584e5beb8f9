import { z } from "@/core/units/zod";
import { usePrefs, writePref } from "@/ui/base/preferences/usePrefs";

const PATHS = ["first-steps", "worth-trying"] as const;
export type Path = (typeof PATHS)[number];

const KEY: Record<Path, string> = {
  "first-steps": "bold-comet-first-steps",
  "worth-trying": "bold-comet-worth-trying",
};
/** open: shown where it fits; closed: never by itself; asked: shown because somebody wanted it. */
const SeenSchema = z.enum(["open", "closed", "asked"]);

/** Whether a path for beginners is shown, and closing it for ever. */
export function usePath(path: Path): ["open" | "closed" | "asked", () => void] {
  const [seen, setSeen] = usePrefs(KEY[path], SeenSchema, "open");
  return [seen, () => setSeen("closed")];
}

/** Shows a path again, wherever one stands. */
export const openPath = (path: Path): void => writePref(KEY[path], "asked");
