"use client";

import { ScrollArea, Table } from "@mantine/core";
import { IconChevronDown, IconChevronRight } from "@tabler/icons-react";
import { Fragment, useMemo, useState } from "react";
import { COLLECTION, type BroughtRow } from "@/core/exchange/bring";
import { differsIn } from "@/core/exchange/differs";
import type { Show } from "@/core/show/schema";
import { capital } from "@/ui/base/typed/capital";
import classes from "./Bring.module.css";
import { plural } from "@/core/units/plural";

const HOW: Record<BroughtRow["how"], string> = {
  new: "new",
  same: "already here, identical",
  beside: "gets the next free number",
  replaces: "replaces what has its number",
};

/** The record of a row in a show; undefined where it has none. */
function recordOf(show: Show, row: BroughtRow, id: string | undefined): object | undefined {
  if (id === undefined) return undefined;
  return row.what === "cue" ? show.lists[row.list!]?.cues[id] : show[COLLECTION[row.what]][id];
}

interface Props {
  rows: readonly BroughtRow[];
  now: Show;
  /** The show as it would be. */
  after: Show;
}

/** Rows that are drawn. */
const MOST = 500;

/** What would come over, what along with it, under which numbers, and how it differs from what has them. */
export function BringTable({ rows, now, after }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <ScrollArea h={330}>
      <Table data-testid="bring-table" className={classes.table}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>What comes over</Table.Th>
            <Table.Th>here</Table.Th>
            <Table.Th>how</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {rows.slice(0, MOST).map((r) => (
            <Fragment key={r.id}>
              <Table.Tr>
                <Table.Td>
                  {capital(r.what)} <span className="num">{r.number}</span> {r.name}
                  {r.along && <span className="muted"> needed by what is ticked</span>}
                </Table.Td>
                <Table.Td className="num">{r.as}</Table.Td>
                <Table.Td>
                  {r.how === "beside" || r.how === "replaces" ? (
                    <button
                      type="button"
                      className={classes.opens}
                      aria-expanded={open === r.id}
                      title="What differs"
                      onClick={() => setOpen(open === r.id ? null : r.id)}
                    >
                      {open === r.id ? <IconChevronDown size={14} /> : <IconChevronRight size={14} />}
                      {HOW[r.how]}
                    </button>
                  ) : (
                    HOW[r.how]
                  )}
                  {r.left > 0 && <span className={classes.caution}>{plural(r.left, "value")} stay behind</span>}
                  {r.asIs > 0 && (
                    <span
                      className={classes.caution}
                      title="Their lines use numbers that mean other things here. Read them after importing"
                    >
                      {plural(r.asIs, "line")} to check: numbers differ here
                    </span>
                  )}
                </Table.Td>
              </Table.Tr>
              {open === r.id && <Differences row={r} now={now} after={after} />}
            </Fragment>
          ))}
          {rows.length > MOST && (
            <Table.Tr>
              <Table.Td colSpan={3} className="muted">
                and {rows.length - MOST} more, which come over too
              </Table.Td>
            </Table.Tr>
          )}
          {rows.length === 0 && (
            <Table.Tr>
              <Table.Td colSpan={3} className="muted">
                Tick something on the left.
              </Table.Td>
            </Table.Tr>
          )}
        </Table.Tbody>
      </Table>
    </ScrollArea>
  );
}

/** Value by value: as it is here, and as it comes. */
function Differences({ row, now, after }: { row: BroughtRow; now: Show; after: Show }) {
  const found = useMemo(() => {
    const [here, there] = [recordOf(now, row, row.mine), recordOf(after, row, row.id)];
    return here && there ? differsIn(after, here, there) : { differs: [], more: 0 };
  }, [row, now, after]);
  return (
    <Table.Tr>
      <Table.Td colSpan={3} p={0}>
        <table className={classes.differs} data-testid="bring-differs">
          <thead>
            <tr>
              <th>differs in</th>
              <th>here</th>
              <th>comes over</th>
            </tr>
          </thead>
          <tbody>
            {found.differs.map((d) => (
              <tr key={d.where}>
                <td>{d.where}</td>
                <td>{d.here}</td>
                <td>{d.there}</td>
              </tr>
            ))}
            {found.more > 0 && (
              <tr>
                <td colSpan={3} className="muted">
                  and {found.more.toLocaleString("en")} more
                </td>
              </tr>
            )}
            {found.differs.length === 0 && (
              <tr>
                <td colSpan={3} className="muted">
                  Only in the fixtures and items it refers to.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      </Table.Td>
    </Table.Tr>
  );
}
