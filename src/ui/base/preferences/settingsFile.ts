/** How this browser is set up, as a file: keys, columns and panels. What people agreed to is never in it. */
import { z } from "@/core/units/zod";
import { rememberedOf, takeOver } from "./remembered";
import type { Kind } from "./registry";
import { saveFile } from "@/ui/base/files/saveFile";

const FORMAT = "bold-comet-settings";
const MOST_BYTES = 200_000;
const MOST = 200;
const HANDED_ON: readonly Kind[] = ["arrangement", "setting"];
const SettingsSchema = z.object({ format: z.literal(FORMAT), settings: z.record(z.string(), z.unknown()) });

/** All arrangement and settings of this browser, as the text of a file. */
export function settingsText(): string {
  const kept = rememberedOf(HANDED_ON, MOST, MOST_BYTES / 4);
  const settings = Object.fromEntries(Object.entries(kept).map(([key, text]) => [key, JSON.parse(text) as unknown]));
  return JSON.stringify({ format: FORMAT, settings }, null, 2);
}

export const saveSettings = (): void =>
  saveFile("bold-comet-settings.json", new TextEncoder().encode(settingsText()), "application/json");

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
  for (const [key, value] of Object.entries(read.data.settings).slice(0, MOST)) takeOver(HANDED_ON, key, value);
  return undefined;
}
