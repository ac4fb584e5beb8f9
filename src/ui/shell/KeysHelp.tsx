"use client";

import { Kbd, Modal, Table, Text } from "@mantine/core";
import { useEffect } from "react";
import { KEYS, TABLE_KEYS } from "../keys";

/** All keys, and the short forms of the Ask bar. */
export function KeysHelp({ opened, onClose, onOpen }: { opened: boolean; onClose(): void; onOpen(): void }) {
  useEffect(() => {
    addEventListener("bold-comet-keys", onOpen);
    return () => removeEventListener("bold-comet-keys", onOpen);
  }, [onOpen]);
  return (
    <Modal opened={opened} onClose={onClose} title="Keys" centered>
      <Text size="sm" c="dimmed" mb="sm">
        Typing anywhere goes to the Ask bar. The single keys work while it is empty.
      </Text>
      <Table withRowBorders={false} verticalSpacing={4}>
        <Table.Tbody>
          {KEYS.map((key) => (
            <KeyRow key={key.id} shown={key.shown} does={key.does} />
          ))}
          <Table.Tr>
            <Table.Td colSpan={2}>
              <strong>In the patch table</strong>
            </Table.Td>
          </Table.Tr>
          {TABLE_KEYS.map((key) => (
            <KeyRow key={key.id} shown={key.shown} does={key.does} />
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  );
}

const KeyRow = ({ shown, does }: { shown: string; does: string }) => (
  <Table.Tr>
    <Table.Td>
      <Kbd>{shown}</Kbd>
    </Table.Td>
    <Table.Td>{does}</Table.Td>
  </Table.Tr>
);
