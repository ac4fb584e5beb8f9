"use client";

import { IconChevronRight } from "@tabler/icons-react";
import { useMemo, useState, type KeyboardEvent } from "react";
import type { Rippled } from "@/core/cue/looks";
import type { World } from "@/core/show/world";
import { complete } from "@/core/command/read";
import { useSession, useShow } from "../useSession";
import { ASK_ID } from "./askInput";
import { capital } from "../parts/words";
import { findByName } from "./find";
import { useForesight } from "./useForesight";
import classes from "./AskBar.module.css";

interface Offer {
  label: string;
  line: string;
  hint: boolean;
}

const MOST = 9;

/** Where commands are typed and things are found; says what the line would do before Enter. */
export function AskBar() {
  const session = useSession();
  const [line, setLine] = useState("");
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState(-1);
  const [past, setPast] = useState(-1);
  const world = useShow((s) => s.world);
  const lines = useShow((s) => s.lines);

  const { says, refused, known, ripple } = useForesight(line);
  const offers = useMemo((): Offer[] => {
    if (!open || !line.trim()) return [];
    try {
      const words = complete(line, session.context()).map((c) => ({ label: c.text, line: c.line, hint: !c.isWord }));
      const found = findByName(session.store.getState().world, line).map((f) => ({ ...f, hint: false }));
      return [...found, ...words].slice(0, MOST);
    } catch {
      // What could follow is a help only: the line can be typed all the same.
      return [];
    }
  }, [line, open, session]);
  const choices = offers.filter((o) => !o.hint);

  const put = (text: string) => {
    setLine(text);
    setChosen(-1);
  };
  // The field is free at once, so that a quick hand can go on typing; a refused line comes back.
  const enter = async () => {
    const text = line.trim();
    if (!text) return;
    put("");
    setPast(-1);
    if (await session.run(text)) setLine((now) => (now === "" ? text : now));
    else session.noteLine(text);
  };
  const recall = (step: number) => {
    const next = Math.min(Math.max(past + step, -1), lines.length - 1);
    setPast(next);
    put(next < 0 ? "" : lines[lines.length - 1 - next]!);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const key = event.key;
    if (key === "Enter") {
      event.preventDefault();
      if (chosen >= 0 && choices[chosen]) put(choices[chosen].line);
      else void enter();
    } else if (key === "Tab" && choices.length > 0) {
      event.preventDefault();
      put(choices[Math.max(chosen, 0)]!.line);
    } else if (key === "ArrowDown" || key === "ArrowUp") {
      event.preventDefault();
      if (past >= 0 || line === "") recall(key === "ArrowUp" ? 1 : -1);
      else if (choices.length > 0)
        setChosen((c) => (key === "ArrowDown" ? Math.min(c + 1, choices.length - 1) : Math.max(c - 1, -1)));
    } else if (key === "Escape" && line !== "" && !event.shiftKey) {
      event.stopPropagation();
      event.preventDefault();
      if (open && offers.length > 0) setOpen(false);
      else put("");
    }
  };

  return (
    <div className={classes.box} data-refused={refused}>
      <IconChevronRight size={16} color="var(--selection)" aria-hidden />
      <input
        id={ASK_ID}
        className={classes.input}
        value={line}
        onChange={(e) => (put(e.currentTarget.value), setOpen(true), setPast(-1))}
        onKeyDown={onKeyDown}
        onFocus={() => setOpen(true)}
        onBlur={() => setOpen(false)}
        placeholder="Type a command, or Space to go"
        aria-label="Ask bar"
        autoComplete="off"
        spellCheck={false}
      />
      <span className={classes.says} data-testid="ask-says" title={says}>
        {says}
      </span>
      {open && line.trim() !== "" && (
        <div className={classes.drop} onMouseDown={(e) => e.preventDefault()}>
          <p className={classes.full} data-refused={refused}>
            {refused || !known ? capital(says) : says ? `Enter: ${says}` : "Nothing happens yet"}
          </p>
          {ripple.length > 0 && (
            <p className={classes.ripple} data-testid="ripple">
              <span>
                Changes the {ripple.length === 1 ? "look" : "looks"} of {rippleText(world, ripple)}
              </span>
              {keeping(line) && (
                <button type="button" className={classes.offer} onClick={() => put(keeping(line)!)}>
                  Keep {ripple.length === 1 ? "that look" : "those looks"}
                </button>
              )}
            </p>
          )}
          {offers.length > 0 && (
            <div className={classes.offers}>
              {offers.map((offer) =>
                offer.hint ? (
                  <span key={offer.label} className={classes.hint}>
                    {offer.label}
                  </span>
                ) : (
                  <button
                    key={offer.label}
                    type="button"
                    className={classes.offer}
                    data-chosen={choices[chosen] === offer}
                    onClick={() => put(offer.line)}
                  >
                    {offer.label}
                  </button>
                ),
              )}
            </div>
          )}
        </div>
      )}
    </div>
  );
}

const MOST_CUES = 8;

function rippleText({ show }: World, ripple: readonly Rippled[]): string {
  const names = ripple.slice(0, MOST_CUES).map(({ list, cue, fixtures }) => {
    const owner = show.lists[list];
    const n = fixtures.length;
    return `cue ${owner?.cues[cue]?.number ?? "?"}${owner && owner.number !== 1 ? ` of list ${owner.number}` : ""} (${n} ${n === 1 ? "fixture" : "fixtures"})`;
  });
  return names.join(", ") + (ripple.length > MOST_CUES ? ` and ${ripple.length - MOST_CUES} more` : "");
}

/** The line that does the same and keeps later looks; undefined where there is no such. */
function keeping(line: string): string | undefined {
  const text = line.trim();
  if (/^(record .*cue|update .*cue)/i.test(text) && !/cueonly/i.test(text)) return `${text} cueonly`;
  if (/^(delete|move) .*\btrack$/i.test(text)) return text.replace(/\btrack$/i, "keeplooks");
  return undefined;
}
