"use client";

import { useEffect, useMemo, useState } from "react";
import { setFixtures } from "@/core/patch/intents";
import { isRefusal } from "@/core/show/refusal";
import { useSession, useShow } from "@/ui/show/useSession";
import type { Changes } from "./cells";
import { clashesOf, sayChanges, together } from "./draft";

const NOTHING: Changes = new Map();

/** Edits of the patch that clash with something: kept apart from the show until they are put right. */
export function useDraft() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [draft, setDraft] = useState<Changes>(NOTHING);
  const clashes = useMemo(() => clashesOf(show, draft), [show, draft]);
  useEffect(() => {
    // Records that went away take their draft along.
    if ([...draft.keys()].some((id) => !show.fixtures[id]))
      setDraft(new Map([...draft].filter(([id]) => show.fixtures[id])));
  }, [show.fixtures, draft]);

  /** Takes a draft into the show where it clashes with nothing. */
  const commit = (next: Changes) => {
    if (next.size === 0) return setDraft(NOTHING);
    if (clashesOf(show, next).length > 0) return setDraft(next);
    const says = sayChanges(show, next);
    const done = session.act([setFixtures.of({ changes: Object.fromEntries(next), says })], says);
    if (!isRefusal(done)) setDraft(NOTHING);
  };
  return {
    draft,
    clashes,
    commit,
    add: (changes: Changes) => commit(together(draft, changes)),
    discard: () => setDraft(NOTHING),
  };
}
