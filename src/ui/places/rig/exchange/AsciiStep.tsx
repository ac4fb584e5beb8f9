"use client";

import { Button, Group, ScrollArea, SegmentedControl, Stack, Text } from "@mantine/core";
import { useState } from "react";
import type { AsciiData } from "@/core/exchange/ascii";
import { importAscii } from "@/core/exchange/asciiIntent";
import { useSession } from "@/ui/show/useSession";
import { plural } from "@/core/units/plural";

interface Props {
  name: string;
  data: AsciiData;
  onBack(): void;
  onClose(): void;
}

/** What lighting data from a text would bring in, and which of its lines cannot be carried. */
export function AsciiStep({ name, data, onBack, onClose }: Props) {
  const session = useSession();
  const [how, setHow] = useState<"add" | "update">("add");
  const { left, ...carried } = data;
  const channels = new Set(data.patch.map((p) => p.channel)).size;
  const bring = () => {
    if (!session.act([importAscii.of({ ...carried, update: how === "update" })])) onClose();
  };
  return (
    <Stack gap="sm">
      <Text>
        {name}: {plural(channels, "patched channel")}, {plural(data.groups.length, "group")},{" "}
        {plural(data.cues.length, "cue")} of intensities, {plural(data.subs.length, "submaster")}. Channels are fixtures
        of the same number; those that are not there yet become dimmers.
      </Text>
      <SegmentedControl
        size="xs"
        w="fit-content"
        aria-label="Existing items"
        data={[
          { value: "add", label: "Keep what is there" },
          { value: "update", label: "Overwrite what is there" },
        ]}
        value={how}
        onChange={(v) => setHow(v)}
      />
      {left.length > 0 && (
        <>
          <Text size="sm" c="var(--caution)">
            {plural(left.length, "line")} cannot be carried:
          </Text>
          <ScrollArea.Autosize mah={220}>
            {left.slice(0, 200).map(({ line, why }) => (
              <Text key={`${line} ${why}`} size="sm">
                <span className="num">{line}</span> {why}
              </Text>
            ))}
            {left.length > 200 && <Text size="sm">and {left.length - 200} more</Text>}
          </ScrollArea.Autosize>
        </>
      )}
      <Group justify="flex-end">
        <Button variant="default" onClick={onBack}>
          Another file
        </Button>
        <Button onClick={bring} data-autofocus>
          Import
        </Button>
      </Group>
    </Stack>
  );
}
