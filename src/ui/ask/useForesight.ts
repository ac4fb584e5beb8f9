"use client";

import { useEffect, useState } from "react";
import { isUnfinished, type Unfinished } from "@/core/desk/foresee";
import type { Rippled } from "@/core/cue/looks";
import { isRefusal, refusalText, type Refusal } from "@/core/show/refusal";
import type { CueAt } from "@/session/looksLink";
import { useSession, useShow } from "../useSession";

/** Words that take longer than this are not waited for. */
const WAIT_MS = 30;

export interface Foresight {
  /** What the line would do or why it would be refused, in words; empty while that is not known. */
  says: string;
  refused: boolean;
  /** Whether the line can be done as it stands and its words are there. */
  known: boolean;
  ripple: readonly Rippled[];
  /** Cues whose signed-off look it would break. */
  signed: readonly CueAt[];
}

const NOTHING: Foresight = { says: "", refused: false, known: false, ripple: [], signed: [] };

/** What a line would do, worked out beside the hands: typing never waits for it. */
export function useForesight(line: string): Foresight {
  const session = useSession();
  const world = useShow((s) => (line.trim() ? s.world : null));
  const [found, setFound] = useState<Foresight & { line: string }>({ ...NOTHING, line: "" });
  useEffect(() => {
    if (!line.trim()) return;
    let over = false;
    const late = setTimeout(
      () => !over && setFound({ ...NOTHING, line, says: "working out what this would do; Enter does it" }),
      WAIT_MS,
    );
    const words = (told: { says: string } | Unfinished | Refusal | undefined) => {
      if (over) return;
      clearTimeout(late);
      if (isUnfinished(told)) setFound({ ...NOTHING, line, says: `could follow: ${told.follows}` });
      else
        setFound({
          line,
          known: true,
          refused: isRefusal(told),
          says: told === undefined ? "" : isRefusal(told) ? refusalText(told) : told.says,
          ripple: [],
          signed: [],
        });
    };
    session.foresee(line, {
      words,
      ripple: (ripple, signed) => !over && setFound((now) => (now.line === line ? { ...now, ripple, signed } : now)),
    });
    return () => {
      over = true;
    };
  }, [line, session, world]);
  return found.line === line && line.trim() ? found : NOTHING;
}
