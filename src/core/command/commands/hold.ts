/** Holding values, in the command language. */
import { clear, identify, setBlind, setHighlight } from "../../program/intents";
import { select } from "../../select/intents";
import { fail } from "../../show/refusal";
import { intents, itemsOf, command, type Command } from "../command";
import { compileSyntax, match, mayBegin, type Match, type MatchState, type SlotParser } from "../grammar";
import { othersAtOut, parkOf, unparkOf } from "../deeds";
import { builtIntents, newBuilding, type Building } from "../building";
import { SETTINGS, type Setting } from "../settings";
import { SLOTS } from "../slots";

const chapter = "Holding values";

/** One or more settings, each the longest reading there is. */
export const settingsSlot: SlotParser<((building: Building) => void)[]> = (state: MatchState, pos: number) => {
  const read: ((building: Building) => void)[] = [];
  let here = pos;
  for (;;) {
    let best: (Match & { setting: Setting }) | undefined;
    for (const setting of SETTINGS) {
      const node = compileSyntax(setting.syntax);
      if (!mayBegin(node, state, here)) continue;
      for (const found of match(node, state, here, SLOTS)) {
        if (!best || found.pos > best.pos) best = { ...found, setting };
      }
    }
    if (!best) return read.length > 0 ? [{ pos: here, value: read }] : [];
    const { setting, value } = best;
    read.push((building) => setting.apply(value, building));
    here = best.pos;
  }
};

export const HOLDING: Command[] = [
  command({
    chapter,
    syntax: "[<sel>] <settings>",
    about: "hold values for the selection; SEL in front selects",
    example: "1 thru 5 at full pan at -20 to 20",
    read(args, context) {
      const items = itemsOf(args, context);
      if (items.length === 0) fail("nothing is selected", "Select some fixtures first, such as: 1 thru 12");
      const building = newBuilding(items, context);
      for (const apply of args.settings) apply(building);
      return intents(...(args.sel ? [select.of({ items })] : []), ...builtIntents(building, args.sel !== undefined));
    },
  }),
  command({
    chapter,
    syntax: "clear [over <time:seconds>]",
    about: "clear the programmer and the selection; over S, in S seconds",
    example: "clear over 4",
    read: ({ time }) => intents(clear.of(time === undefined ? {} : { over: time })),
  }),
  command({
    chapter,
    syntax: "others at out",
    about: "hold every lit fixture that is not selected at 0; the selection stays",
    example: "others at out",
    read: (_, context) => intents(othersAtOut(context)),
  }),
  command({
    chapter,
    syntax: "blind (on | off) [over <time:seconds>]",
    about: "held values are not on stage; off over S = they come on in so many seconds",
    example: "blind on",
    read: (args) =>
      intents(
        setBlind.of({ on: args.on === true, ...(args.on || args.time === undefined ? {} : { over: args.time }) }),
      ),
  }),
  command({
    chapter,
    syntax: "highlight (on | off)",
    about: "show the selection full and open; never recorded",
    example: "highlight on",
    read: (args) => intents(setHighlight.of({ on: args.on === true })),
  }),
  command({
    chapter,
    syntax: "[<sel>] identify (on | off)",
    about: "show fixtures full and open, whatever is selected; never recorded",
    example: "1 thru 3 identify on",
    read: (args, context) => intents(identify.of({ items: args.on === true ? itemsOf(args, context) : [] })),
  }),
  command({
    chapter,
    syntax: "[<sel>] park",
    about: "pin what is seen, masters included, over everything and scaled by nothing",
    example: "1 thru 3 park",
    read: (args, context) => intents(parkOf(itemsOf(args, context), context)),
  }),
  command({
    chapter,
    syntax: "[<sel>] unpark",
    about: "let parked values play again",
    example: "1 thru 3 unpark",
    read: (args, context) => intents(unparkOf(itemsOf(args, context), context)),
  }),
];
