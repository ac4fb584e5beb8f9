"use client";

import { useEffect, useMemo, useState } from "react";
import { isUnfinished } from "@/core/desk/foresee";
import type { Rippled } from "@/core/cue/looks";
import type { Intent } from "@/core/show/change/intent";
import { isRefusal, refusalText } from "@/core/show/refusal";
import type { Asked } from "@/engine/looksMessages";
import type { CueAt, Foreseer } from "@/session/looksLink";
import { useSession, useShow } from "@/ui/show/useSession";

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
  /** The same with later looks kept; null where it lets none change. */
  keeps: readonly Intent[] | null;
  /** The palettes it would change. */
  palettes: readonly string[];
  /** Lines of the language that it could mean, where they are several. */
  means: readonly string[];
}

export const NOTHING: Foresight = {
  says: "",
  refused: false,
  known: false,
  ripple: [],
  signed: [],
  keeps: null,
  palettes: [],
  means: [],
};

/** What a line would do, worked out beside the hands: typing never waits for it. */
export const useForesight = (line: string): Foresight =>
  useAsked(
    line.trim() ? line : "",
    useMemo(() => ({ line }), [line]),
  );

/** What edits would do that stand already; nothing is asked for none. */
export function useForesightOf(intents: readonly Intent[]): Foresight {
  const text = intents.length > 0 ? JSON.stringify(intents) : "";
  const asked = useMemo(() => ({ intents: text === "" ? [] : (JSON.parse(text) as Intent[]) }), [text]);
  return useAsked(text, asked);
}

/** @param name tells one question from another; empty for none. */
function useAsked(name: string, asked: Asked): Foresight {
  const session = useSession();
  const world = useShow((s) => (name ? s.world : null));
  const [found, setFound] = useState<Foresight & { name: string }>({ ...NOTHING, name: "" });
  useEffect(() => {
    if (!name) return;
    let over = false;
    const late = setTimeout(
      () => !over && setFound({ ...NOTHING, name, says: "working out what this would do; Enter does it" }),
      WAIT_MS,
    );
    const words: Foreseer["words"] = (told) => {
      if (over) return;
      clearTimeout(late);
      if (isUnfinished(told)) setFound({ ...NOTHING, name, says: told.follows, means: told.means ?? [] });
      else
        setFound({
          ...NOTHING,
          name,
          known: true,
          refused: isRefusal(told),
          says: told === undefined ? "" : isRefusal(told) ? refusalText(told) : told.says,
          keeps: told === undefined || isRefusal(told) ? null : told.keeps,
          palettes: told === undefined || isRefusal(told) ? [] : told.palettes,
        });
    };
    session.foresee(asked, {
      words,
      ripple: (ripple, signed) => !over && setFound((now) => (now.name === name ? { ...now, ripple, signed } : now)),
    });
    return () => {
      over = true;
    };
  }, [name, asked, session, world]);
  return found.name === name && name ? found : NOTHING;
}
