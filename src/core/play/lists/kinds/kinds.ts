/** The kinds of playback there are. */
import type { CueList } from "../../../show/schema";
import { limiter, submaster, takeover } from "./byLevel";
import { chase } from "./chase";
import { cueList } from "./cues";
import { effectLane } from "./effectLane";
import type { Kind } from "./kind";
import { morph } from "./morph";

const KINDS: Record<CueList["kind"], Kind> = {
  list: cueList,
  submaster,
  limiter,
  takeover,
  effect: effectLane,
  chase,
  morph,
};

/** The card of a list's kind. */
export const kindOf = (list: Pick<CueList, "kind">): Kind => KINDS[list.kind];
