"use client";

import { IconChevronDown, IconChevronRight } from "@tabler/icons-react";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState, type ClipboardEvent, type KeyboardEvent, type ReactNode } from "react";
import { useCoarse } from "@/ui/base/gestures/useCoarse";
import { at, type Range } from "./range";
import { SheetHead } from "./SheetHead";
import { bunchesOf, useLooks, type About, type Look, type Strip } from "./looks";
import { SheetRow } from "./SheetRow";
import { useSheetHand } from "./useSheetHand";
import { rowsIn, rowsOf, type Line, type SheetColumn, type SheetView } from "./view";
import classes from "./Sheet.module.css";

/** With more columns than this, only those in sight are drawn. */
const MANY = 48;
/** Pixels of a row and of the titles: for a mouse, and where fingers work. */
const FINE = { row: 28, head: 30 };
const COARSE = { row: 40, head: 40 };

interface Props<R extends { id: string }, C extends SheetColumn> {
  label: string;
  columns: readonly C[];
  lines: readonly Line<R>[];
  /** How many columns at the left no range is in. */
  lead?: number;
  view: SheetView;
  setView(next: SheetView): void;
  chosen: ReadonlySet<string>;
  /** What a cell shows. A new function draws all rows in sight again. */
  look(row: R, column: C): Look;
  /** What the cells of a column are drawn from beside their row and `look`: where it is another they are asked again. */
  about?: About<C>;
  /** The columns of one section, where each has its own: their titles then stand in its head. */
  columnsOf?(section: string): readonly C[];
  sectionOf?(row: R): string;
  folded?: ReadonlySet<string>;
  onFold?(section: string): void;
  onTake?(range: Range | null, byItself: boolean): void;
  onToggle(row: number): void;
  onFill(range: Range, to: number): void;
  /** The text a cell is edited from; null where it is not edited in words. */
  editFrom(row: R, column: C): string | null;
  /** Yes and no change over by Enter, Space or two presses. */
  onFlip?(range: Range, column: C): void;
  onPut(text: string, range: Range): void;
  onEmpty(range: Range): void;
  /** Esc with nothing open. True where it did something. */
  onEscape?(): boolean;
  copied(range: Range): string;
  onPaste(text: string, range: Range): void;
  nameOf(row: R, column: C, rows: number): string;
  empty?: ReactNode;
  /** What is being typed over a range, so that what it would do can be said; null when it is over. */
  onTyping?(text: string | null, range: Range): void;
  /** A row to bring into sight. */
  sight?: number;
}

/** Cells that lead stay in sight while it is scrolled across. */
function stick(sheet: HTMLElement, across: boolean): void {
  if (sheet.dataset.across !== String(across)) sheet.dataset.across = String(across);
}

/** Rows and columns as in a spreadsheet: ranges by drag, Shift and keys, typing, filling, copying and pasting. */
export function Sheet<R extends { id: string }, C extends SheetColumn>(props: Props<R, C>) {
  const { columns, lines, view, setView, chosen, look, columnsOf, sectionOf } = props;
  const [editing, setEditing] = useState<string | null>(null);
  const scroll = useRef<HTMLDivElement>(null);
  const all = useMemo(() => rowsOf(lines), [lines]);
  const columnsAt = (row: R): readonly C[] => (columnsOf && sectionOf ? columnsOf(sectionOf(row)) : columns);
  const widest = columnsOf ? Math.max(0, ...rowsIn(lines).map((r) => columnsAt(r).length)) : columns.length;
  const { row, head } = useCoarse() ? COARSE : FINE;
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => row,
    overscan: 6,
    paddingStart: columnsOf ? 0 : head,
  });
  useEffect(() => rows.measure(), [row]); // oxlint-disable-line react-hooks/exhaustive-deps
  const lead = props.lead ?? 0;
  const windowed = !columnsOf && columns.length > MANY;
  const across = useVirtualizer({
    horizontal: true,
    enabled: windowed,
    count: Math.max(0, columns.length - lead),
    getScrollElement: () => scroll.current,
    estimateSize: (i) => columns[i + lead]?.width ?? 60,
    overscan: 2,
  });
  const seen = windowed ? across.getVirtualItems() : [];
  const first = seen[0]?.index ?? 0;
  const last = seen.at(-1)?.index ?? -1;
  const gap = Math.max(0, seen[0]?.start ?? 0);
  // With many columns only those in sight are drawn.
  const strip = useMemo(
    (): Strip | null => (windowed ? { lead, first: first + lead, last: last + lead, gap } : null),
    [windowed, lead, first, last, gap],
  );
  useEffect(() => {
    if (props.sight !== undefined && props.sight >= 0) rows.scrollToIndex(all.line(props.sight), { align: "center" });
  }, [props.sight]); // oxlint-disable-line react-hooks/exhaustive-deps
  const hand = useSheetHand({
    rows: all.count,
    columns: widest,
    lead: props.lead ?? 0,
    onToggle: props.onToggle,
    onFill: props.onFill,
    reveal: (row) => rows.scrollToIndex(all.line(row)),
    ...(props.onTake ? { onTake: props.onTake } : {}),
  });
  const { range, taken } = hand;
  // Folded, sorted or filtered, what is taken stays the same cells; where they are apart now nothing is.
  const before = useRef(all);
  useEffect(() => {
    const was = before.current;
    before.current = all;
    if (!range || was === all) return;
    const [first, last] = [was.at(range.r1)?.id, was.at(range.r2)?.id];
    if (first === all.at(range.r1)?.id && last === all.at(range.r2)?.id) return;
    const placeOf = (id: string | undefined) => {
      for (let k = 0; k < all.count; k++) if (all.at(k)!.id === id) return k;
      return -1;
    };
    const [r1, r2] = [placeOf(first), placeOf(last)];
    if (r1 < 0 || r2 < 0 || Math.abs(r2 - r1) !== Math.abs(range.r2 - range.r1)) hand.drop();
    else hand.take({ ...range, r1, r2 }, true);
  }, [all]); // oxlint-disable-line react-hooks/exhaustive-deps
  const looks = useLooks(look, props.about);
  const template = (own: readonly C[]) => own.map((c) => `${c.width}px`).join(" ");
  const stripTemplate = (own: readonly C[]) =>
    strip
      ? `${template(own.slice(0, strip.lead))} ${strip.gap}px ${template(own.slice(strip.first, strip.last + 1))}`
      : template(own);
  const ownTemplate = stripTemplate(columns);
  /** What is before a cell, and the cell: a track for each of thousands of columns would be laid out with every key. */
  const editorTemplate = (own: readonly C[], c: number) =>
    `${own.slice(0, c).reduce((sum, { width }) => sum + width, 0)}px ${own[c]!.width}px`;
  const wide = windowed ? columns.reduce((sum, c) => sum + c.width, 0) : undefined;
  const columnAt = (r: Range): C | undefined => {
    const row = all.at(r.r1);
    return row && columnsAt(row)[r.c1];
  };
  const edit = (typed?: string) => {
    const column = range && columnAt(range);
    if (!column || !taken) return;
    if (column.kind === "yes" && typed === undefined) return props.onFlip?.(taken, column);
    const from = props.editFrom(all.at(range.r1)!, column);
    if (from === null) return;
    setEditing(typed ?? from);
    props.onTyping?.(typed ?? from, taken);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (editing !== null || event.altKey) return;
    const { key } = event;
    const mod = event.ctrlKey || event.metaKey;
    const page = Math.max(1, Math.floor((scroll.current?.clientHeight ?? 300) / row) - 2);
    const did = () => {
      if (hand.step(event, page)) return true;
      if (mod && key.toLowerCase() === "a")
        return (hand.take({ ...at(0, 0), r2: all.count - 1, c2: widest - 1 }), true);
      if (mod || event.nativeEvent.isComposing) return false;
      if (key === "Escape") {
        if (!props.onEscape?.()) (event.currentTarget as HTMLElement).blur();
        return false;
      }
      if (!taken) return false;
      if (key === "Delete" || key === "Backspace") return (props.onEmpty(taken), true);
      if (key === "Enter" || key === "F2") return (edit(), true);
      return key.length === 1 && (edit(key), true);
    };
    if (!did()) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const onCopy = (event: ClipboardEvent) => {
    if (editing !== null || !taken || window.getSelection()?.toString()) return;
    event.preventDefault();
    event.clipboardData.setData("text/plain", props.copied(taken));
  };
  const onPaste = (event: ClipboardEvent) => {
    if (editing !== null || !taken) return;
    event.preventDefault();
    props.onPaste(event.clipboardData.getData("text/plain"), taken);
  };
  const leave = () => {
    setEditing(null);
    if (taken) props.onTyping?.(null, taken);
    scroll.current?.focus({ preventScroll: true });
  };
  const edited = range && editing !== null ? columnAt(range) : undefined;
  return (
    <div
      ref={scroll}
      className={classes.scroll}
      role="grid"
      aria-label={props.label}
      aria-rowcount={all.count}
      aria-multiselectable
      tabIndex={0}
      onScroll={(e) => stick(e.currentTarget, e.currentTarget.scrollLeft > 0)}
      onWheel={(e) => (e.deltaX !== 0 || e.shiftKey) && stick(e.currentTarget, true)}
      onPointerDown={(e) => (setEditing(null), hand.down(e))}
      onPointerMove={hand.move}
      onPointerUp={hand.up}
      onPointerCancel={hand.up}
      onKeyDown={onKeyDown}
      onCopy={onCopy}
      onPaste={onPaste}
      onDoubleClick={(e) => !(e.target as HTMLElement).closest("button, [data-title]") && edit()}
    >
      <div
        style={{ height: rows.getTotalSize(), position: "relative", width: wide ?? "max-content", minWidth: "100%" }}
      >
        {!columnsOf && (
          <div className={`${classes.row} ${classes.titles}`} role="row" style={{ gridTemplateColumns: ownTemplate }}>
            {strip ? (
              <>
                <SheetHead columns={columns.slice(0, strip.lead)} view={view} setView={setView} />
                <span aria-hidden />
                <SheetHead columns={columns.slice(strip.first, strip.last + 1)} view={view} setView={setView} />
              </>
            ) : (
              <SheetHead columns={columns} view={view} setView={setView} />
            )}
          </div>
        )}
        {rows.getVirtualItems().map(({ index, start }) => {
          const line = lines[index]!;
          if (!("row" in line)) {
            const heads = columnsOf?.(line.section);
            const folds = props.folded?.has(line.section);
            return (
              <div
                key={line.section}
                role="row"
                className={classes.section}
                data-heads={heads !== undefined}
                style={{ top: start, ...(heads ? { gridTemplateColumns: template(heads) } : {}) }}
              >
                <span role="rowheader" className={classes.sectionTitle}>
                  {props.onFold ? (
                    <button type="button" aria-expanded={!folds} onClick={() => props.onFold!(line.section)}>
                      {folds ? <IconChevronRight size={14} /> : <IconChevronDown size={14} />}
                      {line.title} <span className="num">{line.count}</span>
                    </button>
                  ) : (
                    <>
                      {line.title} <span className="muted">{line.count}</span>
                    </>
                  )}
                </span>
                {heads && <SheetHead columns={heads.filter((c) => !c.fixed)} view={view} setView={setView} />}
              </div>
            );
          }
          const here = columnsAt(line.row);
          const bunches = bunchesOf(here, strip);
          const inside = taken && line.index >= taken.r1 && line.index <= Math.max(taken.r2, hand.fillTo ?? 0);
          return (
            <SheetRow
              key={line.row.id}
              index={line.index}
              bunches={bunches}
              gapAt={strip ? Math.min(1, strip.lead) : -1}
              template={columnsOf ? template(here) : ownTemplate}
              top={start}
              chosen={chosen.has(line.row.id)}
              looks={looks.of(line.row, bunches)}
              from={inside ? taken.c1 : -1}
              to={inside ? Math.min(taken.c2, here.length - 1) : -1}
              cursor={line.index === range?.r1 ? range.c1 : -1}
              ends={line.index === taken?.r2}
            />
          );
        })}
        {edited && taken && (
          <div
            className={classes.row}
            style={{
              top: (columnsOf ? 0 : head) + all.line(range!.r1) * row,
              gridTemplateColumns: editorTemplate(columnsAt(all.at(range!.r1)!), range!.c1),
              pointerEvents: "none",
            }}
          >
            <input
              className={classes.editor}
              value={editing!}
              autoFocus
              aria-label={props.nameOf(all.at(taken.r1)!, edited, taken.r2 - taken.r1 + 1)}
              onFocus={(e) => editing!.length > 1 && e.currentTarget.select()}
              onChange={(e) => {
                setEditing(e.currentTarget.value);
                props.onTyping?.(e.currentTarget.value, taken);
              }}
              onPointerDown={(e) => e.stopPropagation()}
              onBlur={() => {
                setEditing(null);
                props.onTyping?.(null, taken);
              }}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === "Escape") return leave();
                if (e.key !== "Enter" && e.key !== "Tab") return;
                e.preventDefault();
                props.onPut(editing!, taken);
                leave();
                if (taken.r1 !== taken.r2) return;
                const next = e.key === "Tab" ? at(range!.r1, range!.c1 + 1) : at(range!.r1 + 1, range!.c1);
                if (next.r1 >= all.count || next.c1 >= widest) return;
                hand.take(next);
                rows.scrollToIndex(all.line(next.r1));
              }}
            />
          </div>
        )}
      </div>
      {lines.length === 0 && props.empty}
    </div>
  );
}
