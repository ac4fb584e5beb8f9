"use client";

import { Button, Group, Modal, ScrollArea, Stack, Text } from "@mantine/core";
import { goesAlong } from "@/core/patch/removedWith";
import { remove } from "@/core/patch/intents";
import { itemsText } from "@/core/show/words/itemsText";
import { useSession, useShow } from "@/ui/show/useSession";
import { plural } from "@/core/units/plural";

/** What goes with fixtures that are to be removed, by name; then it is done. */
export function RemoveDialog({ fixtures, onClose }: { fixtures: readonly string[]; onClose(): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { groups, cues, palettes, effects } = goesAlong(world.show, fixtures);
  const parts = [
    ["Groups", groups],
    ["Stored in", cues],
    ["Exceptions in palettes", palettes],
    ["Effects cast on them", effects],
  ] as const;
  const some = parts.filter(([, lines]) => lines.length > 0);
  return (
    <Modal opened onClose={onClose} centered title={`Remove ${plural(fixtures.length, "fixture")}`}>
      <Stack gap="sm">
        <Text size="sm">
          {itemsText(world, fixtures)}
          {some.length === 0 ? ": nothing in the show names them." : ", and what names them:"}
        </Text>
        <ScrollArea.Autosize mah={320} data-testid="goes-along">
          {some.map(([title, lines]) => (
            <div key={title}>
              <Text size="sm" fw={600} mt={6}>
                {title}
              </Text>
              {lines.map((line) => (
                <Text key={line} size="sm" c="dimmed">
                  {line}
                </Text>
              ))}
            </div>
          ))}
        </ScrollArea.Autosize>
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Leave them
          </Button>
          <Button
            data-autofocus
            color="red"
            onClick={() => void (session.act([remove.of({ fixtures: [...fixtures] })]) ?? onClose())}
          >
            Remove {plural(fixtures.length, "fixture")}
          </Button>
        </Group>
        <Text size="xs" c="dimmed">
          Undo brings all of it back.
        </Text>
      </Stack>
    </Modal>
  );
}
