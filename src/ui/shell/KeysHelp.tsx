"use client";

import { Button, FileButton, Group, Kbd, Modal, Table, Text } from "@mantine/core";
import { useEffect, useState } from "react";
import { KEYS, pressedKeys, TABLE_KEYS } from "@/ui/show/keys/keys";
import { loadSettings, saveSettings } from "@/ui/base/preferences/settingsFile";
import { useSession } from "@/ui/show/useSession";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";

/** All keys, to be read and changed, and the short forms of the Ask bar. */
export function KeysHelp({ opened, onClose, onOpen }: { opened: boolean; onClose(): void; onOpen(): void }) {
  const session = useSession();
  const { table, changes, change, reset } = useKeyTable();
  const [changing, setChanging] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    addEventListener("bold-comet-keys", onOpen);
    return () => removeEventListener("bold-comet-keys", onOpen);
  }, [onOpen]);
  useEffect(() => {
    if (!changing) return;
    const take = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopPropagation();
      const keys = event.key === "Escape" && !event.shiftKey ? null : pressedKeys(event);
      if (keys === undefined) return;
      setTrouble(keys === null ? null : (change(changing, keys) ?? null));
      setChanging(null);
    };
    window.addEventListener("keydown", take, { capture: true });
    return () => window.removeEventListener("keydown", take, { capture: true });
  }, [changing, change]);
  const load = async (file: File | null) => {
    const no = file && (await loadSettings(file));
    if (no) session.tell(no, "refused");
  };
  return (
    <Modal opened={opened} onClose={onClose} closeOnEscape={!changing} title="Keys" centered size="lg">
      <Text size="sm" c="dimmed" mb="sm">
        Typing anywhere goes to the Ask bar. The single keys work while it is empty. Press a key here to change it.
      </Text>
      {trouble && (
        <Text size="sm" c="yellow" role="alert" mb="sm">
          {trouble}
        </Text>
      )}
      <Table withRowBorders={false} verticalSpacing={4}>
        <Table.Tbody>
          {table.map((key) => (
            <Table.Tr key={key.id}>
              <Table.Td w={150}>
                <Button
                  size="compact-sm"
                  variant={changing === key.id ? "filled" : "default"}
                  aria-label={`${key.does}: ${key.shown}. Press to change`}
                  onClick={() => (setTrouble(null), setChanging(key.id))}
                >
                  {changing === key.id ? "press keys …" : key.shown}
                </Button>
              </Table.Td>
              <Table.Td>
                {key.does}
                {changes[key.id] ? (
                  <Text span size="sm" c="dimmed">
                    {" "}
                    (was {KEYS.find((k) => k.id === key.id)?.shown})
                  </Text>
                ) : null}
              </Table.Td>
            </Table.Tr>
          ))}
          <Table.Tr>
            <Table.Td colSpan={2}>
              <strong>In the sheets of patch and values</strong>
            </Table.Td>
          </Table.Tr>
          {TABLE_KEYS.map(({ id, shown, does }) => (
            <Table.Tr key={id}>
              <Table.Td>
                <Kbd>{shown}</Kbd>
              </Table.Td>
              <Table.Td>{does}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <Group mt="md" gap="xs">
        <Button size="compact-sm" variant="default" onClick={saveSettings}>
          Save keys and layout to a file
        </Button>
        <FileButton accept="application/json" onChange={(file) => void load(file)}>
          {(props) => (
            <Button size="compact-sm" variant="default" {...props}>
              Load them
            </Button>
          )}
        </FileButton>
        <Button size="compact-sm" variant="subtle" disabled={Object.keys(changes).length === 0} onClick={reset}>
          All keys as they were
        </Button>
      </Group>
    </Modal>
  );
}
