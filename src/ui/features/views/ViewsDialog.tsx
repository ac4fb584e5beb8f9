"use client";

import { Button, Group, Modal, Stack, Text, TextInput } from "@mantine/core";
import { useState } from "react";
import { deleteOfDeck, nameOfDeck, recordView } from "@/core/deck/intents";
import { viewsByNumber } from "@/core/show/world";
import { EditableText } from "@/ui/base/parts/EditableText";
import { capital } from "@/ui/base/typed/capital";
import { usePlace } from "@/ui/show/addresses/places";
import { useSession, useShow } from "@/ui/show/useSession";
import { arrangementNow } from "./arrangement";

/** Arrangements of places by number and name: recorded, recalled, replaced. */
export function ViewsDialog({ opened, onClose }: { opened: boolean; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [name, setName] = useState("");
  const views = viewsByNumber(show);
  const free = (views.at(-1)?.number ?? 0) + 1;
  const place = usePlace();
  const record = (number: number, name?: string) => {
    const { settings } = arrangementNow(place);
    session.act([recordView.of({ number, ...(name ? { name } : {}), place, arrangement: settings })]);
  };
  return (
    <Modal opened={opened} onClose={onClose} title="Views" centered size="lg">
      <Stack gap="xs">
        <Text size="sm" c="dimmed">
          A view is how a place is arranged: its panels, sheets, columns and filters. It changes only what is seen.
        </Text>
        {views.map((v) => (
          <Group key={v.id} gap="sm" wrap="nowrap" data-testid="view">
            <span className="num">{v.number}</span>
            <span style={{ flex: 1 }}>
              <EditableText
                value={v.name}
                label={`Name of view ${v.number}`}
                onSave={(called) => void session.act([nameOfDeck.of({ what: "view", id: v.id, name: called })])}
              />
            </span>
            <Text size="sm" c="dimmed">
              {capital(v.place)}
            </Text>
            <Button size="compact-sm" onClick={() => (session.shows({ view: v.id }), onClose())}>
              Show
            </Button>
            <Button size="compact-sm" variant="default" onClick={() => record(v.number)}>
              Record over it
            </Button>
            <Button
              size="compact-sm"
              variant="subtle"
              color="red"
              onClick={() => session.act([deleteOfDeck.of({ what: "view", id: v.id })])}
            >
              Delete
            </Button>
          </Group>
        ))}
        <form
          onSubmit={(e) => {
            e.preventDefault();
            record(free, name.trim());
            setName("");
          }}
        >
          <Group gap="xs">
            <TextInput
              size="xs"
              aria-label="Name of the new view"
              placeholder={`name of view ${free}`}
              value={name}
              maxLength={100}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <Button type="submit" size="compact-sm">
              Record this place as it is now
            </Button>
          </Group>
        </form>
      </Stack>
    </Modal>
  );
}
