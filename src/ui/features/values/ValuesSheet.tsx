"use client";

import { Button, Checkbox, Menu, SegmentedControl, Select } from "@mantine/core";
import { useCallback, useMemo, useRef, useState } from "react";
import { select } from "@/core/select/intents";
import { spreadText } from "@/core/effect/words";
import { splitItem } from "@/core/show/ids";
import { halfOf } from "@/engine/view";
import { useForeseen } from "@/ui/show/foresight/foreseen";
import { ColumnsMenu } from "@/ui/base/sheet/ColumnsMenu";
import { Legend } from "@/ui/base/parts/Legend";
import { normal, type Range } from "@/ui/base/sheet/range";
import { Sheet } from "@/ui/base/sheet/Sheet";
import type { Look } from "@/ui/base/sheet/looks";
import { inSections, rowsIn, shownColumns, sortedRows, startView, type SheetColumn } from "@/ui/base/sheet/view";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { usePaletteNames } from "@/ui/show/held/usePaletteNames";
import { seenByHands } from "@/ui/show/blind";
import { useSession, useShow, useStageSummary } from "@/ui/show/useSession";
import { cellOf, LAYERS, numberOf, type Layer } from "./cells";
import { fillValues, flipKept, letGo, pasteValues, type Taken } from "./ranges";
import { cellsLine, emptyCells, typeCells } from "./typing";
import { FIXTURE, valueColumns } from "@/ui/base/sheet/valueColumns";
import { activeNow, NONE_ACTIVE, rowsOf, SHOWN, type FixtureRow, type Shown } from "./rows";
import { UseSpread } from "./UseSpread";
import { useLiveCells } from "./useLiveCells";
import classes from "./Values.module.css";

const NAMES: Record<Shown, string> = {
  all: "all fixtures",
  selected: "selected",
  active: "active: not at default",
  held: "held: the programmer",
  "in the cue": "stored in the cue",
};
const MARKS = [
  ["▌50 %", "Held in the programmer"],
  [<s key="out">50 %</s>, "Held, and kept out of recording"],
  [
    <span key="list" style={{ color: "var(--running)" }}>
      50 %
    </span>,
    "Given by a list",
  ],
  [
    <span key="default" style={{ color: "var(--muted)" }}>
      50 %
    </span>,
    "Its default",
  ],
  ["◇ Dawn", "The palette it comes from, with names on"],
  ["∿ 50 %", "An effect runs on it"],
  ["20 … 80", "Cells of one fixture differ"],
  ["–", "Its channel is in use by another function"],
  ["+2 1.5 s", "In the timing view: own delay, and own fade"],
] as const;
const START = startView(valueColumns(), true);

/** Fixtures by parameters, live: looked at by value, source or timing; ranges typed into, filled, copied and pasted. */
export function ValuesSheet() {
  const session = useSession();
  const world = useShow((s) => s.world);
  const running = useShow((s) => s.playing.runs[s.world.hands.armed]?.cue ?? null);
  const [kept, setView] = useRemembered(REMEMBERED.valuesView);
  const view = kept ?? START;
  const [layer, setLayer] = useState<Layer>("value");
  const [shown, setShown] = useState<Shown>("all");
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const [range, setRange] = useState<Range | null>(null);
  const body = useRef<HTMLDivElement>(null);
  const [names, setNames] = usePaletteNames();
  const [spreads, setSpreads] = useState(false);
  const bent = useShow((s) => spreadText(s.world.hands.spread));
  const [sight, setSight] = useState(-1);
  const typing = { layer, spread: spreads && bent !== "" };
  useLiveCells(body, layer, names);

  const { show, hands } = world;
  const { armed, selection } = hands;
  // What is held and selected matters only where it filters.
  const about = shown === "selected" ? selection : shown === "held" ? Object.keys(hands.held).join() : null;
  const active = useStageSummary(
    (half, view) => (shown === "active" ? activeNow(session.store.getState().world, half, view) : NONE_ACTIVE),
    NONE_ACTIVE,
    [shown, show],
    { perSecond: 2 },
  );
  const { rows, columns: own } = useMemo(
    () => rowsOf(session.store.getState().world, shown, running ? { list: armed, cue: running } : null, active),
    [session, show, shown, running, armed, about, active], // oxlint-disable-line react-hooks/exhaustive-deps
  );
  const columns = useMemo(() => {
    const there = new Set([...own.values()].flat());
    return shownColumns(valueColumns(), view).filter((c) => c === FIXTURE || c.id === FIXTURE.id || there.has(c.id));
  }, [own, view]);
  const bySection = useMemo(
    () => new Map([...own].map(([type, a]) => [type, columns.filter((c) => c.id === FIXTURE.id || a.includes(c.id))])),
    [own, columns],
  );
  // Sorted by what is on stage when the title is pressed: a row never walks away under the hand.
  const lines = useMemo(() => {
    const { world: now, view: live } = session.store.getState();
    const stage = live && seenByHands(live);
    const half = stage && halfOf(stage);
    const keyOf = (row: FixtureRow, id: string) =>
      id === FIXTURE.id ? row.number : ((half && numberOf(now, half, stage, row.id, id)) ?? -Infinity);
    return inSections(
      sortedRows({ columns: valueColumns(), rows, view, keyOf }),
      (r) => r.type,
      (type) => show.types[type]?.model ?? type,
      folded,
    );
  }, [session, rows, view.sort, folded, show.types]); // oxlint-disable-line react-hooks/exhaustive-deps
  const inSight = useMemo(() => rowsIn(lines), [lines]);
  const chosen = useMemo(() => new Set(selection.map((i) => splitItem(i).fixture)), [selection]);
  const compact = view.byType;
  const columnsOf = useCallback((type: string): readonly SheetColumn[] => bySection.get(type) ?? [], [bySection]);
  const taken = (r: Range): Taken[] => {
    const { r1, r2, c1, c2 } = normal(r);
    return inSight.slice(r1, r2 + 1).map((row) => ({
      id: row.id,
      attributes: (compact ? columnsOf(row.type) : columns).slice(c1, c2 + 1).map((c) => c.id),
    }));
  };
  const selectRow = (id: string, add: boolean) => {
    const items = !add ? [id] : selection.includes(id) ? selection.filter((i) => i !== id) : [...selection, id];
    session.act([select.of({ items })], "select");
  };
  const look = useCallback(
    (row: FixtureRow, column: SheetColumn): Look =>
      column.id === FIXTURE.id
        ? {
            content: (
              <button type="button" data-fixture={row.id} title="Select it; Ctrl adds or takes away">
                <span className="num">{row.number}</span> {row.name}
              </button>
            ),
          }
        : { content: <i data-id={row.id} data-attribute={column.id} data-form="none" /> },
    [],
  );
  const copied = (r: Range) => {
    const { world: now, view: live } = session.store.getState();
    if (!live) return "";
    const stage = seenByHands(live);
    const half = halfOf(stage);
    return taken(r)
      .map((t) => t.attributes.map((a) => cellOf(now, half, stage, t.id, a, layer).text).join("\t"))
      .join("\n");
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
        <UseSpread bent={bent} rows={range ? taken(range) : inSight} on={spreads} onChange={setSpreads} />
        <Select
          size="xs"
          w={150}
          aria-label="Which fixtures"
          value={shown}
          allowDeselect={false}
          onChange={(v) => v && (setShown(v), setRange(null))}
          data={SHOWN.map((value) => ({ value, label: NAMES[value] }))}
        />
        <ColumnsMenu
          columns={valueColumns().filter((c) => [...own.values()].some((a) => a.includes(c.id)))}
          view={view}
          setView={setView}
        >
          <Menu.Item component="label">
            <Checkbox
              size="xs"
              label="Compact: each type with its own columns"
              checked={compact}
              onChange={(e) => setView({ ...view, byType: e.currentTarget.checked })}
            />
          </Menu.Item>
          <Menu.Divider />
        </ColumnsMenu>
        <Button
          size="compact-sm"
          variant={names ? "light" : "default"}
          aria-pressed={names}
          title={names ? "Palettes by their names; press for numbers" : "Numbers; press for palettes by their names"}
          onClick={() => setNames(!names)}
        >
          ◇ names
        </Button>
        <Select
          size="xs"
          w={128}
          aria-label="Go to a type"
          placeholder="go to a type"
          value={null}
          data={[...own.keys()].map((type) => ({ value: type, label: show.types[type]?.model ?? type }))}
          onChange={(type) => type && setSight(inSight.findIndex((row) => row.type === type))}
        />
        <Legend marks={MARKS} />
        {range ? (
          <div className={classes.taken}>
            <Button size="compact-sm" variant="default" title="Del" onClick={() => letGo(session, taken(range))}>
              Clear
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              title="Held, but not recorded; pressed again, it is recorded"
              onClick={() => flipKept(session, taken(range))}
            >
              Keep out
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => session.act([select.of({ items: taken(range).map((t) => t.id) })], "select")}
            >
              Select
            </Button>
          </div>
        ) : (
          <span className="muted">
            {layer === "timing"
              ? "Drag over held cells; type 2, +1, or 0 to 3"
              : "Drag over cells; type 50, +5, or 20 to 80"}
          </span>
        )}
      </header>
      <div
        ref={body}
        className={classes.body}
        onClick={(e) => {
          const id = (e.target as HTMLElement).closest<HTMLElement>("[data-fixture]")?.dataset.fixture;
          if (id) selectRow(id, e.ctrlKey || e.metaKey || e.shiftKey);
        }}
      >
        <Sheet
          key={`${shown} ${compact}`}
          label="Values of fixtures"
          sight={sight}
          columns={columns}
          lines={lines}
          lead={1}
          view={view}
          setView={setView}
          chosen={chosen}
          look={look}
          {...(compact ? { columnsOf, sectionOf: (row: FixtureRow) => row.type } : {})}
          folded={folded}
          onFold={(type) => {
            const next = new Set(folded);
            if (!next.delete(type)) next.add(type);
            setFolded(next);
          }}
          onTake={setRange}
          onToggle={(row) => selectRow(inSight[row]!.id, true)}
          onFill={(r, to) => fillValues(session, taken(r), taken({ ...r, r1: r.r2 + 1, r2: to }))}
          editFrom={() => ""}
          onTyping={(text, r) =>
            useForeseen.setState({ hint: text?.trim() ? cellsLine(session, text.trim(), taken(r), typing) : null })
          }
          onPut={(text, r) => {
            useForeseen.setState({ hint: null });
            if (text.trim()) typeCells(session, text.trim(), taken(r), typing);
          }}
          onEmpty={(r) => emptyCells(session, taken(r), layer)}
          copied={copied}
          onPaste={(text, r) => {
            if (!/[\t\n]/.test(text.trim()) || layer !== "value")
              return typeCells(session, text.trim(), taken(r), typing);
            const onto = taken({ ...r, r2: inSight.length - 1, c2: Infinity });
            pasteValues(session, text, onto);
          }}
          nameOf={(row, column, rows) =>
            `${column.title} of ${rows > 1 ? `${rows} fixtures` : `fixture ${row.number}`}: ${layer === "timing" ? "a fade such as 2, a delay such as +1, or both; 0 to 3 spreads" : "a number, +5 for more, or a spread such as 20 to 80"}`
          }
          empty={
            <p className={classes.empty}>
              {shown === "all"
                ? "Nothing is patched yet: patch some fixtures in Rig."
                : shown === "held"
                  ? "Nothing is held. What you set stays here until you record or clear it."
                  : shown === "active"
                    ? "Everything is at its default: nothing is held, and no list gives anything."
                    : `No fixture is ${shown === "selected" ? "selected" : "stored in the cue that runs"}. Choose "all fixtures" above to see them.`}
            </p>
          }
        />
      </div>
    </section>
  );
}
