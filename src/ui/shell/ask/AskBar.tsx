"use client";

import { Combobox, useCombobox } from "@mantine/core";
import { IconChevronRight } from "@tabler/icons-react";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Rippled } from "@/core/cue/looks";
import { storedWords } from "@/core/cue/storedWords";
import type { World } from "@/core/show/world";
import { couldMeanToo, timesAfter } from "@/core/command/plainly";
import { complete } from "@/core/command/read";
import { readLine } from "@/core/command/read";
import { isRefusal } from "@/core/show/refusal";
import type { Session } from "@/session/state";
import { lineText, recalled, recordedLast } from "@/session/lines";
import { useSession, useShow } from "@/ui/show/useSession";
import { takesText } from "@/ui/show/keys/showKeys";
import { ASK_ID, askInput } from "@/ui/show/foresight/askInput";
import { capital } from "@/ui/base/typed/capital";
import { openHandbook } from "@/ui/shell/handbook/Handbook";
import { findByName, findInHandbook, type Found } from "./find";
import { lineDone, useForeseen } from "@/ui/show/foresight/foreseen";
import { useForesight } from "@/ui/show/foresight/useForesight";
import classes from "./AskBar.module.css";
import { plural } from "@/core/units/plural";

const MOST = 9;

/** Where commands are typed and things are found; says what the line would do before Enter. */
export function AskBar() {
  const session = useSession();
  const [line, setLine] = useState("");
  const [open, setOpen] = useState(false);
  const list = useCombobox();
  const elsewhere = useTypedElsewhere();
  const stored = useStored();
  const [past, setPast] = useState(-1);
  const found = useForesight(line);
  const { says, refused, known, ripple, signed, keeps, means } = found;
  const done = useForeseen((s) => s.done);
  useEffect(() => setLine(""), [done]);
  useEffect(() => {
    if (line) useForeseen.setState({ line, found });
  }, [line, found]);
  // Empty, it has nothing to say of the show.
  const world = useShow((s) => (line ? s.world : null)) ?? session.store.getState().world;
  const choices = useMemo((): Found[] => {
    if (!open || !line.trim()) return [];
    const could = means.length > 0 ? means : timesAfter(line, () => recorded(session));
    if (could.length > 0) return could.map((meant) => ({ label: meant, line: meant }));
    try {
      const words = complete(line, session.context()).flatMap((c) =>
        c.isWord ? [{ label: c.text, line: c.line }] : [],
      );
      const { world } = session.store.getState();
      const found = findByName(world, line);
      const too =
        world.hands.selection.length > 0 ? couldMeanToo(line).map((text) => ({ label: text, line: text })) : [];
      // Last, so that what can be done stays nearest to the hand.
      const pages = findInHandbook(line);
      return [...[...too, ...found, ...words].slice(0, MOST - pages.length), ...pages];
    } catch {
      // What could follow is a help only: the line can be typed all the same.
      return [];
    }
  }, [line, open, means, session]);

  const put = (text: string) => {
    setLine(text);
    list.resetSelectedOption();
  };
  const take = (text: string) => {
    const page = choices.find((c) => c.line === text)?.page;
    // Of times that could be a cue's, those chosen as they stand are meant as they stand.
    const asTyped = text === line.trim() && timesAfter(text, () => recorded(session)).length > 0;
    if (page === undefined) return asTyped ? void run(text, text) : put(text);
    put("");
    openHandbook(page);
  };
  // The field is free at once, so that a quick hand can go on typing; a refused line comes back.
  const enter = async () => {
    const text = line.trim();
    if (!text) return;
    const times = timesAfter(text, () => recorded(session));
    const means = times.length > 0 ? times : session.meant(text);
    // Of several the hand takes one; Enter once more does it.
    if (means.length > 1) return void list.selectFirstOption();
    await run(means[0] ?? text, text);
  };
  /** Does a line, that of a text which is put back where it is refused. What cannot be read stays, with the reason below it. */
  const run = async (meant: string, text: string) => {
    if (session.unreadable(meant)) return setOpen(true);
    put("");
    setPast(-1);
    if (await session.run(meant)) setLine((now) => (now === "" ? text : now));
    else session.note(meant);
  };
  const recall = (step: number) => {
    const lines = recalled(session.store.getState().lines);
    const next = Math.min(Math.max(past + step, -1), lines.length - 1);
    setPast(next);
    put(lines[next] ?? "");
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const key = event.key;
    if (key === "Enter") {
      event.preventDefault();
      if (list.getSelectedOptionIndex() >= 0) list.clickSelectedOption();
      else void enter();
    } else if (key === "Tab" && choices.length > 0) {
      event.preventDefault();
      take(choices[Math.max(list.getSelectedOptionIndex(), 0)]!.line);
    } else if (key === "ArrowDown" || key === "ArrowUp") {
      event.preventDefault();
      if (past >= 0 || line === "") recall(key === "ArrowUp" ? 1 : -1);
      else if (key === "ArrowDown") list.selectNextOption();
      else if (list.getSelectedOptionIndex() <= 0) list.resetSelectedOption();
      else list.selectPreviousOption();
    } else if (key === "Escape" && line !== "" && !event.shiftKey) {
      event.stopPropagation();
      event.preventDefault();
      if (open && choices.length > 0) setOpen(false);
      else put("");
    }
  };

  const shown = open && line.trim() !== "";
  return (
    <Combobox
      store={{ ...list, dropdownOpened: shown }}
      onOptionSubmit={take}
      offset={10}
      shadow="md"
      position="bottom-start"
      transitionProps={{ duration: 0 }}
    >
      <Combobox.DropdownTarget>
        <div className={classes.box} data-refused={refused}>
          <IconChevronRight size={16} color="var(--selection)" aria-hidden />
          <Combobox.EventsTarget withKeyboardNavigation={false} withExpandedAttribute autoComplete="off">
            <input
              id={ASK_ID}
              className={classes.input}
              role="combobox"
              aria-autocomplete="list"
              value={line}
              onChange={(e) => {
                put(e.currentTarget.value);
                setOpen(true);
                setPast(-1);
              }}
              onKeyDown={onKeyDown}
              onFocus={() => setOpen(true)}
              onBlur={() => setOpen(false)}
              placeholder={elsewhere ? "Space types where the cursor is; Esc leaves" : "Type a command, or Space to go"}
              aria-label="Ask bar"
              spellCheck={false}
            />
          </Combobox.EventsTarget>
          {line === "" ? (
            <Hinted stored={stored} />
          ) : (
            <span className={classes.says} data-testid="ask-says" data-hint={false} title={says}>
              {says}
            </span>
          )}
        </div>
      </Combobox.DropdownTarget>
      <Combobox.Dropdown className={classes.drop} onMouseDown={(e) => e.preventDefault()}>
        <p className={classes.full} data-refused={refused}>
          {refused || !known ? capital(says) : says ? `Enter: ${says}` : "Nothing happens yet"}
        </p>
        {signed.length > 0 && (
          <p className={classes.broken} data-testid="breaks-signed">
            Changes the signed-off look of{" "}
            {rippleText(
              world,
              signed.map((s) => ({ ...s, fixtures: [] })),
            )}
          </p>
        )}
        {ripple.length > 0 && (
          <p className={classes.ripple} data-testid="ripple">
            <span>
              Changes the {ripple.length === 1 ? "look" : "looks"} of {rippleText(world, ripple)}
            </span>
            {keeps && (
              <button type="button" className={classes.keep} onClick={() => !session.act([...keeps]) && lineDone()}>
                Keep {ripple.length === 1 ? "that look" : "those looks"}
              </button>
            )}
          </p>
        )}
        <Combobox.Options className={classes.offers} aria-label="What could come next">
          {choices.map((offer) => (
            <Combobox.Option key={offer.label} value={offer.line} className={classes.offer}>
              {offer.label}
            </Combobox.Option>
          ))}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}

/** The cue that the last line recorded. */
const recorded = (session: Session) =>
  recordedLast(session.store.getState().lines, (line) => {
    const read = readLine(line, session.context(), { abbreviate: true });
    return read === undefined || isRefusal(read) ? [] : read.intents;
  });

/** Whether letters go into another field than the Ask bar. */
function useTypedElsewhere(): boolean {
  const [elsewhere, setElsewhere] = useState(false);
  useEffect(() => {
    const look = () => setElsewhere(document.activeElement !== askInput() && takesText(document.activeElement));
    addEventListener("focusin", look);
    addEventListener("focusout", look);
    return () => {
      removeEventListener("focusin", look);
      removeEventListener("focusout", look);
    };
  }, []);
  return elsewhere;
}

/** What is under the hand would do, else what was done last; by itself, so that the bar is not drawn with every edit. */
function Hinted({ stored }: { stored: string | null }) {
  const hint = useForeseen((s) => s.hint) ?? "";
  const found = useForesight(hint);
  useEffect(() => useForeseen.setState({ line: hint, found }), [hint, found]);
  if (hint === "") return <LastLine stored={stored} />;
  const { says, refused, ripple } = found;
  return (
    <span className={classes.says} data-testid="ask-says" data-hint data-refused={refused} title={says}>
      {ripple.length > 0 ? `${says} · changes ${plural(ripple.length, "other look")}` : says}
    </span>
  );
}

/** The line of what was done last, by whatever hand: what to type to have it again. */
function LastLine({ stored }: { stored: string | null }) {
  const last = useShow((s) => s.lines.at(-1));
  const [text, setText] = useState<string>();
  // A line about thousands takes its time to write: what was done is on screen before.
  useEffect(() => {
    const tell = () => setText(last && lineText(last));
    // A line that was typed is there already.
    const timer = setTimeout(tell, typeof last === "string" ? 0 : SETTLED_MS);
    return () => clearTimeout(timer);
  }, [last]);
  if (text === undefined) return null;
  return (
    <span className={classes.last} data-testid="ask-last" title={`Done last: ${text}. Arrow up brings it back`}>
      {stored && (
        <span className={classes.stored} role="status" data-testid="stored">
          {stored}
        </span>
      )}{" "}
      <span>{text}</span>
    </span>
  );
}

/** What was just stored in cues, in words, for some seconds. */
function useStored(): string | null {
  const { store } = useSession();
  const step = useShow((s) => s.history.done.at(-1));
  const undone = useShow((s) => s.history.undone.length);
  const seen = useRef({ step, undone });
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    const before = seen.current;
    seen.current = { step, undone };
    if (before.step === step) return;
    // What was taken back leaves the step before it as the last one: that is not stored now.
    setSaid((undone <= before.undone && step && storedWords(store.getState().world, step.diff)) || null);
    const timer = setTimeout(() => setSaid(null), STORED_MS);
    return () => clearTimeout(timer);
  }, [store, step, undone]);
  return said;
}

const STORED_MS = 7000;

/** A drag is told once it rests. */
const SETTLED_MS = 150;
const MOST_CUES = 8;

function rippleText({ show }: World, ripple: readonly Rippled[]): string {
  const names = ripple.slice(0, MOST_CUES).map(({ list, cue, fixtures }) => {
    const owner = show.lists[list];
    const n = fixtures.length;
    const where = `cue ${owner?.cues[cue]?.number ?? "?"}${owner && owner.number !== 1 ? ` of list ${owner.number}` : ""}`;
    return n === 0 ? where : `${where} (${plural(n, "fixture")})`;
  });
  return names.join(", ") + (ripple.length > MOST_CUES ? ` and ${ripple.length - MOST_CUES} more` : "");
}
