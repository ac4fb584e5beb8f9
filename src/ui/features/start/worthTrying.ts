/** Ten things worth trying in the demo show. Each sets itself up by lines and can be taken back. */
import type { PlaceId } from "@/ui/show/addresses/placeIds";

export interface Trial {
  title: string;
  about: string;
  place: PlaceId;
  /** Lines that are done when it is tried. */
  lines: readonly string[];
  /** A line that is put into the Ask bar and not done: it says what it would do. */
  typed?: string;
  /** Lines that end what undo does not take back: what plays, and blind. */
  ends?: readonly string[];
}

export const WORTH_TRYING: readonly Trial[] = [
  {
    title: "Point twelve lamps at one spot",
    about: "Each finds its own pan and tilt. Drag the ring on the stage to move all of them.",
    place: "build",
    lines: ["1 thru 12 at full colour at #ffb04a aim at 0 2 0"],
  },
  {
    title: "See what a line would do",
    about: "It is typed, not done: the Ask bar shows which cues it would change, before and after.",
    place: "cues",
    lines: [],
    typed: "set cue 4 group 2 intensity at 20",
  },
  {
    title: "Play the show",
    about: "Cue 3 runs. Space is go: press it for the next.",
    place: "run",
    lines: ["go list 1 cue 3"],
    ends: ["release list 1"],
  },
  {
    title: "Spread a value",
    about: "One range over sixteen lamps, mirrored. Change the spread at the left and type again.",
    place: "build",
    lines: ["group 2", "spread mirror 2", "at 0 to 100 palette 41"],
  },
  {
    title: "Run a wave over the rig",
    about: "Tilt swings around what lies underneath. Open Effect to grab its lines.",
    place: "build",
    lines: ["1 thru 12 at full aim at 0 3 0 tilt wave sine relative size 12 bpm 20 across 360"],
  },
  {
    title: "Ask why",
    about: "The whole stack behind one number, from the default to the bytes on the wire.",
    place: "build",
    lines: ["go list 1 cue 5", "why 7 pan"],
    ends: ["release list 1"],
  },
  {
    title: "Work blind",
    about: "Set a look that is not on stage yet. Go live in the frame around the picture puts it there.",
    place: "build",
    lines: ["blind on", "group 2 at full palette 49"],
    ends: ["blind off"],
  },
  {
    title: "Put a chase on your beat",
    about: "The lantern chase runs on page Storm. Tap its speed with the hand on its lane.",
    place: "run",
    lines: ["page 2", "go list 7"],
    ends: ["release list 7", "page 1"],
  },
  {
    title: "Throw a pattern",
    about: "The beam server projects a fan over the deck. Try other patterns and sizes in the programmer.",
    place: "build",
    lines: ["95 at full MediaFolder1 at 1 MediaContent1 at 1 VideoScale at 70 HSB_Hue at 190"],
  },
  {
    title: "Replace a lamp type",
    about: "It is typed, not done: what carries over, what only nearly, and what the new type cannot do.",
    place: "rig",
    lines: [],
    typed: "swap type 21 thru 36 kelp-mini",
  },
];
