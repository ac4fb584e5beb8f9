"use client";

import { useCallback, useMemo, useRef, useState, type PointerEvent } from "react";
import { type Looks } from "@/core/cue/intents/cueDraft";
import { setCue } from "@/core/cue/intents/intents";
import type { Rippled } from "@/core/cue/looks";
import { trackingOf } from "@/core/cue/tracking";
import { linesOf } from "@/core/desk/lines";
import { splitKey } from "@/core/show/ids";
import type { Cue, CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { useForeseen } from "@/ui/show/foresight/foreseen";
import { usePaletteNames } from "@/ui/show/held/usePaletteNames";
import { normal, sizeOf, type Range } from "@/ui/base/sheet/range";
import { Sheet } from "@/ui/base/sheet/Sheet";
import type { Look } from "@/ui/base/sheet/looks";
import { startView, type SheetView } from "@/ui/base/sheet/view";
import { useSession, useShow } from "@/ui/show/useSession";
import { SheetTools } from "./SheetTools";
import { columnsOf, CUE, type ParamColumn } from "./sheetColumns";
import { cellOf } from "./sheetCell";
import { edit, emptied, filled, pasted, typed, type TakenCue } from "./sheetEdits";
import { useLines } from "./useLines";
import { useRehearsal } from "./useRehearsal";
import type { Chosen } from "@/ui/features/cues/useChosen";
import classes from "@/ui/features/cues/Cues.module.css";

const VIEW: SheetView = startView([], false);

/** By fixture, the cues of a list in which its look would be another. */
function changesIn(rippled: readonly Rippled[], list: string): ReadonlyMap<string, readonly string[]> {
  const made = new Map<string, string[]>();
  for (const { list: of, cue, fixtures } of rippled) {
    if (of !== list) continue;
    for (const fixture of fixtures) {
      const known = made.get(fixture);
      if (known) known.push(cue);
      else made.set(fixture, [cue]);
    }
  }
  return made;
}

interface Props {
  list: CueList;
  cues: readonly Cue[];
  chosen: Chosen;
  /** A narrow one beside the filmstrip. */
  narrow?: boolean;
}

/** Values through the list: cues down, parameters across; edited in cells and ranges, with what it means further on said before Enter. */
export function CueSheet({ list, cues, chosen, narrow = false }: Props) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const running = useShow((s) => s.playing.runs[list.id]?.cue ?? null);
  const [whose, setWhose] = useState("selection");
  const [looks, setLooks] = useState<Looks>("track");
  const [names, setNames] = usePaletteNames();
  const [view, setView] = useState(VIEW);
  const rehearses = useRehearsal(list.id);
  const [to, setTo] = useState<{ cue: string; end: number } | null>(null);
  const own = useMemo(
    () => columnsOf(show, list, selection.length === 0 && whose === "selection" ? "all" : whose, selection),
    [show, list, whose, selection],
  );
  const columns = useMemo(() => [CUE, ...own.map((c) => ({ ...c, width: view.widths[c.id] ?? c.width }))], [own, view]);
  const { lines, places, heads } = useLines(cues);
  const tracking = trackingOf(list, show);
  const { reachEnd } = tracking;
  const reaches = useMemo(
    () =>
      heads.cues.flatMap((c, from) => {
        const end = to?.cue === c.id ? to.end : reachEnd[from]!;
        return end === Infinity || (c.reach === null && to?.cue !== c.id) ? [] : [{ cue: c.id, from, end }];
      }),
    [heads, reachEnd, to],
  );
  const rippled = useForeseen((s) => s.found.ripple);
  const changed = useMemo(() => changesIn(rippled, list.id), [rippled, list.id]);
  const checked = useShow((s) => s.checked);
  const moons = checked?.moons;
  const drifting = useMemo(() => {
    const found = new Map<string, Set<string>>();
    for (const f of checked?.findings ?? [])
      if (f.concern === "Drift" && f.cue) {
        const of = found.get(f.cue) ?? new Set();
        for (const fixture of f.fixtures ?? []) of.add(fixture);
        found.set(f.cue, of);
      }
    return found;
  }, [checked]);
  const taken = (r: Range): TakenCue[] => {
    const { r1, r2, c1, c2 } = normal(r);
    return cues.slice(r1, r2 + 1).map((cue) => ({ cue, columns: columns.slice(Math.max(1, c1), c2 + 1) }));
  };
  const now = useRef({ show, list, changed });
  now.current = { show, list, changed };
  const { types, fixtures, palettes, effects } = show;
  /** What the cells of a column are drawn from beside their cue and what `look` is made of. */
  const about = (column: ParamColumn) => [
    tracking.columns.get(column.key),
    changed.get(splitKey(column.key).fixture)?.join(),
  ];
  const look = useCallback(
    (cue: Cue, column: ParamColumn): Look => {
      const at = places.get(cue.id) ?? 0;
      if (column.id !== CUE.id) {
        const { show, list, changed } = now.current;
        const made = cellOf(show, list, cue, at, column.key, names);
        const fixture = column.key.split(".")[0]!;
        const other = !column.key.endsWith(".Dimmer");
        const drifts = other && (drifting.get(cue.id)?.has(fixture) ?? false);
        const moon = other && (moons?.[cue.id]?.includes(fixture) ?? false);
        if (drifts || moon)
          made.content = (
            <>
              {moon ? "☾ " : ""}
              {drifts ? "△ " : ""}
              {made.content}
            </>
          );
        if (drifts) made.title = `${made.title}; it changes unseen or while fading out: drift`;
        if (moon) made.title = `${made.title}; it has moved here beforehand, in the dark`;
        const differs = changed.get(fixture)?.includes(cue.id);
        return { ...made, data: { ...made.data, ...(differs ? { "data-changes": true } : {}) } };
      }
      const covering = reaches.filter((r) => r.from <= at && at <= r.end);
      return {
        content: (
          <span className={classes.sheetCue} data-running={cue.id === running} data-shown={cue.id === chosen.shown}>
            <button type="button" data-cue={cue.id} title={cue.name || "no name"}>
              {plain(cue.number, 3)}
            </button>
            {covering.map((r, k) => (
              <i
                key={r.cue}
                className={classes.reach}
                data-first={r.from === at}
                data-last={r.end === at}
                style={{ right: 4 + k * 8 }}
                title={`What cue ${plain(heads.cues[r.from]!.number, 3)} stores reaches up to cue ${plain(heads.cues[Math.min(r.end, heads.cues.length - 1)]!.number, 3)}: drag its end`}
              >
                {r.end === at && <b data-reach={r.cue} />}
              </i>
            ))}
          </span>
        ),
        title: cue.name,
      };
    },
    [heads, places, names, drifting, moons, reaches, running, chosen.shown, types, fixtures, palettes, effects], // oxlint-disable-line react-hooks/exhaustive-deps
  );
  /** The end of a reach follows the hand; the cue it ends at is the one under it. */
  const grabbed = (event: PointerEvent<HTMLElement>) => (event.target as HTMLElement).dataset.reach;
  const under = (event: PointerEvent) => {
    const cell = (document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null)?.closest<HTMLElement>(
      "[data-row]",
    );
    return cell ? Number(cell.dataset.row) : null;
  };
  const reachTo = (cue: string, end: number) =>
    setCue.of({
      list: list.id,
      cue,
      reach: end >= cues.length - 1 ? null : { cue: cues[Math.max(end, places.get(cue) ?? 0)]!.id },
    });
  const drag = {
    onPointerDownCapture(event: PointerEvent<HTMLElement>) {
      const cue = grabbed(event);
      if (!cue) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      setTo({ cue, end: reachEnd[places.get(cue)!]! });
    },
    onPointerMoveCapture(event: PointerEvent<HTMLElement>) {
      const row = to ? under(event) : null;
      if (!to || row === null || row === to.end) return;
      setTo({ ...to, end: Math.max(row, places.get(to.cue) ?? 0) });
      useForeseen.setState({ hint: linesOf(session.store.getState().world, [reachTo(to.cue, row)])[0] ?? null });
    },
    onPointerUpCapture() {
      if (!to) return;
      useForeseen.setState({ hint: null });
      if (to.end !== reachEnd[places.get(to.cue)!]) session.act([reachTo(to.cue, to.end)]);
      setTo(null);
    },
  };
  return (
    <section className={narrow ? classes.values : classes.sheetWide} aria-label="Values through the list">
      <header className={classes.head}>
        {narrow && <h2>Values through the list</h2>}
        <SheetTools
          narrow={narrow}
          groups={show.groups}
          some={selection.length > 0}
          whose={whose}
          setWhose={setWhose}
          looks={looks}
          setLooks={setLooks}
          names={names}
          setNames={setNames}
        />
      </header>
      <div
        className={classes.sheetBody}
        onClick={(e) => {
          const id = (e.target as HTMLElement).closest<HTMLElement>("[data-cue]")?.dataset.cue;
          if (id) chosen.press(id, e);
        }}
        {...drag}
      >
        <Sheet
          label="Values through the list"
          columns={columns}
          lines={lines}
          lead={1}
          view={view}
          setView={setView}
          chosen={chosen.ids}
          look={look}
          about={about}
          sight={places.get(chosen.shown ?? running ?? "") ?? -1}
          onToggle={(row) =>
            cues[row] && chosen.press(cues[row].id, { ctrlKey: true, shiftKey: false, metaKey: false })
          }
          onTake={(r) => {
            const row = r ? cues[normal(r).r1] : undefined;
            if (row && row.id !== chosen.shown && narrow) chosen.choose(row.id);
          }}
          onFill={(r, end) =>
            edit(
              session,
              filled(list, taken(r), taken({ ...r, r1: normal(r).r2 + 1, r2: end }), looks),
              "fills cells of the list",
            )
          }
          editFrom={(cue, column) => {
            const value = cue.entries[column.key]?.value;
            return typeof value === "number" ? plain(value, 3) : "";
          }}
          onTyping={(text, r) => {
            const intents = text?.trim() ? typed(show, list, text.trim(), taken(r), looks) : [];
            rehearses(intents, sizeOf(r));
            useForeseen.setState({
              hint:
                intents.length > 0 ? (linesOf(session.store.getState().world, intents.slice(0, 1))[0] ?? null) : null,
            });
          }}
          onPut={(text, r) => {
            rehearses([], 0);
            useForeseen.setState({ hint: null });
            if (text.trim()) edit(session, typed(show, list, text.trim(), taken(r), looks), "sets cells of the list");
          }}
          onEmpty={(r) => edit(session, emptied(list, taken(r), looks), "takes cells out of the list")}
          copied={(r) =>
            taken(r)
              .map(({ cue, columns: own2 }) =>
                own2
                  .map((c) =>
                    String(cellOf(show, list, cue, places.get(cue.id)!, c.key, false).content).replace(/[•↧[\]]/g, ""),
                  )
                  .join("\t"),
              )
              .join("\n")
          }
          onPaste={(text, r) => {
            const { r1, c1 } = normal(r);
            const { intents, left } = pasted(
              show,
              list,
              text,
              taken({ r1, c1, r2: cues.length - 1, c2: columns.length - 1 }),
              looks,
            );
            edit(session, intents, "pastes into the list");
            if (left > 0) session.tell(`${left} cells meant nothing there and were left out`);
          }}
          nameOf={(cue, column, rows) =>
            `${column.hint} in ${rows > 1 ? `${rows} cues` : `cue ${plain(cue.number, 3)}`}: a number, 20 to 80, p and a palette's number, or r to release`
          }
          empty={<p className={classes.hint}>No cues in {list.name} yet.</p>}
        />
        {own.length === 0 && cues.length > 0 && (
          <p className={classes.hint}>
            This list stores nothing for them. Choose other fixtures above, or all that it uses.
          </p>
        )}
      </div>
    </section>
  );
}
