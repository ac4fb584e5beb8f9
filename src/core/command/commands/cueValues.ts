/** Values set in a cue itself, in the command language. */
import { writeCue } from "../../cue/intents/writeCueIntent";
import { evaluateSel, type Sel } from "../../select/expression";
import { fail } from "../../show/refusal";
import type { ParamKey } from "../../show/ids";
import type { Cue, CueList } from "../../show/schema";
import { RELEASE, type Entry } from "../../show/value";
import { hold, type Building } from "../building";
import { cueTimesIn, holdingOf, keysOf, ownTimesIn, type OfCue } from "../cueTiming";
import { command, cueOf, intents, listOf, type Command } from "../command";
import type { ReadContext } from "../context";
import { whatText, type What } from "../what";

const chapter = "Keeping";
const WHERE = "set [list <list>] cue <cueNumber:cue> <sel>";

interface Args {
  list?: number | undefined;
  cueNumber: number;
  sel: Sel;
  cueonly?: true;
  keeplooks?: true;
}

function within(args: Args, context: ReadContext): { list: CueList; cue: Cue; b: Building } {
  const list = listOf(args, context);
  return {
    list,
    cue: cueOf(list, args.cueNumber),
    b: holdingOf({ items: evaluateSel(args.sel, context), context }, {}),
  };
}

const ofCue = (args: Args & { what: What }, context: ReadContext): OfCue => {
  const { list, cue, b } = within(args, context);
  return { list, cue, items: b.items, what: args.what, looks: looksOf(args) };
};

const looksOf = ({ cueonly, keeplooks }: Args) =>
  cueonly ? ("cueonly" as const) : keeplooks ? ("keeplooks" as const) : ("track" as const);

const write = (args: Args, list: CueList, cue: Cue, values: Record<ParamKey, Entry>, unset: ParamKey[] = []) =>
  intents(writeCue.of({ list: list.id, cue: cue.id, values, unset, looks: looksOf(args) }));

export const CUE_VALUES: Command[] = [
  command({
    chapter,
    syntax: `${WHERE} <attr> at <amounts:values> [cueonly | keeplooks]`,
    about: "a value in the cue itself, nothing held; several spread over the fixtures",
    example: "set cue 3 1 thru 12 dimmer at 40",
    read(args, context) {
      const { list, cue, b } = within(args, context);
      hold(b, args.attr, args.amounts, false);
      return write(args, list, cue, b.values);
    },
  }),
  command({
    chapter,
    syntax: `${WHERE} <what> released [cueonly | keeplooks]`,
    about: "stores a release: what lies below shows",
    example: "set cue 4 1 thru 12 position released",
    read(args, context) {
      const { list, cue, b } = within(args, context);
      const values = Object.fromEntries(
        keysOf(b, args.what).map((t) => [t.key, { attribute: t.attribute, value: RELEASE }]),
      );
      return write(args, list, cue, values);
    },
  }),
  command({
    chapter,
    syntax: `${WHERE} <what> unset [cueonly | keeplooks]`,
    about: "takes out of the cue what it stores, so that what tracks in shows",
    example: "set cue 3 1 thru 12 intensity unset",
    read(args, context) {
      const { list, cue, b } = within(args, context);
      const keys = keysOf(b, args.what)
        .map((t) => t.key)
        .filter((key) => cue.entries[key]);
      if (keys.length === 0) fail(`cue ${cue.number} stores no ${whatText(args.what)} of these fixtures`);
      return write(args, list, cue, {}, keys);
    },
  }),
  command({
    chapter,
    syntax: `${WHERE} <what> ([delay <delays:times>] [fade <fades:times>]) [cueonly | keeplooks]`,
    about: "own timing of what the cue stores; several times are spread over the fixtures",
    example: "set cue 3 1 thru 12 intensity delay 0 to 2 fade 4",
    read: (args, context) => intents(ownTimesIn(ofCue(args, context), args, context)),
  }),
  command({
    chapter,
    syntax: `${WHERE} <what> cue time [cueonly | keeplooks]`,
    about: "takes own timing away from what the cue stores: it goes by the cue's times again",
    example: "set cue 2 41 thru 64 intensity cue time",
    read: (args, context) => intents(cueTimesIn(ofCue(args, context), context)),
  }),
];
