"use client";

import { Button, Checkbox, TextInput } from "@mantine/core";
import { IconSearch } from "@tabler/icons-react";
import { useCallback, useDeferredValue, useMemo, useState } from "react";
import { select } from "@/core/select/intents";
import type { Fixture, Show } from "@/core/show/schema";
import { ColumnsMenu } from "@/ui/base/sheet/ColumnsMenu";
import type { Range } from "@/ui/base/sheet/range";
import { Sheet } from "@/ui/base/sheet/Sheet";
import type { Look } from "@/ui/base/sheet/looks";
import { rowsIn, shownColumns } from "@/ui/base/sheet/view";
import { useSession, useShow } from "@/ui/show/useSession";
import { copyCells, fillDown, pasteCells, typeInto, type Put } from "./cells";
import { COLUMNS, type Column } from "./columns";
import { drafted } from "./draft";
import { DraftBar } from "./DraftBar";
import { useDraft } from "./useDraft";
import { useLines, usePatchView } from "./view";
import classes from "./PatchTable.module.css";

const MANY = 200;
const countOf = (show: Show): number => Object.keys(show.fixtures).length;
/** How many are out of service: they are no part of counts. */
const awayOf = (show: Show): number => Object.values(show.fixtures).filter((f) => f.outOfService).length;

/** Every fixture, as in a spreadsheet: ranges, typing, filling, copy and paste. The rows of a range are selected. */
export function PatchTable({ onPatch }: { onPatch(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const [view, setView] = usePatchView();
  const [filter, setFilter] = useState("");
  const columns = useMemo(() => shownColumns(COLUMNS, view), [view]);
  // Where many rows come or go at once they are drawn in short steps, so that no frame is held up.
  const late = useDeferredValue(show);
  const lines = useLines(Math.abs(countOf(show) - countOf(late)) > MANY ? late : show, view, filter);
  const fixtures = useMemo(() => rowsIn(lines), [lines]);
  const { draft, clashes, commit, add, discard } = useDraft();
  const chosen = useMemo(() => new Set(selection), [selection]);
  const shown = () => fixtures.map((f) => drafted(f, draft));
  const rowsOf = ({ r1, r2 }: Range) => shown().slice(r1, r2 + 1);

  const take = ({ changes, trouble }: Put) => {
    if (trouble) session.tell(trouble, "refused");
    if (changes.size > 0) add(changes);
  };
  const put = (text: string, range: Range) => take(typeInto(text, columns[range.c1]!, rowsOf(range), show));
  const choose = (range: Range | null, byItself: boolean) => {
    if (!range || byItself) return;
    const { r1, r2 } = range;
    const items = fixtures.slice(Math.min(r1, r2), Math.max(r1, r2) + 1).map((f) => f.id);
    if (items.length > 0) session.act([select.of({ items })], "select");
  };
  const look = useCallback(
    (fixture: Fixture, column: Column): Look => {
      const text = column.text(drafted(fixture, draft), show);
      const clash = clashes.find((k) => k.fixture === fixture.id && k.field === column.id);
      return {
        title: clash ? clash.text : column.kind === "text" && text.length > 14 ? text : undefined,
        data: {
          "data-drafted": draft.has(fixture.id) && column.text(fixture, show) !== text,
          "data-clash": clash !== undefined,
          "data-away": fixture.outOfService === true && (column.id === "number" || column.id === "name"),
          "data-still": !column.put,
        },
        content: (
          <>
            {clash && <b aria-label="clash">⚠ </b>}
            {column.kind === "yes" ? (
              <i data-on={text === "yes"} aria-label={text}>
                {text === "yes" ? "✓" : "·"}
              </i>
            ) : (
              text || (column.id === "addresses" ? <em>unpatched</em> : "")
            )}
          </>
        ),
      };
    },
    [show, draft, clashes],
  );

  const away = awayOf(show);
  if (countOf(show) === 0)
    return (
      <div className={classes.empty}>
        <p>
          Nothing is patched yet. A show begins with its rig: choose a type, how many, and where they start; or bring in
          a table.
        </p>
        <Button onClick={onPatch}>Patch the first fixtures</Button>
      </div>
    );
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
        <ColumnsMenu columns={COLUMNS} view={view} setView={setView} />
        <span className="muted">
          {fixtures.length === countOf(show)
            ? `${fixtures.length - away} fixtures`
            : `${fixtures.length} of ${countOf(show)} fixtures`}
          {away > 0 && <span style={{ color: "var(--caution)" }}>, {away} out of service</span>}
        </span>
      </div>
      <DraftBar show={show} draft={draft} clashes={clashes} onChange={commit} onDiscard={discard} />
      <Sheet
        label="Patch"
        columns={columns}
        lines={lines}
        view={view}
        setView={setView}
        chosen={chosen}
        look={look}
        onTake={choose}
        onToggle={(row) => {
          const { id } = fixtures[row]!;
          const items = chosen.has(id) ? selection.filter((i) => i !== id) : [...selection, id];
          session.act([select.of({ items })], "select");
        }}
        onFill={(range, to) => take(fillDown(range, to, shown(), columns, show))}
        editFrom={(fixture, column) => {
          const text = column.text(drafted(fixture, draft), show);
          if (column.put) return text;
          session.tell(`${column.title} is not changed here`, "refused");
          return null;
        }}
        onFlip={(range, column) => put(column.text(rowsOf(range)[0]!, show) === "yes" ? "no" : "yes", range)}
        onPut={put}
        onEmpty={(range) => {
          for (const c of columns.slice(range.c1, range.c2 + 1))
            if (c.id === "addresses" || c.kind === "text") take(typeInto("", c, rowsOf(range), show));
        }}
        onEscape={() => draft.size > 0 && (discard(), true)}
        copied={(range) => copyCells(rowsOf(range), columns.slice(range.c1, range.c2 + 1), show)}
        onPaste={(text, range) => take(pasteCells(text, range, shown(), columns, show))}
        nameOf={(fixture, column, rows) =>
          `${column.title} of ${rows > 1 ? `${rows} rows` : `fixture ${fixture.number}`}`
        }
      />
    </div>
  );
}
