"use client";

import { Button, Group, List, ScrollArea, Stack, Table, Text } from "@mantine/core";
import { attributeInfo } from "@/core/fixture/attribute";
import type { GdtfRead } from "@/core/exchange/gdtf/file";
import { footprint, type Mode } from "@/core/fixture/type";
import { putType, typeChanges } from "@/core/rig/typeIntent";
import { useSession, useShow } from "@/ui/show/useSession";
import { plural } from "@/core/units/plural";

interface Props {
  name: string;
  read: GdtfRead;
  onBack(): void;
  onClose(): void;
}

/** So many attributes are named; the rest is counted. */
const NAMED = 24;

function doesText({ channels }: Mode): string {
  const labels = channels.flatMap((c) => c.functions.map((f) => (f.info ?? attributeInfo(f.attribute)).label));
  const all = [...new Set(labels)];
  return `${all.slice(0, NAMED).join(", ")}${all.length > NAMED ? ` and ${all.length - NAMED} more` : ""}`;
}

/** A fixture type from a GDTF file: its modes, what of it could not be used, and what changes where the show has it already. */
export function GdtfStep({ name, read, onBack, onClose }: Props) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const { type, notes } = read;
  const known = show.types[type.id];
  const changes = typeChanges(show, type);
  const bring = () => {
    if (session.act([putType.of({ type })])) return;
    session.tell(`${type.maker} ${type.model} is in the library of this show`);
    onClose();
  };
  return (
    <Stack gap="sm">
      <Text>
        {name}: <strong>{`${type.maker} ${type.model}`.trim()}</strong>, {plural(type.modes.length, "mode")}
        {known ? ". This show has it already" : ""}
      </Text>
      <ScrollArea.Autosize mah={260}>
        <Table>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Mode</Table.Th>
              <Table.Th>Channels</Table.Th>
              <Table.Th>Cells</Table.Th>
              <Table.Th>What it does</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {type.modes.map((mode) => (
              <Table.Tr key={mode.name}>
                <Table.Td>{mode.name}</Table.Td>
                <Table.Td className="num">{footprint(mode)}</Table.Td>
                <Table.Td className="num">{mode.cells || ""}</Table.Td>
                <Table.Td className="muted">{doesText(mode)}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </ScrollArea.Autosize>
      {changes.length > 0 && (
        <>
          <Text size="sm" c="var(--caution)">
            Fixtures are of this type. The file would change them:
          </Text>
          <List size="sm">
            {changes.map((c) => (
              <List.Item key={c}>{c}</List.Item>
            ))}
          </List>
        </>
      )}
      {notes.length > 0 ? (
        <>
          <Text size="sm" c="var(--caution)">
            {plural(notes.length, "thing")} could not be used; the file itself is kept for export:
          </Text>
          <ScrollArea.Autosize mah={160} data-testid="gdtf-notes">
            <List size="sm">
              {notes.map((n) => (
                <List.Item key={n}>{n}</List.Item>
              ))}
            </List>
          </ScrollArea.Autosize>
        </>
      ) : (
        <Text size="sm" c="dimmed">
          Every channel of every mode comes in.
        </Text>
      )}
      <Group justify="flex-end">
        <Button variant="default" onClick={onBack}>
          Another file
        </Button>
        <Button onClick={bring} data-autofocus>
          {known ? "Change the type" : "Import the type"}
        </Button>
      </Group>
    </Stack>
  );
}
