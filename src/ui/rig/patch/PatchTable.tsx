"use client";

import { Button, Checkbox, Menu, TextInput } from "@mantine/core";
import { IconColumns3, IconSearch } from "@tabler/icons-react";
import { useVirtualizer } from "@tanstack/react-virtual";
import {
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
  type PointerEvent,
} from "react";
import { setFixtures } from "@/core/patch/intents";
import { select } from "@/core/select/intents";
import { isRefusal } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { useSession, useShow } from "../../useSession";
import { copyCells, fillDown, normal, pasteCells, typeInto, type Changes, type Put, type Range } from "./cells";
import { clashesOf, drafted, sayChanges, together } from "./draft";
import { DraftBar } from "./DraftBar";
import { PatchHead } from "./PatchHead";
import { PatchRow } from "./PatchRow";
import { orderedColumns, useLines, usePatchView } from "./view";
import classes from "./PatchTable.module.css";

const ROW = 28;
const HEAD = 30;
const MANY = 200;
const NOTHING: Changes = new Map();
const countOf = (show: Show): number => Object.keys(show.fixtures).length;

/** Every fixture, as in a spreadsheet: ranges, typing, filling, copy and paste. The rows of a range are selected. */
export function PatchTable({ onPatch }: { onPatch(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const [view, setView] = usePatchView();
  const [filter, setFilter] = useState("");
  const [range, setRange] = useState<Range>({ r1: 0, c1: 0, r2: 0, c2: 0 });
  const [editing, setEditing] = useState<string | null>(null);
  const [draft, setDraft] = useState<Changes>(NOTHING);
  const scroll = useRef<HTMLDivElement>(null);
  const drag = useRef<"range" | "fill" | null>(null);
  const columns = useMemo(() => orderedColumns(view).filter((c) => !view.hidden.includes(c.id)), [view]);
  const template = columns.map((c) => `${view.widths[c.id] ?? c.width}px`).join(" ");
  // Where many rows come or go at once they are drawn in short steps, so that no frame is held up.
  const late = useDeferredValue(show);
  const { fixtures, lines } = useLines(Math.abs(countOf(show) - countOf(late)) > MANY ? late : show, view, filter);
  const clashes = useMemo(() => clashesOf(show, draft), [show, draft]);
  const chosen = useMemo(() => new Set(selection), [selection]);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    overscan: 8,
    paddingStart: HEAD,
  });
  const lineOf = useMemo(
    () => new Map(lines.flatMap((line, i): [number, number][] => ("fixture" in line ? [[line.index, i]] : []))),
    [lines],
  );
  const n = normal(range);
  const shown = () => fixtures.map((f) => drafted(f, draft));

  /** Takes a draft into the show where it clashes with nothing. */
  const commit = (next: Changes) => {
    if (next.size === 0) return setDraft(NOTHING);
    if (clashesOf(show, next).length > 0) return setDraft(next);
    const done = session.act(
      [setFixtures.of({ changes: Object.fromEntries(next), says: sayChanges(show, next) })],
      sayChanges(show, next),
    );
    if (!isRefusal(done)) setDraft(NOTHING);
  };
  const take = ({ changes, trouble }: Put) => {
    if (trouble) session.tell(trouble, "refused");
    if (changes.size > 0) commit(together(draft, changes));
  };
  const choose = (next: Range) => {
    const { r1, r2 } = normal(next);
    const items = fixtures.slice(r1, r2 + 1).map((f) => f.id);
    if (items.length > 0) session.act([select.of({ items })], "select");
  };
  const goTo = (row: number, column: number, keepStart: boolean) => {
    const [r2, c2] = [
      Math.max(0, Math.min(fixtures.length - 1, row)),
      Math.max(0, Math.min(columns.length - 1, column)),
    ];
    const next = keepStart ? { ...range, r2, c2 } : { r1: r2, c1: c2, r2, c2 };
    setRange(next);
    choose(next);
    rows.scrollToIndex(lineOf.get(r2) ?? 0);
  };
  const edit = (text: string) =>
    columns[range.c1]?.put
      ? setEditing(text)
      : session.tell(`${columns[range.c1]?.title} is not changed here`, "refused");
  const toggle = () =>
    take(
      typeInto(
        columns[range.c1]!.text(shown()[n.r1]!, show) === "yes" ? "no" : "yes",
        columns[range.c1]!,
        shown().slice(n.r1, n.r2 + 1),
        show,
      ),
    );

  const cellAt = (event: PointerEvent): { row: number; column: number } | undefined => {
    const cell = (document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null)?.closest<HTMLElement>(
      "[data-column]",
    );
    return cell ? { row: Number(cell.dataset.row), column: Number(cell.dataset.column) } : undefined;
  };
  const down = (event: PointerEvent<HTMLDivElement>) => {
    const at =
      event.button === 0 && !(event.target as HTMLElement).closest("input, [data-title]") ? cellAt(event) : undefined;
    if (!at) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    event.currentTarget.focus({ preventScroll: true });
    setEditing(null);
    if ((event.target as HTMLElement).dataset.handle !== undefined) return void (drag.current = "fill");
    if (event.ctrlKey || event.metaKey) {
      const id = fixtures[at.row]!.id;
      return void session.act(
        [select.of({ items: chosen.has(id) ? selection.filter((i) => i !== id) : [...selection, id] })],
        "select",
      );
    }
    drag.current = "range";
    setRange(
      event.shiftKey
        ? { ...range, r2: at.row, c2: at.column }
        : { r1: at.row, c1: at.column, r2: at.row, c2: at.column },
    );
  };
  const [fillTo, setFillTo] = useState<number | null>(null);
  const move = (event: PointerEvent) => {
    const at = drag.current ? cellAt(event) : undefined;
    if (!at) return;
    if (drag.current === "fill") setFillTo(Math.max(n.r2, at.row));
    else if (at.row !== range.r2 || at.column !== range.c2) setRange({ ...range, r2: at.row, c2: at.column });
  };
  const up = () => {
    if (drag.current === "fill" && fillTo !== null && fillTo > n.r2) {
      take(fillDown(range, fillTo, shown(), columns, show));
      setRange({ r1: n.r1, c1: n.c1, r2: fillTo, c2: n.c2 });
    } else if (drag.current === "range") choose(range);
    drag.current = null;
    setFillTo(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (editing !== null || event.altKey) return;
    const mod = event.ctrlKey || event.metaKey;
    const page = Math.max(1, Math.floor((scroll.current?.clientHeight ?? 300) / ROW) - 2);
    const steps: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageUp: [-page, 0],
      PageDown: [page, 0],
      Home: [0, -columns.length],
      End: [0, columns.length],
    };
    const step = steps[event.key];
    const keep = () => (event.preventDefault(), event.stopPropagation());
    if (step) {
      keep();
      const far = mod && step[0] !== 0 ? Math.sign(step[0]) * fixtures.length : step[0];
      goTo(range.r2 + far, range.c2 + step[1], event.shiftKey);
    } else if (mod && event.key.toLowerCase() === "a") {
      keep();
      const all = { r1: 0, c1: 0, r2: fixtures.length - 1, c2: columns.length - 1 };
      setRange(all);
      choose(all);
    } else if (mod) return;
    else if (event.key === "Enter" || event.key === "F2" || event.key === " ") {
      keep();
      if (columns[range.c1]?.kind === "yes") toggle();
      else edit(columns[range.c1]?.text(shown()[range.r1]!, show) ?? "");
    } else if (event.key === "Delete" || event.key === "Backspace") {
      keep();
      for (const c of columns.slice(n.c1, n.c2 + 1))
        if (c.id === "addresses" || c.kind === "text") take(typeInto("", c, shown().slice(n.r1, n.r2 + 1), show));
    } else if (event.key === "Escape" && draft.size > 0) {
      keep();
      setDraft(NOTHING);
    } else if (event.key === "Escape") (event.currentTarget as HTMLElement).blur();
    else if (event.key.length === 1) {
      keep();
      edit(event.key);
    }
  };
  const onCopy = (event: ClipboardEvent) => {
    if (editing !== null || window.getSelection()?.toString()) return;
    event.preventDefault();
    event.clipboardData.setData(
      "text/plain",
      copyCells(shown().slice(n.r1, n.r2 + 1), columns.slice(n.c1, n.c2 + 1), show),
    );
  };
  const onPaste = (event: ClipboardEvent) => {
    if (editing !== null) return;
    event.preventDefault();
    take(pasteCells(event.clipboardData.getData("text/plain"), range, shown(), columns, show));
  };
  useEffect(() => {
    // Records that went away take their draft along.
    if ([...draft.keys()].some((id) => !show.fixtures[id]))
      setDraft(new Map([...draft].filter(([id]) => show.fixtures[id])));
  }, [show.fixtures, draft]);

  if (Object.keys(show.fixtures).length === 0) {
    return (
      <div className={classes.empty}>
        <p>
          Nothing is patched yet. A show begins with its rig: choose a type, how many, and where they start; or bring in
          a table.
        </p>
        <Button onClick={onPatch}>Patch the first fixtures</Button>
      </div>
    );
  }
  const editTop = HEAD + (lineOf.get(range.r1) ?? 0) * ROW;
  return (
    <div className={classes.table}>
      <div className={classes.tools}>
        <TextInput
          size="xs"
          w={190}
          leftSection={<IconSearch size={14} />}
          placeholder="Filter"
          aria-label="Filter the patch"
          value={filter}
          onChange={(e) => setFilter(e.currentTarget.value)}
        />
        <Checkbox
          size="xs"
          label="Group by type"
          checked={view.byType}
          onChange={(e) => setView({ ...view, byType: e.currentTarget.checked })}
        />
        <Menu closeOnItemClick={false} position="bottom-start" shadow="md">
          <Menu.Target>
            <Button size="compact-sm" variant="default" leftSection={<IconColumns3 size={14} />}>
              Columns
            </Button>
          </Menu.Target>
          <Menu.Dropdown className={classes.columns}>
            {orderedColumns(view)
              .filter((c) => !c.fixed)
              .map((c) => (
                <Menu.Item key={c.id} component="label">
                  <Checkbox
                    size="xs"
                    label={`${c.title} · ${c.hint}`}
                    checked={!view.hidden.includes(c.id)}
                    onChange={(e) =>
                      setView({
                        ...view,
                        hidden: e.currentTarget.checked
                          ? view.hidden.filter((h) => h !== c.id)
                          : [...view.hidden, c.id],
                      })
                    }
                  />
                </Menu.Item>
              ))}
          </Menu.Dropdown>
        </Menu>
        <span className="muted">
          {fixtures.length === Object.keys(show.fixtures).length
            ? `${fixtures.length} fixtures`
            : `${fixtures.length} of ${Object.keys(show.fixtures).length} fixtures`}
        </span>
      </div>
      <DraftBar show={show} draft={draft} clashes={clashes} onChange={commit} onDiscard={() => setDraft(NOTHING)} />
      <div
        ref={scroll}
        className={classes.scroll}
        role="grid"
        aria-label="Patch"
        aria-rowcount={fixtures.length}
        aria-multiselectable
        tabIndex={0}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
        onKeyDown={onKeyDown}
        onCopy={onCopy}
        onPaste={onPaste}
        onDoubleClick={() =>
          columns[range.c1]?.kind === "yes" ? toggle() : edit(columns[range.c1]?.text(shown()[range.r1]!, show) ?? "")
        }
      >
        <div style={{ height: rows.getTotalSize(), position: "relative", width: "max-content", minWidth: "100%" }}>
          <PatchHead columns={columns} template={template} view={view} setView={setView} />
          {rows.getVirtualItems().map(({ index, start }) => {
            const line = lines[index]!;
            if (!("fixture" in line))
              return (
                <div key={line.title} className={classes.group} style={{ top: start }}>
                  {line.title} <span className="muted">{line.count}</span>
                </div>
              );
            const inside = line.index >= n.r1 && line.index <= Math.max(n.r2, fillTo ?? 0);
            return (
              <PatchRow
                key={line.fixture.id}
                fixture={line.fixture}
                row={line.index}
                show={show}
                columns={columns}
                template={template}
                top={start}
                chosen={chosen.has(line.fixture.id)}
                draft={draft.get(line.fixture.id)}
                clashes={clashes.length > 0 ? clashes.filter((c) => c.fixture === line.fixture.id) : undefined}
                from={inside ? n.c1 : -1}
                to={inside ? n.c2 : -1}
                cursor={line.index === range.r1 ? range.c1 : -1}
                ends={line.index === n.r2}
              />
            );
          })}
          {editing !== null && (
            <div className={classes.row} style={{ top: editTop, gridTemplateColumns: template, pointerEvents: "none" }}>
              <input
                className={classes.editor}
                style={{ gridColumn: range.c1 + 1 }}
                value={editing}
                autoFocus
                aria-label={`${columns[range.c1]!.title} of ${n.r2 > n.r1 ? `${n.r2 - n.r1 + 1} rows` : `fixture ${fixtures[n.r1]?.number}`}`}
                onFocus={(e) => editing.length > 1 && e.currentTarget.select()}
                onChange={(e) => setEditing(e.currentTarget.value)}
                onPointerDown={(e) => e.stopPropagation()}
                onBlur={() => setEditing(null)}
                onKeyDown={(e) => {
                  e.stopPropagation();
                  if (e.key === "Escape") return (setEditing(null), scroll.current?.focus());
                  if (e.key !== "Enter" && e.key !== "Tab") return;
                  e.preventDefault();
                  take(typeInto(editing, columns[range.c1]!, shown().slice(n.r1, n.r2 + 1), show));
                  setEditing(null);
                  scroll.current?.focus();
                  if (n.r1 === n.r2)
                    goTo(e.key === "Tab" ? range.r1 : range.r1 + 1, e.key === "Tab" ? range.c1 + 1 : range.c1, false);
                }}
              />
            </div>
          )}
        </div>
      </div>
    </div>
  );
}
