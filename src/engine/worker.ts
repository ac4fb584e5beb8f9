/** The engine: owns the clock, runs core/play at 44 Hz and publishes frames. */
import { runCueLines } from "@/core/desk/cueLines";
import { contextOf } from "@/core/desk/desk";
import { play } from "@/core/play/lists/act";
import { setWorld } from "@/core/play/edit/edit";
import { workOff } from "@/core/play/arrive/arrive";
import { endFlashes } from "@/core/play/lists/deeds";
import { advance, isCounting } from "@/core/play/lists/due";
import { compute, createPlayer, isMoving, setClocks, setTime } from "@/core/play/player";
import type { Player } from "@/core/play/state";
import { prepareLists, preparing } from "@/core/play/arrive/prepare";
import { restorePlay, savePlay } from "@/core/play/keep/saved";
import { readSaved, type SavedPlay } from "@/core/play/keep/savedSchema";
import { whyOf } from "@/core/play/why";
import { createFollower } from "@/core/show/change/followed";
import { refusalText } from "@/core/show/refusal";
import { stageTime, type StageTime } from "@/core/units/units";
import { fillHalf, isArriving, layoutOf, playingNow } from "./fill";
import { frameBytes, openFrame, publish, type Frame } from "./frame";
import type { Layout } from "./layout";
import { CLOCK_EVERY_MS, ToEngineSchema, type FromEngine, type Running, type ToEngine } from "./messages";
import { createOpening } from "./opening";
import { createWiring } from "./wiring";

/** For the eye; the wire gets at most 44 frames of them a second. */
const RATE = 60;
/** So often it says that it lives, milliseconds. */
const ALIVE_EVERY = 400;
const shares =
  typeof SharedArrayBuffer !== "undefined" &&
  (globalThis as { crossOriginIsolated?: boolean }).crossOriginIsolated === true;
const say = (message: FromEngine): void => postMessage(message);

let player: Player | undefined;
let frame: Frame | undefined;
let layout: Layout | undefined;
/** Where frames go to other windows while any look on. */
let frames: BroadcastChannel | undefined;
/** Keeps in step with another window's engine and is ready to go on for it: it neither ticks nor sends. */
let standby = false;
const wiring = createWiring(say, () => standby);
let heard: { text: string; saved: SavedPlay | null } | undefined;
let audience = false;
let sentAt = 0;
let lastPlaying = "";
let savedAt = 0;
/** Something happened since the last save: it is saved after the next tick, which comes first. */
let unsaved = false;
/** Only the hands moved: of them little is kept here, and a drag over thousands is not held up by it. */
let handsMoved = false;
const HANDS_EVERY_MS = 300;
/** Stage time 0 on this machine's clock, milliseconds since the epoch. */
let origin = 0;
/** What went wrong in a tick is told once, and the stage goes on. */
let lastTrouble = "";
/** An arrival that is large is finished in pieces of at most this long, milliseconds: ticks come in between. */
const PIECE_MS = 8;
/** So long, in real time, what happens by itself may keep the clock waiting at one go, milliseconds. */
const PATIENCE_MS = 400;
let workBegan = 0;
const follow = createFollower();
let aliveAt = 0;
let changedAt = 0;
/** The rest of an arrival is on its way. */
let goesOn = false;

const epoch = (): number => performance.timeOrigin + performance.now();
const stageNow = (): StageTime => stageTime(Math.max((epoch() - origin) / 1000, player?.now ?? 0));

function layOut(): void {
  if (!player) return;
  layout = layoutOf(player);
  const size = frameBytes(layout);
  const memory = shares ? new SharedArrayBuffer(size) : new ArrayBuffer(size);
  frame = openFrame(layout, memory);
  say({ kind: "layout", layout, memory: memory as ArrayBuffer });
  wiring.configure(player);
}

/** So long a tick goes on getting ready, milliseconds. */
const READY_MS = 4;
let lives: Generator<void> | undefined;

/** Gets ready for the first goes while there is time. */
function prepare(): void {
  const until = epoch() + READY_MS;
  while (lives && epoch() < until) if (lives.next().done) lives = undefined;
}

function tick(): void {
  if (epoch() - aliveAt > ALIVE_EVERY) {
    aliveAt = epoch();
    say({ kind: "alive" });
  }
  if (!player || standby) return;
  workBegan = epoch();
  try {
    wiring.send(player);
    prepare();
    // What a hand changed was shown just now, with all that moves.
    const isNew = epoch() - changedAt < 500 / RATE && player.unfinished === undefined;
    const moving = isMoving(player) || isArriving(player) || player.unfinished !== undefined;
    const happened = !isNew && moveOn(player);
    if (!isNew) followLayout();
    if (happened || (handsMoved && epoch() - savedAt > HANDS_EVERY_MS)) unsaved = true;
    const rests = !moving && !happened && !unsaved;
    if (!rests && !isNew) show();
    if (player.unfinished) return;
    if (unsaved) save();
    else if (epoch() - savedAt > CLOCK_EVERY_MS && (!rests || isCounting(player))) sayClock();
  } catch (error) {
    const text = `something went wrong on stage and was passed over: ${(error as Error).message}`;
    if (text !== lastTrouble) say({ kind: "trouble", text });
    lastTrouble = text;
  }
}

/** Brings the stage to the present, an arrival as far as its piece of time allows. Returns whether anything happened. */
function moveOn(now: Player): boolean {
  const until = epoch() + PIECE_MS;
  const time = stageNow();
  let happened = false;
  while (workOff(now, () => epoch() < until)) {
    if (advance(now, time)) happened = true;
    if (!now.unfinished) break;
  }
  if (now.unfinished) {
    setClocks(now, time);
    // The rest as soon as whatever waits has been heard.
    if (!goesOn) setTimeout(() => ((goesOn = false), tick()));
    goesOn = true;
  }
  compute(now);
  return happened;
}

/** Lays the frame out anew where parameters, universes or lists have changed. */
function followLayout(): void {
  if (player && layout && (layout.generation !== player.generation || layout.slots !== player.stage.listNow.length))
    layOut();
}

/** Publishes the frame and, where it changed, how the lists stand. */
function show(): void {
  if (!player || !frame || !layout) return;
  const now = player;
  const isNew = publish(frame, (half) => fillHalf(half, now, wiring.tested(now, now.frame)));
  if (isNew && !shares)
    say({ kind: "frame", generation: layout.generation, memory: (frame.buffer as ArrayBuffer).slice(0) });
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

function save(): void {
  if (!player) return;
  unsaved = handsMoved = false;
  savedAt = epoch();
  say({ kind: "saved", saved: JSON.stringify(savePlay(player)) });
}

/** While only time passes, the time is all there is to keep. */
function sayClock(): void {
  savedAt = epoch();
  say({ kind: "clock", now: player!.now });
}

/** How the lists stood before the step that has begun. */
let stood: SavedPlay | undefined;

/** Lists that a step had ended or moved stand as if it had not been. */
function goBack(now: Player): void {
  if (!stood) return;
  const { now: time } = now;
  setTime(now, stageTime(stood.now));
  restorePlay(now, stood);
  stood = undefined;
  advance(now, time);
  unsaved = true;
  tickNow();
}

/** A change is on stage at once, not at the next tick. */
function tickNow(): void {
  if (!player || standby) return;
  if (moveOn(player)) unsaved = true;
  followLayout();
  show();
  changedAt = epoch();
}

/** Begins to play, from where it was left. @param since seconds that have passed on stage since then. */
function begin(running: Running | null, since = 0): void {
  if (!player) return;
  const saved = running === null ? null : heard?.text === running.saved ? heard.saved : readSaved(running.saved);
  if (running && !saved)
    say({
      kind: "trouble",
      text: "the running state was damaged, so the stage came back released. Give the lists a go where they should stand",
    });
  const start = stageTime(saved?.now ?? 0);
  const now = stageTime(Math.max(start, running?.now ?? 0) + since);
  standby = false;
  heard = undefined;
  origin = epoch() - now * 1000;
  setTime(player, start);
  if (saved) restorePlay(player, saved);
  player.inPieces = false;
  advance(player, now);
  // A hold belongs to the window that held it.
  endFlashes(player);
  player.inPieces = true;
  compute(player);
  lastPlaying = "";
  // How the lists stand comes before the stage, so that nothing is shown as released that is not.
  sayPlaying(player);
  layOut();
  show();
  // There is something to go on from before anything has happened: cycles of what is held begin with the clock.
  unsaved = true;
  // On standby the bridge was reached already: it takes what comes from here on.
  wiring.speak(player);
}

/** What cues run is read against the stage as it is then. */
function hearCues(now: Player): void {
  runCueLines(
    now,
    () => contextOf({ world: now.given, player: now }),
    (text) => say({ kind: "trouble", text }),
    ({ macro, lines }) => say({ kind: "runs", macro, lines }),
  );
}

function hear(message: ToEngine): void {
  switch (message.kind) {
    case "open":
      frames = new BroadcastChannel(message.frames);
      player = createPlayer(message.world, stageTime(0));
      hearCues(player);
      player.budget.isLate = () => epoch() - workBegan > PATIENCE_MS;
      prepareLists(player.world.show);
      lives = preparing(player.world.show);
      standby = message.standby;
      return standby ? undefined : begin(message.running);
    case "bridge":
      return wiring.reach(message, standby, player);
    case "consent":
      return wiring.agree(message.consent);
    case "running":
      // Read as it comes, so that going on takes no time.
      if (standby && message.saved !== undefined) heard = { text: message.saved, saved: readSaved(message.saved) };
      return;
    case "begin":
      if (standby) begin(message.running, message.since);
      return;
  }
  if (!player) return;
  switch (message.kind) {
    case "audience":
      audience = message.on;
      return sendAround();
    case "wire":
      return wiring.ask(message.ask) ? show() : undefined;
    case "diff": {
      const onward = follow(player.given, message);
      if (!onward)
        return say({
          kind: "trouble",
          text: "the engine was told of a change it does not understand; reload the page to start it again",
        });
      const { world, held, rest } = onward;
      setWorld(player, world, held);
      if (standby) return;
      if (rest.some((c) => c.path[0] === "show" && ["outputs", "wire", "name"].includes(c.path[1]!)))
        wiring.configure(player);
      if (rest.every(({ path }) => path[0] === "hands")) handsMoved = true;
      else unsaved = true;
      return tickNow();
    }
    case "step":
      if (message.is === "begun") stood = savePlay(player);
      else goBack(player);
      return;
    case "why":
      return say({ kind: "because", id: message.id, why: whyOf(player, message.key) ?? null });
    case "event": {
      // What was played is not taken back.
      stood = undefined;
      const refusal = play(player, message.event, stageTime(Math.max(player.now, (message.at - origin) / 1000)));
      unsaved = true;
      tickNow();
      return say({ kind: "done", id: message.id, refusal: refusal ? refusalText(refusal) : null });
    }
  }
}

const opening = createOpening();
addEventListener("message", ({ data }: MessageEvent) => {
  const whole = opening(data);
  if (whole === undefined) return;
  const parsed = ToEngineSchema.safeParse(whole);
  if (!parsed.success)
    return say({
      kind: "trouble",
      text: `the engine was told something it does not understand: ${parsed.error.issues[0]!.message}`,
    });
  const message = parsed.data;
  workBegan = epoch();
  try {
    hear(message);
  } catch (error) {
    const text = `something went wrong in the engine: ${(error as Error).message}`;
    if (message.kind === "event") say({ kind: "done", id: message.id, refusal: text });
    else if (message.kind === "why") say({ kind: "because", id: message.id, why: null });
    else say({ kind: "trouble", text });
  }
});

// A worker that has asked for a frame is taken for one that draws, and goes before the page's panels where cores are
// short: what is on stage does, too.
globalThis.requestAnimationFrame?.(() => undefined);
setInterval(tick, 1000 / RATE);
