/** What docs/ says that the code already knows: the handbook of commands and the show's JSON Schema. */
import { z } from "@/core/units/zod";
import type { Command } from "@/core/command/command";
import { shownSyntax } from "@/core/command/shown";
import { SETTINGS } from "@/core/command/settings";
import { COMMANDS, SCRIPT_COMMANDS } from "@/core/command/read";
import { ShowSchema } from "@/core/show/schema";

const rows = (list: readonly Pick<Command, "syntax" | "about" | "example">[]): string =>
  list
    .map(
      ({ syntax, about, example }) =>
        `| \`${shownSyntax(syntax).replaceAll("|", "\\|")}\` | ${about} | \`${example.replaceAll("|", "\\|")}\` |`,
    )
    .join("\n");

const table = (title: string, list: readonly Pick<Command, "syntax" | "about" | "example">[]): string =>
  `## ${title}\n\n| line | what it does | example |\n|---|---|---|\n${rows(list)}\n`;

const chapters = [...new Set(COMMANDS.map((c) => c.chapter))];
const commands = [
  '# Commands\n\nMade from the grammar\'s own tables by `npm run docs`; every example is run by a test. Case does not matter. Names are in double quotes, a quote inside doubled. `[x]` may be left out, `a | b` is a choice. In the Ask bar any unambiguous beginning of a word will do, `..` stands for thru and `@` for at; scripts spell words out. Plain lines are taken there for the one they mean, which is said before Enter (`1 thru 6 red`, `pan 20`, `full`, `record 4`, `patch 1 thru 6 petrel-spot`); where they could mean several (`go 2`, `cue 4`), one is taken from the list.\n\nSEL is a selection: `7`, `1 thru 9`, `71.4`, `71.1 thru 71.12`, `71 cells`, `group 3`, `group "Rail"`, `all`, `lit`, `last`, `alike` (of the same types as what is selected), `unpatched`, `unused` (in no cue), `in universe 2`, joined by ` + ` and ` - `, thinned by `every N`.\n',
  ...chapters.map((chapter) =>
    table(
      chapter,
      COMMANDS.filter((c) => c.chapter === chapter),
    ),
  ),
  table("Settings (in a holding line)", SETTINGS),
  table("Only in scripts and show tests", SCRIPT_COMMANDS),
].join("\n");

console.log(
  JSON.stringify({
    "commands.md": commands,
    "show.schema.json": `${JSON.stringify(z.toJSONSchema(ShowSchema), null, 2)}\n`,
  }),
);
