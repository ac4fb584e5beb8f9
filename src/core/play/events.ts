/** Playing events: what hands and time do to the lists. They are never undone. */
import { z } from "../units/zod";
import { ACTIONS } from "../fixture/type";
import { FramesSchema } from "../show/deckSchema";
import { lineOfFrames, textOfFrames } from "../timecode/frames";
import { FixtureIdSchema, IdSchema } from "../show/ids";
import { cueText, exact, listText, onOff, selText, unsaid } from "../show/words/lineText";
import type { World } from "../show/world";
import { plural } from "../units/plural";

const list = IdSchema;
/** Seconds in place of its own times. */
const over = z.number().min(0).max(86_400).optional();
const percent = z.number().min(0).max(100);

export const PlayEventSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("go"), list, cue: IdSchema.optional(), over }),
  z.object({ kind: z.literal("next"), list, cue: IdSchema }),
  z.object({ kind: z.literal("back"), list }),
  z.object({ kind: z.literal("pause"), list }),
  z.object({ kind: z.literal("release"), list: list.nullable() }),
  z.object({ kind: z.literal("assert"), list }),
  z.object({ kind: z.literal("flash"), list, on: z.boolean() }),
  z.object({ kind: z.literal("level"), list, value: percent, over }),
  z.object({ kind: z.literal("rate"), list, value: z.number().min(0).max(1000) }),
  z.object({ kind: z.literal("effectRate"), list, value: z.number().min(0).max(1000) }),
  z.object({ kind: z.literal("resync"), list: list.nullable() }),
  z.object({ kind: z.literal("tap"), list }),
  /** A chase runs at the beats it stores again, whatever was tapped. */
  z.object({ kind: z.literal("bpm"), list }),
  z.object({
    kind: z.literal("control"),
    fixtures: z.array(FixtureIdSchema).min(1).max(20_000),
    does: z.enum(ACTIONS),
  }),
  z.discriminatedUnion("does", [
    z.object({ kind: z.literal("timecode"), does: z.literal("run") }),
    z.object({ kind: z.literal("timecode"), does: z.literal("stop") }),
    z.object({ kind: z.literal("timecode"), does: z.literal("at"), frames: FramesSchema }),
    /** From outside: where it is, and which way it goes. */
    z.object({
      kind: z.literal("timecode"),
      does: z.literal("heard"),
      frames: FramesSchema,
      speed: z.union([z.literal(1), z.literal(0), z.literal(-1)]),
    }),
  ]),
  /** The rest of a macro that waits. */
  z.object({
    kind: z.literal("later"),
    after: z.number().min(0).max(86_400),
    macro: z.number().int().min(1),
    lines: z.array(z.string().max(2000)).max(10_000),
  }),
  z.object({ kind: z.literal("grand"), value: percent, over }),
  z.object({ kind: z.literal("blackout"), on: z.boolean() }),
]);
export type PlayEvent = z.infer<typeof PlayEventSchema>;

const overText = (seconds: number | undefined): string => (seconds === undefined ? "" : ` over ${seconds} s`);
const overLine = (seconds: number | undefined): string => (seconds === undefined ? "" : ` over ${exact(seconds)}`);

/** What an event would do, in plain words. */
export function sayEvent({ show }: World, event: PlayEvent): string {
  const name = (id: string) => {
    const found = show.lists[id];
    return found ? `list ${found.number} "${found.name}"` : "that list";
  };
  const cue = (listId: string, id: string) => {
    const found = show.lists[listId]?.cues[id];
    return found ? `cue ${found.number}${found.name ? ` "${found.name}"` : ""}` : "that cue";
  };
  switch (event.kind) {
    case "go":
      return `goes to ${event.cue ? cue(event.list, event.cue) : "the next cue"} of ${name(event.list)}${overText(event.over)}`;
    case "next":
      return `the next go of ${name(event.list)} goes to ${cue(event.list, event.cue)}`;
    case "back":
      return `goes back one cue in ${name(event.list)}`;
    case "pause":
      return `holds ${name(event.list)} where it is`;
    case "release":
      return event.list === null ? "releases all lists; what plays by its level stays" : `releases ${name(event.list)}`;
    case "assert":
      return `puts ${name(event.list)} back on top, by its cue's times`;
    case "flash":
      return event.on ? `shows ${name(event.list)} at full while held` : `ends the flash of ${name(event.list)}`;
    case "level":
      return `sets ${name(event.list)} to ${event.value} %${overText(event.over)}`;
    case "rate":
      return `runs ${name(event.list)} at ${event.value} % of its times`;
    case "effectRate":
      return `runs the effects of ${name(event.list)} at ${event.value} % of their speed`;
    case "resync":
      return event.list === null
        ? "starts the cycles of all held effects now"
        : `starts the cycles of the effects of ${name(event.list)} now`;
    case "tap":
      return `taps the speed of ${name(event.list)}: a cycle is the mean of the last taps, and starts at each`;
    case "bpm":
      return `runs ${name(event.list)} at the beats it stores`;
    case "control":
      return `${event.does} for ${plural(event.fixtures.length, "fixture")}: the type's own control action, for the time it needs`;
    case "timecode":
      return event.does === "at" || event.does === "heard"
        ? `timecode goes to ${textOfFrames(event.frames, show.timecode.rate)}`
        : event.does === "run"
          ? "lets timecode run"
          : "stops timecode: what follows it holds";
    case "later":
      return `goes on with macro ${event.macro} in ${event.after} s`;
    case "grand":
      return `sets the grand master to ${event.value} %${overText(event.over)}`;
    case "blackout":
      return event.on ? "takes all intensity out (blackout)" : "ends the blackout";
  }
}

/** The line that does the same. */
export function eventLine(world: World, event: PlayEvent): string {
  switch (event.kind) {
    case "go":
      return `go ${event.cue ? cueText(world, event.list, event.cue) : listText(world, event.list)}${overLine(event.over)}`;
    case "next":
      return `next ${cueText(world, event.list, event.cue)}`;
    case "release":
      return event.list === null ? "release all" : `release ${listText(world, event.list)}`;
    case "flash":
      return `flash ${listText(world, event.list)} ${onOff(event.on)}`;
    case "level":
      return `level ${listText(world, event.list)} at ${exact(event.value)}${overLine(event.over)}`;
    case "rate":
      return `rate ${listText(world, event.list)} at ${exact(event.value)}`;
    case "effectRate":
      return `effectrate ${listText(world, event.list)} at ${exact(event.value)}`;
    case "resync":
      return event.list === null ? "resync held" : `resync ${listText(world, event.list)}`;
    case "tap":
      return `tap ${listText(world, event.list)}`;
    case "bpm":
      return `set ${listText(world, event.list)} bpm ${exact(world.show.lists[event.list]?.bpm ?? 60)}`;
    case "control":
      return `${selText(world.show, event.fixtures)} ${event.does}`;
    case "timecode":
      return !("frames" in event)
        ? `timecode ${event.does}`
        : `timecode at ${lineOfFrames(event.frames, world.show.timecode.rate)}`;
    case "later":
      return unsaid(`goes on with macro ${event.macro} in ${event.after} s`);
    case "grand":
      return `grand at ${exact(event.value)}${overLine(event.over)}`;
    case "blackout":
      return `blackout ${onOff(event.on)}`;
    case "back":
    case "pause":
    case "assert":
      return `${event.kind} ${listText(world, event.list)}`;
  }
}
