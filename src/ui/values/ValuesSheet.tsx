"use client";

import { SegmentedControl, Select } from "@mantine/core";
import { IconChevronDown, IconChevronRight } from "@tabler/icons-react";
import { useVirtualizer } from "@tanstack/react-virtual";
import Papa from "papaparse";
import { useMemo, useRef, useState, type ClipboardEvent, type KeyboardEvent } from "react";
import { hold } from "@/core/command/building";
import { drop } from "@/core/program/intents";
import { select } from "@/core/select/intents";
import { targetsOf } from "@/core/show/model";
import { useSession, useShow, useStageFrame } from "../useSession";
import { cellOf, LAYERS, type Layer } from "./cells";
import { rowsOf, SHOWN, titleOf, type FixtureRow, type Shown } from "./rows";
import { boundsOf, useRange, within } from "./useRange";
import classes from "./Values.module.css";

const ROW = 27;
const MOST_PASTED = 20_000;

/** Fixtures by parameters, live: looked at by value, source or timing; ranges typed into, copied and pasted. */
export function ValuesSheet() {
  const session = useSession();
  const world = useShow((s) => s.world);
  const running = useShow((s) => s.playing.runs[s.world.hands.armed]?.cue ?? null);
  const [layer, setLayer] = useState<Layer>("value");
  const [shown, setShown] = useState<Shown>("all");
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const [draft, setDraft] = useState<string | null>(null);
  const armed = world.hands.armed;
  const { show, hands } = world;
  // What is held and selected matters only where it filters.
  const picked = shown === "selected" ? hands.selection : null;
  const kept = shown === "held" ? hands.held : null;
  const rows = useMemo(
    () => rowsOf(session.store.getState().world, shown, running ? { list: armed, cue: running } : null, folded),
    [session, show, shown, folded, running, armed, picked, kept], // eslint-disable-line react-hooks/exhaustive-deps
  );
  const scroll = useRef<HTMLDivElement>(null);
  const lines = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    overscan: 6,
  });
  const columns = Math.max(0, ...rows.map((r) => (r.kind === "section" ? r.columns.length : 0)));
  const { range, setRange, ...hand } = useRange({ rows: rows.length, columns });
  const bounds = range && boundsOf(range);
  const chosen = new Set(world.hands.selection.map((i) => i.split(".")[0]!));

  useStageFrame(
    (half, view) => {
      const now = session.store.getState().world;
      for (const element of scroll.current?.querySelectorAll<HTMLElement>("[data-attribute]") ?? []) {
        const { id, attribute } = element.dataset as { id: string; attribute: string };
        const { text, form } = cellOf(now, half, view, id, attribute, layer);
        if (element.textContent !== text) element.textContent = text;
        if (element.dataset.form !== form) element.dataset.form = form;
      }
    },
    `${layer} ${shown} ${lines
      .getVirtualItems()
      .map((i) => i.key)
      .join()} ${Object.keys(world.hands.held).length}`,
  );

  /** The fixtures of the range, and for each column place the attributes they have there. */
  const taken = (): { row: FixtureRow; attributes: string[] }[] =>
    bounds
      ? rows
          .slice(bounds.top, bounds.bottom + 1)
          .flatMap((row) =>
            row.kind === "fixture"
              ? [{ row, attributes: row.section.columns.slice(bounds.left, bounds.right + 1) }]
              : [],
          )
      : [];
  const put = (text: string) => {
    const amounts = session.read("values", text);
    const cells = taken();
    if (!amounts || cells.length === 0) return;
    const ids = cells.map((c) => c.row.id);
    const { show } = session.store.getState().world;
    const attributes = [...new Set(cells.flatMap((c) => c.attributes))];
    session.hold(
      (b) => {
        for (const attribute of attributes) {
          if (ids.some((id) => targetsOf(show, id, attribute).length > 0)) hold(b, attribute, amounts, false);
        }
      },
      false,
      ids,
    );
  };
  const letGo = () => {
    const { show, hands } = session.store.getState().world;
    const keys = taken().flatMap(({ row, attributes }) =>
      attributes.flatMap((a) => targetsOf(show, row.id, a).map((t) => t.key)),
    );
    const there = keys.filter((key) => hands.held[key]);
    if (there.length > 0) session.act([drop.of({ keys: there })]);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (draft !== null) return;
    const { key } = event;
    if (hand.step(key, event.shiftKey)) {
      event.preventDefault();
      return;
    }
    if (key === "Delete") letGo();
    else if (range && (key === "Enter" || (/^[\d.+-]$/.test(key) && !event.ctrlKey && !event.metaKey)))
      setDraft(key === "Enter" ? "" : key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const copy = (event: ClipboardEvent) => {
    if (!bounds || draft !== null) return;
    const text = taken()
      .map(({ row, attributes }) =>
        attributes
          .map((a) => scroll.current?.querySelector(`[data-id="${row.id}"][data-attribute="${a}"]`)?.textContent ?? "")
          .join("\t"),
      )
      .join("\n");
    event.clipboardData.setData("text/plain", text);
    event.preventDefault();
  };
  const paste = (event: ClipboardEvent) => {
    if (!bounds || draft !== null) return;
    event.preventDefault();
    const cells = taken();
    const { data } = Papa.parse<string[]>(event.clipboardData.getData("text/plain").trim(), { delimiter: "\t" });
    for (const [k, line] of data.slice(0, MOST_PASTED).entries()) {
      const at = cells[k];
      if (!at) break;
      const own = rows.find((r) => r === at.row) as FixtureRow;
      session.hold(
        (b) =>
          line.forEach((text, j) => {
            const attribute = own.section.columns[bounds.left + j];
            const number = Number.parseFloat(text);
            if (attribute && Number.isFinite(number)) hold(b, attribute, [number], false);
          }),
        k > 0,
        [own.id],
      );
    }
  };

  return (
    <section className={classes.sheet} aria-label="Values">
      <header className={classes.head}>
        <SegmentedControl
          size="xs"
          value={layer}
          onChange={(v) => setLayer(v)}
          data={LAYERS.map((value) => ({ value, label: value }))}
          aria-label="What the cells say"
        />
        <Select
          size="xs"
          w={150}
          aria-label="Which fixtures"
          value={shown}
          allowDeselect={false}
          onChange={(v) => v && (setShown(v), setRange(null))}
          data={SHOWN.map((value) => ({ value, label: value === "in the cue" ? "stored in the cue" : value }))}
        />
        <span className="muted">
          {draft !== null
            ? "Enter keeps it, Esc leaves it; 20 to 80 spreads down the range"
            : range
              ? "Type a value or a spread; Delete lets go; Ctrl C and Ctrl V"
              : "Drag over cells to take a range"}
        </span>
      </header>
      <div
        ref={scroll}
        className={classes.scroll}
        tabIndex={0}
        role="grid"
        aria-label="Values of fixtures"
        aria-rowcount={rows.length}
        onKeyDown={onKeyDown}
        onCopy={copy}
        onPaste={paste}
        onPointerUp={hand.letGo}
        onPointerLeave={hand.letGo}
      >
        <div style={{ height: lines.getTotalSize(), width: 190 + columns * 84, position: "relative" }}>
          {lines.getVirtualItems().map(({ index, start }) => {
            const row = rows[index]!;
            return row.kind === "section" ? (
              <div key={row.type} role="row" className={classes.section} style={{ top: start, height: ROW }}>
                <button
                  type="button"
                  aria-expanded={!folded.has(row.type)}
                  onClick={() => {
                    const next = new Set(folded);
                    if (!next.delete(row.type)) next.add(row.type);
                    setFolded(next);
                  }}
                >
                  {folded.has(row.type) ? <IconChevronRight size={14} /> : <IconChevronDown size={14} />}
                  {row.model} <span className="num">{row.count}</span>
                </button>
                {row.columns.map((a) => (
                  <span key={a} role="columnheader" title={a}>
                    {titleOf(a)}
                  </span>
                ))}
              </div>
            ) : (
              <div
                key={row.id}
                role="row"
                className={classes.row}
                data-chosen={chosen.has(row.id)}
                style={{ top: start, height: ROW }}
              >
                <button
                  type="button"
                  role="rowheader"
                  title="Select it; Ctrl adds or takes away"
                  onClick={(e) => {
                    const now = world.hands.selection;
                    const add = e.ctrlKey || e.metaKey || e.shiftKey;
                    const items = !add
                      ? [row.id]
                      : now.includes(row.id)
                        ? now.filter((i) => i !== row.id)
                        : [...now, row.id];
                    session.act([select.of({ items })]);
                  }}
                >
                  <span className="num">{row.number}</span> {row.name}
                </button>
                {row.section.columns.map((a, k) => (
                  <span
                    key={a}
                    role="gridcell"
                    data-id={row.id}
                    data-attribute={a}
                    data-taken={within(range, index, k)}
                    onPointerDown={(e) => (e.button === 0 ? hand.press(index, k, e.shiftKey) : undefined)}
                    onPointerEnter={() => hand.over(index, k)}
                  />
                ))}
              </div>
            );
          })}
        </div>
        {rows.length === 0 && (
          <p className={classes.empty}>
            {shown === "all"
              ? "Nothing is patched yet: patch some fixtures in Rig."
              : `No fixture is ${shown === "in the cue" ? "stored in the cue that runs" : shown}. Choose "all" above to see them.`}
          </p>
        )}
      </div>
      {draft !== null && (
        <input
          className={classes.draft}
          autoFocus
          value={draft}
          aria-label="Value of the range: a number, or a spread such as 20 to 80"
          onChange={(e) => setDraft(e.currentTarget.value)}
          onBlur={() => setDraft(null)}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === "Enter" && draft.trim()) put(draft.trim());
            if (e.key === "Enter" || e.key === "Escape") {
              setDraft(null);
              scroll.current?.focus();
            }
          }}
        />
      )}
    </section>
  );
}
