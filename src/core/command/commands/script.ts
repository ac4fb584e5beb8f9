/** The lines of scripts as commands. */
import type { Command } from "../command";
import { SCRIPT_LINES, type ScriptAct, type ScriptKind } from "../scriptLines";

export const SCRIPTS: Command[] = Object.entries(SCRIPT_LINES).map(([kind, line]) => ({
  chapter: "Scripts",
  ...line,
  read: (args) => ({ intents: [], events: [], script: { kind: kind as ScriptKind, args } as ScriptAct }),
}));
