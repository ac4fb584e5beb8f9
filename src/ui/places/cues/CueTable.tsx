"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type PointerEvent,
} from "react";
import { deleteCue, moveCue } from "@/core/cue/intents/intents";
import { linesOf } from "@/core/desk/lines";
import type { Cue, CueList } from "@/core/show/schema";
import { useForeseen } from "@/ui/show/foresight/foreseen";
import { useSession, useShow } from "@/ui/show/useSession";
import { CueRow } from "./CueRow";
import type { Intent } from "@/core/show/change/intent";
import { numberBefore, numbersBefore } from "@/ui/features/cues/cueRoom";
import type { Chosen } from "@/ui/features/cues/useChosen";
import classes from "@/ui/features/cues/Cues.module.css";

/** The usual height of a row, before it is measured. */
const ROW = 66;
const STILL = 5;

interface Props {
  list: CueList;
  /** Its cues in order. */
  cues: readonly Cue[];
  chosen: Chosen;
  /** Keeps the running cue in sight. */
  follows: boolean;
  /** What is looked for; rows that have it are brought into sight one after another. */
  find: string;
  /** A cue to bring into sight. */
  sight: string | null;
}

/** The list as a filmstrip: numbers, pictures, names, notes and times, edited where they stand. */
export function CueTable({ list, cues, chosen, follows, find, sight }: Props) {
  const session = useSession();
  const running = useShow((s) => s.playing.runs[list.id]?.cue ?? null);
  const scroll = useRef<HTMLDivElement>(null);
  const grab = useRef<{ cue: Cue; y: number; moved: boolean } | null>(null);
  /** Where a dragged cue would go: before the cue of this place. */
  const [gap, setGap] = useState<number | null>(null);
  const rows = useVirtualizer({
    count: cues.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    getItemKey: (k) => cues[k]!.id,
    overscan: 4,
    useFlushSync: false,
  });
  const place = cues.findIndex((c) => c.id === running);
  // A list that is opened shows where it stands; later it stays where the hand has put it, unless it follows.
  useEffect(() => {
    if (place >= 0) rows.scrollToIndex(place, { align: "center" });
    else rows.scrollToOffset(0);
  }, [list.id]); // oxlint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    if (follows && place >= 0) rows.scrollToIndex(place, { align: "center" });
  }, [follows, place]); // oxlint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    const at = find ? cues.findIndex((c) => matches(c, find)) : -1;
    if (at < 0) return;
    rows.scrollToIndex(at, { align: "center" });
    chosen.choose(cues[at]!.id);
  }, [find]); // oxlint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    const at = cues.findIndex((c) => c.id === sight);
    if (at >= 0) rows.scrollToIndex(at, { align: "center" });
  }, [sight]); // oxlint-disable-line react-hooks/exhaustive-deps
  const longest = useMemo(
    () => cues.reduce((most, { times: t }) => Math.max(most, t.up + t.delayUp, t.down + t.delayDown), 4),
    [cues],
  );
  const together = useMemo(() => [...chosen.ids], [chosen.ids]);
  const press = useLatest((cue: Cue, event: MouseEvent) => chosen.press(cue.id, event));
  const take = useLatest((cue: Cue, event: PointerEvent) => {
    if (event.button === 0) grab.current = { cue, y: event.clientY, moved: false };
  });
  if (cues.length === 0)
    return (
      <p className={classes.empty}>
        No cues in {list.name} yet. Set some values in Build, then press Record or type: record cue 1
      </p>
    );
  /** Moves that would change something, of all that are chosen with the cue; none where they would stay, or no number is free. */
  const moveTo = (cue: Cue, to: number | null): Intent[] => {
    if (to === null) return [];
    const moved = chosen.ids.has(cue.id) ? cues.filter((c) => chosen.ids.has(c.id)) : [cue];
    const rest = cues.filter((c) => !moved.includes(c));
    const place = cues.slice(0, to).filter((c) => !moved.includes(c)).length;
    const after = [...rest.slice(0, place), ...moved, ...rest.slice(place)];
    if (after.every((c, k) => c === cues[k])) return [];
    const one = numberBefore(rest, place);
    const numbers =
      moved.length === 1
        ? one === undefined
          ? undefined
          : [one]
        : numbersBefore(
            rest,
            place,
            moved.length,
            moved.map((c) => c.number),
          );
    return numbers
      ? moved.map((c, k) => moveCue.of({ list: list.id, cue: c.id, to: numbers[k]!, keepLooks: true }))
      : [];
  };
  const drag = (event: PointerEvent) => {
    const now = grab.current;
    if (!now || (!now.moved && Math.abs(event.clientY - now.y) < STILL)) return;
    now.moved = true;
    const over = (document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null)?.closest<HTMLElement>(
      "tr[data-index]",
    );
    if (!over) return;
    const box = over.getBoundingClientRect();
    const to = Number(over.dataset.index) + (event.clientY > box.top + box.height / 2 ? 1 : 0);
    if (to === gap) return;
    setGap(to);
    const [intent] = moveTo(now.cue, to);
    useForeseen.setState({ hint: intent ? linesOf(session.store.getState().world, [intent])[0]! : null });
  };
  const drop = () => {
    const now = grab.current;
    grab.current = null;
    if (!now?.moved) return;
    setGap(null);
    useForeseen.setState({ hint: null });
    const intents = moveTo(now.cue, gap);
    if (intents.length > 0)
      session.act(intents, intents.length > 1 ? `moves ${intents.length} cues; other looks stay` : undefined);
  };
  /** Names the cue that is shown, in a frame or two where its row is still on its way. */
  const nameShown = (tries = 20): void => {
    const name = scroll.current?.querySelector<HTMLElement>('[data-shown="true"] [data-name] button');
    if (name) name.click();
    else if (tries > 0) requestAnimationFrame(() => nameShown(tries - 1));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if ((event.target as HTMLElement).closest("input, [role=menu], [data-scrub]")) return;
    const did = () => {
      if (event.key === "Enter" && event.target === scroll.current) {
        if (chosen.shown !== null) nameShown();
        return chosen.shown !== null;
      }
      const shown = chosen.step(event);
      if (shown !== null) {
        scroll.current?.focus({ preventScroll: true });
        // The row follows the keys once the choice is drawn; far away there is none yet.
        requestAnimationFrame(() => {
          const row = scroll.current?.querySelector('[data-shown="true"]');
          if (row) row.scrollIntoView({ block: "nearest" });
          else rows.scrollToIndex(cues.findIndex((c) => c.id === shown));
        });
        return true;
      }
      if (event.key !== "Delete" || chosen.ids.size === 0) return false;
      const gone = [...chosen.ids].filter((id) => list.cues[id]);
      return !session.act(gone.map((cue) => deleteCue.of({ list: list.id, cue, keepLooks: true })));
    };
    if (!did()) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const items = rows.getVirtualItems();
  return (
    <div
      className={classes.scroll}
      ref={scroll}
      tabIndex={0}
      role="region"
      aria-label={`Filmstrip of ${list.name}: arrows choose a cue, Enter names it, Delete takes it out and keeps later looks`}
      onKeyDown={onKeyDown}
      onPointerMove={drag}
      onPointerUp={drop}
      onPointerCancel={drop}
    >
      <table className={classes.table} aria-label={`Cues of ${list.name}`} aria-rowcount={cues.length + 1}>
        <thead>
          <tr>
            <th>Cue</th>
            <th>Look</th>
            <th>Name and note</th>
            <th>Time, s</th>
            <th>Starts</th>
            <th aria-label="Marks" />
            <th aria-label="More" />
          </tr>
        </thead>
        <tbody>
          <Gap height={items[0]?.start ?? 0} />
          {items.map(({ index }) => {
            const cue = cues[index]!;
            return (
              <CueRow
                key={cue.id}
                index={index}
                measure={rows.measureElement}
                list={list}
                cue={cue}
                running={cue.id === running}
                shown={cue.id === chosen.shown}
                together={chosen.ids.has(cue.id) ? together : undefined}
                longest={longest}
                gap={gap === index ? "above" : gap === index + 1 ? "below" : undefined}
                onPress={press}
                onGrab={take}
              />
            );
          })}
          <Gap height={rows.getTotalSize() - (items.at(-1)?.end ?? 0)} />
        </tbody>
      </table>
    </div>
  );
}

/** What is done now, under a name that stays: rows are not drawn anew for it. */
function useLatest<A extends unknown[]>(work: (...args: A) => void): (...args: A) => void {
  const latest = useRef(work);
  useEffect(() => {
    latest.current = work;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}

/** Whether a cue has a text in its number, name or note. */
export const matches = ({ number, name, note }: Cue, text: string): boolean =>
  `${number}`.startsWith(text.trim()) || `${name}\n${note}`.toLowerCase().includes(text.trim().toLowerCase());

/** The room of the rows that are not drawn. */
const Gap = ({ height }: { height: number }) =>
  height > 0 ? (
    <tr aria-hidden>
      <td colSpan={7} style={{ height, padding: 0 }} />
    </tr>
  ) : null;
