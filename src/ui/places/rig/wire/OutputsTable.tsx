"use client";

import { Button, Group, Modal, Stack, Text, Textarea } from "@mantine/core";
import { useState } from "react";
import { destinationNames } from "@/core/dmx/consent";
import { setOutputs } from "@/core/dmx/outputIntents";
import { readOutputs, writeOutputs } from "@/core/dmx/outputTable";
import { useSession, useShow } from "@/ui/show/useSession";
import { plural } from "@/core/units/plural";

const MOST_SHOWN = 20;

/** Outputs as a table of text: copied to a spreadsheet, and typed or pasted from one, a universe a line. */
export function OutputsTable({ universes, onClose }: { universes: readonly number[]; onClose(): void }) {
  const session = useSession();
  const outputs = useShow((s) => s.world.show.outputs);
  const [text, setText] = useState(() => writeOutputs(universes, outputs));
  const { rows, wrong } = readOutputs(text);
  const changed = rows.filter(
    ({ universe, output }) => JSON.stringify(outputs[universe] ?? null) !== JSON.stringify(output),
  );
  const set = () => {
    const intents = changed.map(({ universe, output }) => setOutputs.of({ universes: [universe], output }));
    if (session.act(intents, `sets the outputs of ${plural(changed.length, "universe")}`)) return;
    // Setting a destination by hand is agreeing to it.
    session.agree(changed.flatMap(({ output }) => (output ? destinationNames(output) : [])));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} centered size={680} title="Outputs as a table">
      <Stack gap="sm">
        <Textarea
          data-autofocus
          label="Universe, protocol, destination, number, priority: a universe a line, divided by tabs, semicolons or commas"
          autosize
          minRows={8}
          maxRows={18}
          spellCheck={false}
          styles={{ input: { fontFamily: "var(--mono)", whiteSpace: "pre" } }}
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
        />
        {wrong.slice(0, MOST_SHOWN).map(({ line, why }) => (
          <Text key={line} size="sm" style={{ color: "var(--caution)" }}>
            line {line}: {why}
          </Text>
        ))}
        {wrong.length > MOST_SHOWN && <Text size="sm">and {wrong.length - MOST_SHOWN} more</Text>}
        <Group justify="flex-end">
          <Text size="sm" c="dimmed">
            {changed.length === 0
              ? "Nothing would change"
              : `${plural(changed.length, "universe")} would change${wrong.length > 0 ? `, ${plural(wrong.length, "line")} left out` : ""}`}
          </Text>
          <Button disabled={changed.length === 0} onClick={set}>
            Set
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
