/** What a window knows of a running show, and what it can do with it. */
import type { StoreApi } from "zustand/vanilla";
import type { SlotValues } from "@/core/command/args";
import type { Building } from "@/core/command/building";
import type { ReadContext } from "@/core/command/context";
import type { Deed } from "@/core/command/deeds";
import type { PlayEvent } from "@/core/play/events";
import type { Asked } from "@/engine/looksMessages";
import type { Transition } from "@/core/play/arrive/transition";
import type { Why } from "@/core/play/why";
import { EMPTY_HISTORY, type History } from "@/core/show/change/history";
import type { Item } from "@/core/show/ids";
import type { Intent } from "@/core/show/change/intent";
import type { Refusal } from "@/core/show/refusal";
import type { World } from "@/core/show/world";
import type { Playing, WireAsk, WireState } from "@/engine/messages";
import type { StageView } from "@/engine/view";
import type { Doing } from "@/core/desk/perform";
import type { Pieces } from "./inPieces";
import type { DoneLine } from "./lines";
import type { Checked, Foreseer, Pictured, PictureOf } from "./looksLink";
import type { SavedState } from "./storage/keeper";

export interface Notice {
  id: number;
  text: string;
  tone: "plain" | "refused";
}

export interface SessionState {
  world: World;
  history: History;
  saved: SavedState;
  playing: Playing;
  wire: WireState;
  /** The stage's memory; a new object whenever its layout changes. */
  view: StageView | undefined;
  /** The look of a cue that is worked on blind in this window: what relative values start from. */
  look: StageView | undefined;
  notices: readonly Notice[];
  /** Why nothing plays and nothing will; null while it does. */
  gone: string | null;
  /** The parameter whose stack is shown; null for none. */
  why: string | null;
  /** What Check has found so far; null until it has looked. */
  checked: Checked | null;
  /** The page or view that was last asked for in this window. */
  shown: { page?: string; view?: string; count: number };
  /** What was typed and done here, the last one last. */
  lines: readonly DoneLine[];
}

/** What became of something: at once, and in the end. */
export interface Outcome {
  now: Refusal | undefined;
  end: Promise<Refusal | undefined>;
}

/** Doing things for somebody else: refusals are returned, and told by whoever asked. */
export interface Quietly {
  do(doing: Doing): Outcome;
  doInPieces(pieces: Pieces): Promise<Refusal | "stopped" | undefined>;
}

export interface Session {
  id: string;
  store: StoreApi<SessionState>;
  /** What this is a look at, in words: an earlier version, in which nothing can be changed. Null for the show itself. */
  readOnly: string | null;
  /** The same without telling: for other windows. Only of the window that hosts. */
  quietly: Quietly | null;
  /** Whether what was done could still be lost if this window closed now. */
  hosts: boolean;
  /** Runs a macro; a refused line ends it, and what it had edited is taken back. */
  macro(id: string): Promise<Refusal | undefined>;
  /** Shows a page or a view in this window. */
  shows(shown: { page: string } | { view: string }): void;
  /** Hears Open Sound Control that came in, in the window that hosts. @returns a way to stop. */
  onOsc(heard: (address: string, value: number) => void): () => void;
  /** How this window is arranged, for who records a view. */
  arranged(arrangement: NonNullable<ReadContext["arrangement"]> | null): void;
  /** The lines that one in plain words could mean; none for one that can be done as it stands. */
  meant(line: string): readonly string[];
  /** Why a line means nothing that could be done here; undefined where it can be read. */
  unreadable(line: string): Refusal | undefined;
  /** Reads and does a line; a refusal changes nothing and is shown. */
  run(line: string): Promise<Refusal | undefined>;
  /** Asks what a line, or edits that stand already, would do and which looks it would change, without doing it; a newer question takes its place. */
  foresee(asked: Asked, to: Foreseer): void;
  /** Asks how the stage gets into a cue. */
  timeline(list: string, cue: string, told: (transition: Transition | null) => void): void;
  /** Asks for the picture of a look. @returns a way to ask no longer. */
  picture(of: PictureOf, told: Pictured): () => void;
  /** The stack behind a parameter. */
  whyOf(key: string): Promise<Why | null>;
  /** Shows or hides the stack behind a parameter. */
  showWhy(key: string | null): void;
  /** Does intents as one step, in their own words unless others are given; with `join`, as part of the step before (a drag). */
  act(intents: readonly Intent[], says?: string, join?: boolean): Refusal | undefined;
  /** Does, as one step, what is made from how things stand. */
  build(made: Pick<Deed, "make"> & Partial<Deed>): Refusal | undefined;
  /** Holds what is built for the selection or the items given, as one step; with `join`, as part of the step before (a drag). */
  hold(build: (b: Building) => void, join?: boolean, items?: readonly Item[]): Refusal | undefined;
  /** The intents that would hold what is built; nothing is done. */
  wouldHold(build: (b: Building) => void, items?: readonly Item[]): Intent[] | Refusal;
  /** Does many intents as one step, worked out between frames; a refusal is shown, and then nothing changed. */
  actInPieces(pieces: Pieces): Promise<Refusal | "stopped" | undefined>;
  /** One step back or forward in what was done. */
  step(control: "undo" | "redo"): Promise<void>;
  event(event: PlayEvent): Promise<void>;
  /** Asks something of the wire. */
  askWire(ask: WireAsk): void;
  /** A person agrees that outputs go to these destinations. */
  agree(destinations: readonly string[]): void;
  context(): ReadContext;
  /** Reads what is typed into a field; undefined where it means nothing, which is told. */
  read<K extends keyof SlotValues>(kind: K, text: string): SlotValues[K] | undefined;
  /** Keeps a line among what was done. */
  note(line: DoneLine): void;
  tell(text: string, tone?: Notice["tone"]): void;
  dismiss(id: number): void;
  flush(): Promise<void>;
  close(): void;
}

export const NO_WIRE: WireState = { bridge: null, waiting: [], tests: {} };
export const RESTING: Playing = {
  runs: {},
  grand: 100,
  blackout: false,
  moving: [],
  waiting: [],
  timecode: { frames: 0, speed: 0, outside: false, lost: false },
};

/** What a window knows of a show that has just been opened. */
export const newState = (world: World): SessionState => ({
  world,
  history: EMPTY_HISTORY,
  saved: "saved",
  playing: RESTING,
  wire: NO_WIRE,
  view: undefined,
  look: undefined,
  notices: [],
  lines: [],
  shown: { count: 0 },
  checked: null,
  why: null,
  gone: null,
});
