/** The engine: owns the clock, runs core/play at 44 Hz and publishes frames. */
import { listTimeAt } from "@/core/play/clock";
import { setWorld } from "@/core/play/edit";
import { FROM_PROGRAMMER } from "@/core/play/stage";
import { play } from "@/core/play/act";
import { advance, compute, createPlayer, isMoving, type Player } from "@/core/play/player";
import { cueProgress, nextPlace } from "@/core/play/run";
import { copyRaw } from "@/core/play/glide";
import { readSaved, restorePlay, savePlay } from "@/core/play/saved";
import { whyOf } from "@/core/play/why";
import { applyDiff, readDiff } from "@/core/show/diff";
import { refusalText } from "@/core/show/refusal";
import { cuesOf, type World } from "@/core/show/world";
import { stageTime, type StageTime } from "@/core/units/units";
import { frameBytes, LANE_FIELDS, openFrame, publish, SOURCE_DEFAULT, SOURCE_PROGRAMMER, type Frame, type Half, type Layout } from "./frame";
import { ToEngineSchema, type FromEngine, type Playing, type WireAsk, type WireState } from "./messages";
import { openWire, type WireOut } from "./wireOut";

/** For the eye; the wire gets at most 44 frames of them a second. */
const RATE = 60;
/** While something moves, the running state is saved this often, milliseconds. */
const SAVE_EVERY = 250;
const shares = typeof SharedArrayBuffer !== "undefined" && (globalThis as { crossOriginIsolated?: boolean }).crossOriginIsolated === true;
const say = (message: FromEngine): void => postMessage(message);

let player: Player | undefined;
let frame: Frame | undefined;
let layout: Layout | undefined;
/** Where frames go to other windows while any look on. */
let frames: BroadcastChannel | undefined;
let wire: WireOut | undefined;
const wireState: WireState = { bridge: null, tests: {} };
let audience = false;
let sentAt = 0;
let lastPlaying = "";
let savedAt = 0;
/** Something happened since the last save: it is saved after the next tick, which comes first. */
let unsaved = false;
/** Stage time 0 on this machine's clock, milliseconds since the epoch. */
let origin = 0;

const epoch = (): number => performance.timeOrigin + performance.now();
const stageNow = (): StageTime => stageTime(Math.max((epoch() - origin) / 1000, player?.now ?? 0));

function layOut(): void {
  if (!player) return;
  const { rig } = player;
  layout = {
    generation: player.generation,
    keys: [...rig.keys],
    attributes: rig.specs.map((spec) => spec.functions.map((fn) => fn.attribute)),
    universes: [...rig.universes],
    slots: player.stage.listNow.length,
  };
  const size = frameBytes(layout);
  const memory = shares ? new SharedArrayBuffer(size) : new ArrayBuffer(size);
  frame = openFrame(layout, memory);
  say({ kind: "layout", layout, memory: memory as ArrayBuffer });
  wire?.configure(player.world.show, rig);
}

function fill(half: Half): void {
  const { stage, layers, runs, frame: bytes } = player!;
  half.value.set(stage.value);
  copyRaw(stage, half.raw);
  half.fn.set(stage.fn);
  half.bytes.set(tested(bytes));
  for (let p = 0; p < stage.source.length; p++) {
    const source = stage.source[p]!;
    half.source[p] = source >= 0 ? layers.list[source]! : source === FROM_PROGRAMMER ? SOURCE_PROGRAMMER : SOURCE_DEFAULT;
    half.cue[p] = source >= 0 ? layers.cue[source]! : 0;
  }
  for (const run of runs.values()) {
    const at = run.slot * LANE_FIELDS;
    half.lanes[at] = cueProgress(run, player!.now);
    half.lanes[at + 1] = Math.max(0, Math.min(listTimeAt(run.clock, player!.now), run.complete) - run.arrived);
    half.lanes[at + 2] = run.complete - run.arrived;
  }
}

/** The bytes with the slots that are held for a test. */
function tested(bytes: Uint8Array): Uint8Array {
  const held = Object.entries(wireState.tests);
  if (held.length === 0 || !player) return bytes;
  const made = bytes.slice();
  for (const [key, byte] of held) {
    const [universe, slot] = key.split(":").map(Number) as [number, number];
    const place = player.rig.universes.indexOf(universe);
    if (place >= 0) made[place * 512 + slot - 1] = byte;
  }
  return made;
}

function onWire(ask: WireAsk): void {
  if (ask === "poll") return wire?.poll();
  if (ask === "take") return wire?.take();
  if (ask === "endTests") wireState.tests = {};
  else {
    const key = `${ask.universe}:${ask.slot}`;
    const others = Object.entries(wireState.tests).filter(([held]) => held !== key);
    wireState.tests = Object.fromEntries(ask.byte === null ? others : [...others, [key, ask.byte]]);
  }
  say({ kind: "wire", wire: wireState });
  show();
}

function tick(): void {
  if (!player) return;
  wire?.send(tested(player.frame));
  const moving = isMoving(player) || isArriving(player);
  const happened = advance(player, stageNow());
  compute(player);
  if (layout && (layout.generation !== player.generation || layout.slots !== player.stage.listNow.length)) layOut();
  if (!moving && !happened && !unsaved) return;
  show();
  if (happened) unsaved = true;
  if (unsaved) save();
  else if (epoch() - savedAt > SAVE_EVERY) sayClock();
}

/** Whether a cue is not complete yet, even if nothing of it moves. */
function isArriving({ order, now }: Player): boolean {
  for (let i = 0; i < order.length; i++) if (order[i]!.cue !== null && cueProgress(order[i]!, now) < 1) return true;
  return false;
}

/** Publishes the frame and, where it changed, how the lists stand. */
function show(): void {
  if (!player || !frame || !layout) return;
  publish(frame, fill);
  if (!shares) say({ kind: "frame", generation: layout.generation, memory: (frame.buffer as ArrayBuffer).slice(0) });
  sendAround();
  sayPlaying(player);
}

/** Tells how the lists stand, where that changed. */
function sayPlaying(now: Player): void {
  const playing = playingNow(now);
  const text = JSON.stringify(playing);
  if (text === lastPlaying) return;
  lastPlaying = text;
  say({ kind: "playing", playing });
}

/** Other windows get copies, at most 30 a second while things move; the last one always. */
function sendAround(): void {
  if (!audience || !frames || !frame || !layout || !player) return;
  if (isMoving(player) && epoch() - sentAt < 33) return;
  sentAt = epoch();
  const memory = new ArrayBuffer(frame.buffer.byteLength);
  new Uint8Array(memory).set(new Uint8Array(frame.buffer));
  frames.postMessage({ generation: layout.generation, memory });
}

function playingNow({ runs, world, stage, now }: Player): Playing {
  return {
    grand: stage.grand * 100,
    blackout: stage.blackout,
    runs: Object.fromEntries([...runs.values()].flatMap((run) => {
      const list = world.show.lists[run.id];
      if (!list) return [];
      const next = nextPlace(list, run);
      return [[run.id, {
        slot: run.slot, cue: run.cue, next: next < 0 ? null : cuesOf(list)[next]!.id, level: run.level, paused: run.clock.paused,
        fading: run.cue === null && listTimeAt(run.clock, now) < run.complete,
      }]];
    })),
  };
}

function save(): void {
  if (!player) return;
  unsaved = false;
  savedAt = epoch();
  say({ kind: "saved", saved: JSON.stringify(savePlay(player)) });
}

/** While only time passes, the time is all there is to keep. */
function sayClock(): void {
  savedAt = epoch();
  say({ kind: "clock", now: player!.now });
}

addEventListener("message", ({ data }: MessageEvent) => {
  const parsed = ToEngineSchema.safeParse(data);
  if (!parsed.success) return say({ kind: "trouble", text: `the engine was told something it does not understand: ${parsed.error.issues[0]!.message}` });
  const message = parsed.data;
  if (message.kind === "open") {
    const saved = message.running ? readSaved(message.running.saved) : null;
    const start = stageTime(saved?.now ?? 0);
    const now = stageTime(Math.max(start, message.running?.now ?? 0));
    frames = new BroadcastChannel(message.frames);
    origin = epoch() - now * 1000;
    player = createPlayer(message.world as World, start);
    if (saved) restorePlay(player, saved);
    advance(player, now);
    compute(player);
    lastPlaying = "";
    // How the lists stand comes before the stage, so that nothing is shown as released that is not.
    sayPlaying(player);
    layOut();
    show();
    return;
  }
  if (!player) return;
  if (message.kind === "audience") {
    audience = message.on;
    return sendAround();
  }
  if (message.kind === "bridge") {
    wire?.close();
    wire = openWire(message.port, message.token, (bridge) => say({ kind: "wire", wire: Object.assign(wireState, { bridge: bridge ?? null }) }));
    return wire.configure(player.world.show, player.rig);
  }
  if (message.kind === "wire") return onWire(message.ask);
  if (message.kind === "diff") {
    const diff = readDiff(message.diff);
    if (!diff) return say({ kind: "trouble", text: "the engine was told of a change it does not understand; reload the page to start it again" });
    const held = diff.filter((c) => c.path[0] === "hands" && c.path[1] === "held").flatMap((c) => c.path[2] ?? []);
    setWorld(player, applyDiff(player.world, diff), held);
    if (diff.some((c) => c.path[0] === "show" && (c.path[1] === "outputs" || c.path[1] === "wire"))) wire?.configure(player.world.show, player.rig);
    unsaved = true;
    tickNow();
    return;
  }
  if (message.kind === "why") return say({ kind: "because", id: message.id, why: whyOf(player, message.key) ?? null });
  const refusal = play(player, message.event, stageTime(Math.max(player.now, (message.at - origin) / 1000)));
  unsaved = true;
  tickNow();
  say({ kind: "done", id: message.id, refusal: refusal ? refusalText(refusal) : null });
});

/** A change is on stage at once, not at the next tick. */
function tickNow(): void {
  if (!player) return;
  advance(player, stageNow());
  compute(player);
  if (layout && (layout.generation !== player.generation || layout.slots !== player.stage.listNow.length)) layOut();
  show();
}

setInterval(tick, 1000 / RATE);
