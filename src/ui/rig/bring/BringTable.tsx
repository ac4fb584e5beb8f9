"use client";

import { ScrollArea, Table } from "@mantine/core";
import type { BroughtRow } from "@/core/exchange/bring";
import { capital } from "../../parts/words";

const HOW: Record<BroughtRow["how"], string> = {
  new: "new",
  same: "is here already, the same",
  beside: "beside what has its number",
  replaces: "in place of what has its number",
};

/** What would come over, what along with it, and under which numbers. */
export function BringTable({ rows }: { rows: readonly BroughtRow[] }) {
  return (
    <ScrollArea h={210}>
      <Table data-testid="bring-table">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>What comes over</Table.Th>
            <Table.Th>here</Table.Th>
            <Table.Th>how</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {rows.slice(0, 500).map((r) => (
            <Table.Tr key={`${r.what} ${r.number} ${r.as}`}>
              <Table.Td>
                {capital(r.what)} <span className="num">{r.number}</span> {r.name}
                {r.along && <span className="muted"> needed by what is ticked</span>}
              </Table.Td>
              <Table.Td className="num">{r.as}</Table.Td>
              <Table.Td>
                {HOW[r.how]}
                {r.left > 0 && <span style={{ color: "var(--caution)" }}>; {r.left} values stay behind</span>}
              </Table.Td>
            </Table.Tr>
          ))}
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
