/** The show: one immutable document, checked by Zod wherever it enters. */
import { z } from "../units/zod";
import { FAMILIES } from "../fixture/attribute";
import { DimmerCurveSchema } from "../fixture/dimmerCurve";
import { FixtureTypeSchema, isTypeId, TypeIdSchema } from "../fixture/type";
import { FramesSchema, MacroSchema, PageSchema, TimecodeSchema, ViewSchema } from "./deckSchema";
import { EffectRecordSchema, EffectSchema, OwnWaveSchema } from "./effectSchema";
import { IdSchema, isId, ItemSchema, ParamKeySchema } from "./ids";
import { PaletteSchema } from "./paletteSchema";
import { EntrySchema, TimingSchema } from "./value";

export const SHOW_FORMAT = "bold-comet-show";
export const SHOW_VERSION = 8;

const finite = z.number().finite();
const time = finite.min(0).max(86_400);
const name = z.string().max(200);
const id = IdSchema;
export const wholeNumber = z.number().int().min(1).max(999_999);
const point = z.object({ x: finite, y: finite, z: finite });

export const AddressSchema = z.object({
  universe: z.number().int().min(1).max(63_999),
  slot: z.number().int().min(1).max(512),
  /** The DMX break it carries, where that is not the first. */
  part: z.number().int().min(2).max(16).optional(),
});
export type Address = z.infer<typeof AddressSchema>;

export const FixtureSchema = z.object({
  id,
  number: wholeNumber,
  name,
  type: TypeIdSchema,
  mode: z.string(),
  addresses: z.array(AddressSchema).max(16),
  virtualDimmer: z.boolean(),
  /** Metres in the room: x to stage left, y upstage, z up. */
  place: point,
  /** Degrees about x, y and z: how it hangs. */
  turn: point,
  invertPan: z.boolean(),
  invertTilt: z.boolean(),
  swap: z.boolean(),
  /** Percent of Dimmer at output. */
  scale: finite.min(0).max(200),
  /** Hang correction: degrees added. */
  correct: z.object({ pan: finite, tilt: finite }),
  note: z.string().max(2000),
  /** What becomes of its Dimmer at output. */
  curve: DimmerCurveSchema.optional(),
  /** The lamp never gets less than this, percent. */
  preheat: finite.min(0).max(100).optional(),
  /** Broken or away: sent dark, and not counted. */
  outOfService: z.boolean().optional(),
  /** Who it is in MVR files. */
  uuid: z.guid().optional(),
  /** Where it hangs, by name: a truss, a pipe, a floor. */
  position: name.optional(),
});
export type Fixture = z.infer<typeof FixtureSchema>;

const isText = (v: unknown, most: number): boolean => typeof v === "string" && v.length <= most;
const isWhole = (v: unknown, low: number, high: number): boolean =>
  Number.isInteger(v) && (v as number) >= low && (v as number) <= high;
const isPoint = (v: unknown): boolean => {
  const { x, y, z: up } = (v ?? {}) as Partial<Fixture["place"]>;
  return Number.isFinite(x) && Number.isFinite(y) && Number.isFinite(up);
};
/** Whether a value is plainly a fixture without any of what few have: the quick way for thousands that are patched at once. */
export function isPlainFixture(value: unknown): value is Fixture {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return false;
  const f = value as Partial<Fixture>;
  return (
    Object.keys(f).length === PLAIN_FIELDS &&
    isId(f.id) &&
    isWhole(f.number, 1, 999_999) &&
    isText(f.name, 200) &&
    isTypeId(f.type) &&
    typeof f.mode === "string" &&
    Array.isArray(f.addresses) &&
    f.addresses.length <= 16 &&
    f.addresses.every((a) => isWhole(a?.universe, 1, 63_999) && isWhole(a?.slot, 1, 512)) &&
    isPoint(f.place) &&
    isPoint(f.turn) &&
    [f.virtualDimmer, f.invertPan, f.invertTilt, f.swap].every((v) => typeof v === "boolean") &&
    Number.isFinite(f.scale) &&
    f.scale! >= 0 &&
    f.scale! <= 200 &&
    Number.isFinite(f.correct?.pan) &&
    Number.isFinite(f.correct?.tilt) &&
    isText(f.note, 2000)
  );
}
const PLAIN_FIELDS = Object.values(FixtureSchema.shape).filter((field) => !field.isOptional()).length;

/** How a universe leaves the machine, and under which number: Art-Net counts port-addresses from 0, sACN universes from 1. */
export const PROTOCOLS = ["artnet", "sacn"] as const;
export const OutputSchema = z.object({
  protocol: z.enum(PROTOCOLS),
  to: z.union([z.object({ unicast: z.array(z.ipv4()).min(1).max(8) }), z.literal("broadcast"), z.literal("multicast")]),
  number: z.number().int().min(0).max(63_999),
  /** Of sACN. */
  priority: z.number().int().min(0).max(200),
});
export type Output = z.infer<typeof OutputSchema>;

/** What holds for all outputs of the show. */
export const WireSchema = z.object({
  /** Who sends, as sACN receivers show it: at most 63 bytes. */
  source: z
    .string()
    .min(1)
    .max(63)
    .refine((text) => new TextEncoder().encode(text).length <= 63, "at most 63 bytes"),
  /** Address of the network interface to send from; empty for the machine's choice. */
  from: z.union([z.ipv4(), z.literal("")]),
  /** When the browser is gone: hold the last look, or fade its intensity out after so many seconds over so many. */
  lost: z.union([z.literal("hold"), z.object({ after: time, over: time })]),
});
export type Wire = z.infer<typeof WireSchema>;

/** Trusses and simple set pieces, to read the room by: corners in metres on the plan. */
export const SCENERY_SHAPES = ["truss", "line", "area", "round"] as const;
export const ScenicSchema = z.object({
  id,
  name,
  shape: z.enum(SCENERY_SHAPES),
  from: z.object({ x: finite, y: finite }),
  to: z.object({ x: finite, y: finite }),
  /** Metres: where it begins above the floor, and how high it is. */
  z: finite.min(-1000).max(1000).optional(),
  height: finite.min(0).max(1000).optional(),
});
export type Scenic = z.infer<typeof ScenicSchema>;

export const GROUP_SIGNS = ["dot", "square", "diamond", "bar", "star", "wave", "sail", "moon"] as const;
/** A place on a group's own plan, metres: across and upstage. */
export const ArrangedSchema = z.object({ x: finite.min(-100_000).max(100_000), y: finite.min(-100_000).max(100_000) });

export const GroupSchema = z.object({
  id,
  number: wholeNumber,
  name,
  members: z.array(ItemSchema).max(20_000),
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .optional(),
  sign: z.enum(GROUP_SIGNS).optional(),
  /** Its members on a plan of their own: spreads over places go by it while the group is selected. */
  arrangement: z.record(ItemSchema, ArrangedSchema).optional(),
  /** Its members' steps, given by hand. */
  steps: z.record(ItemSchema, z.number().int().min(1).max(100_000)).optional(),
});
export type Group = z.infer<typeof GroupSchema>;

/** A cue number: up to three decimals. */
export const cueNumber = finite.min(0.001).max(999_999);

export const TriggerSchema = z.union([
  z.object({ kind: z.literal("go") }),
  z.object({ kind: z.literal("auto"), after: time }),
  z.object({ kind: z.literal("autoDone"), after: time }),
]);
export type Trigger = z.infer<typeof TriggerSchema>;

/** How the progress of a cue's intensity is bent; linear where none is given. */
export const BENDS = ["smooth", "early", "late"] as const;
export type Bend = (typeof BENDS)[number];

export const CueTimesSchema = z.object({
  up: time,
  down: time,
  delayUp: time,
  delayDown: time,
  families: z.partialRecord(z.enum(FAMILIES), TimingSchema),
  curve: z.enum(BENDS).optional(),
});
export type CueTimes = z.infer<typeof CueTimesSchema>;

/** How far a cue's entries cover: up to a number; up to a cue that stays the end whatever is put in between; or so many more cues, while there are fewer. */
export const ReachSchema = z.union([
  z.object({ upTo: cueNumber }),
  z.object({ cue: id }),
  z.object({ more: z.number().int().min(0).max(20_000) }),
]);
export type Reach = z.infer<typeof ReachSchema>;

/** One parameter of a signed-off look: what it was, by its attribute. */
export const SignedValueSchema = z.object({
  attribute: z.string().max(60),
  value: finite,
  /** Where it pointed: the same point is the same look, whatever the truss does. */
  aim: z.tuple([finite, finite, finite]).optional(),
  effect: EffectSchema.optional(),
  /** What the effect was, its palettes and waves included. */
  plays: z.string().max(40).optional(),
});
export type SignedValue = z.infer<typeof SignedValueSchema>;

export const CueSchema = z.object({
  id,
  number: cueNumber,
  name,
  note: z.string().max(2000),
  times: CueTimesSchema,
  trigger: TriggerSchema,
  reach: ReachSchema.nullable(),
  /** Nothing before this cue tracks into it. */
  fresh: z.boolean(),
  /** Its go stamps everything in force. */
  assert: z.boolean(),
  /** The cue the next plain go from here leads to, instead of the one after. */
  then: id.optional(),
  /** A line that is run at its go. */
  runs: z.string().min(1).max(500).optional(),
  /** Fixtures whose moves in the dark are meant here. */
  meant: z.array(id).max(20_000).optional(),
  /** Its own choice of moves in black, for all fixtures and for some. */
  blackMoves: z.boolean().optional(),
  blackMovesOf: z.record(id, z.boolean()).optional(),
  /** The look that was agreed on: the lit fixtures, parameter by parameter. */
  signed: z.record(id, z.record(ParamKeySchema, SignedValueSchema)).optional(),
  /** Its own choice of being ready. */
  ready: z.boolean().optional(),
  /** Of a morph: where it lies along the level, percent. */
  place: finite.min(0.001).max(100).optional(),
  /** Of a list that follows timecode: when it comes, frames. */
  at: FramesSchema.optional(),
  /** Parameter key to what is stored for it. */
  entries: z.record(ParamKeySchema, EntrySchema),
});
export type Cue = z.infer<typeof CueSchema>;

/** What a playback does: play cues; add highest-takes-precedence; scale; crossfade over everything; play a cast effect; step by beats; or lead through looks by its level. */
export const LIST_KINDS = ["list", "submaster", "limiter", "takeover", "effect", "chase", "morph"] as const;
export const CHASE_WAYS = ["forward", "backward", "bounce", "random"] as const;

export const CueListSchema = z.object({
  id,
  number: wholeNumber,
  name,
  kind: z.enum(LIST_KINDS),
  /** Its intensity takes precedence where it is highest. */
  htp: z.boolean(),
  /** Drops a parameter once another list has taken it. */
  letGo: z.boolean(),
  /** Is released when a hand gives go to another list. */
  bowOut: z.boolean(),
  /** After a release it starts where it left off. */
  resume: z.boolean(),
  priority: z.number().int().min(-100).max(100),
  backTime: time,
  releaseTime: time,
  end: z.enum(["stop", "wrap", "release"]),
  wrapDrop: z.boolean(),
  /** Dark fixtures go beforehand to where they will next be lit, over so many seconds. */
  blackMoves: z.boolean(),
  blackTime: time,
  /** What a go lights up stands where it belongs at once. */
  ready: z.boolean(),
  /** Of an effect lane: the effect it plays, and how long it takes to come in. */
  effect: id.optional(),
  fadeIn: time.optional(),
  /** Of a chase: beats a minute, the share of a beat that moves take in percent, and its way. */
  bpm: finite.min(0.1).max(6000).optional(),
  share: finite.min(0).max(100).optional(),
  direction: z.enum(CHASE_WAYS).optional(),
  /** Those with the same number are tapped together. */
  tempo: z.number().int().min(1).max(99).optional(),
  /** What the lane of a cue list does besides scaling: crossfade by hand; leaving 0 gives go; reaching 0 releases. */
  fader: z.literal("crossfade").optional(),
  raised: z.literal("go").optional(),
  zero: z.literal("release").optional(),
  /** Its cues go by timecode. */
  timecode: z.literal(true).optional(),
  cues: z.record(id, CueSchema),
});
export type CueList = z.infer<typeof CueListSchema>;

/** Whether a playback of a kind has as many cues as one likes. */
export const hasManyCues = ({ kind }: Pick<CueList, "kind">): boolean =>
  kind === "list" || kind === "chase" || kind === "morph";

/** The name of a show. */
export const ShowNameSchema = z.string().min(1).max(200);

export const ShowSchema = z.object({
  format: z.literal(SHOW_FORMAT),
  version: z.literal(SHOW_VERSION),
  name: ShowNameSchema,
  /** The next free count for ids. */
  nextId: z.number().int().min(1).max(1_000_000_000_000),
  /** Feeds everything random. */
  seed: z.number().int().min(0),
  types: z.record(TypeIdSchema, FixtureTypeSchema),
  fixtures: z.record(id, FixtureSchema),
  /** By universe number. */
  outputs: z.record(z.string().regex(/^\d{1,5}$/), OutputSchema),
  wire: WireSchema,
  scenery: z.record(id, ScenicSchema),
  groups: z.record(id, GroupSchema),
  palettes: z.record(id, PaletteSchema),
  effects: z.record(id, EffectRecordSchema),
  /** Waves of its own. */
  waves: z.record(id, OwnWaveSchema),
  lists: z.record(id, CueListSchema),
  macros: z.record(id, MacroSchema),
  pages: z.record(id, PageSchema),
  views: z.record(id, ViewSchema),
  timecode: TimecodeSchema,
});
export type Show = z.infer<typeof ShowSchema>;
