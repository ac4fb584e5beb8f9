/** How this browser is set up, as a file: keys, columns and panels. What people agreed to is never in it. */
import { z } from "@/core/units/zod";
import { KEY_CHANGES } from "../keys";
import { saveFile } from "./saveFile";
import { writePref } from "./usePrefs";

const KEPT = [
  KEY_CHANGES,
  "bold-comet-patch-view",
  "bold-comet-values-view",
  "bold-comet-build-across",
  "bold-comet-build-down",
  "bold-comet-build-below",
  "bold-comet-cues-across",
  "bold-comet-cues-down",
  "bold-comet-run-across",
  "bold-comet-run-down",
  "bold-comet-check-across",
] as const;
const FORMAT = "bold-comet-settings";
const MOST_BYTES = 200_000;
const SettingsSchema = z.object({ format: z.literal(FORMAT), settings: z.partialRecord(z.enum(KEPT), z.unknown()) });

export function saveSettings(): void {
  const settings = Object.fromEntries(
    KEPT.flatMap((key) => {
      const text = localStorage.getItem(key);
      return text === null ? [] : [[key, JSON.parse(text) as unknown]];
    }),
  );
  const text = JSON.stringify({ format: FORMAT, settings }, null, 2);
  saveFile("bold-comet-settings.json", new TextEncoder().encode(text), "application/json");
}

/** Takes settings from a file. Returns why not, in words; what a setting cannot be is left as it starts. */
export async function loadSettings(file: Pick<File, "size" | "text" | "name">): Promise<string | undefined> {
  if (file.size > MOST_BYTES) return `${file.name} is too large to be settings of Bold Comet`;
  let parsed: unknown;
  try {
    parsed = JSON.parse(await file.text());
  } catch {
    return `${file.name} cannot be read as JSON: settings are saved from this window of keys`;
  }
  const read = SettingsSchema.safeParse(parsed);
  if (!read.success) return `${file.name} holds no settings of Bold Comet`;
  for (const [key, value] of Object.entries(read.data.settings)) writePref(key, value);
  return undefined;
}
