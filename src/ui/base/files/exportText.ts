import { writeAscii } from "@/core/exchange/asciiWrite";
import { writeCues } from "@/core/exchange/cueTable";
import type { Show } from "@/core/show/schema";
import { saveFile } from "./saveFile";

const bytes = (text: string) => new TextEncoder().encode(text);

/** Patch, groups and the intensities of cues as USITT ASCII. @returns what of the show the text does not carry, in words; empty where it carries all. */
export function exportAscii(show: Show): string {
  const { text, left } = writeAscii(show);
  saveFile(`${show.name || "show"}.asc`, bytes(text), "text/plain");
  return left.length > 0 ? `The text does not carry: ${left.join("; ")}` : "";
}

export const exportCues = (show: Show): void =>
  saveFile(`${show.name || "show"} cues.csv`, bytes(writeCues(show)), "text/csv");
