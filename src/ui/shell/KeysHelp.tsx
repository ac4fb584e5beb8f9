"use client";

import { Kbd, Modal, Table, Text } from "@mantine/core";
import { useEffect } from "react";
import { KEYS } from "../keys";

/** All keys, and the short forms of the Ask bar. */
export function KeysHelp({ opened, onClose, onOpen }: { opened: boolean; onClose(): void; onOpen(): void }) {
  useEffect(() => {
    addEventListener("bold-comet-keys", onOpen);
    return () => removeEventListener("bold-comet-keys", onOpen);
  }, [onOpen]);
  return (
    <Modal opened={opened} onClose={onClose} title="Keys" centered>
      <Text size="sm" c="dimmed" mb="sm">Typing anywhere goes to the Ask bar. The single keys work while it is empty.</Text>
      <Table withRowBorders={false} verticalSpacing={4}>
        <Table.Tbody>
          {KEYS.map((key) => (
            <Table.Tr key={key.id}>
              <Table.Td><Kbd>{key.shown}</Kbd></Table.Td>
              <Table.Td>{key.does}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  );
}
