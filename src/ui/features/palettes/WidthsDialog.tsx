"use client";

import { Button, Checkbox, Group, Modal, ScrollArea, SegmentedControl, Stack, Table, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { widenPalette } from "@/core/palette/intents";
import { atWidth } from "@/core/palette/keep";
import { countsText } from "@/core/palette/words";
import { WIDTHS, type Palette, type Width } from "@/core/show/paletteSchema";
import { palettesByNumber } from "@/core/show/world";
import { useSession, useShow } from "@/ui/show/useSession";
import { plural } from "@/core/units/plural";

/** How many values a palette keeps, exceptions included. */
const valuesIn = ({ own, types, any }: Pick<Palette, "own" | "types" | "any">): number =>
  Object.keys(own).length +
  Object.values(types).reduce((sum, t) => sum + Object.keys(t.values).length, 0) +
  Object.keys(any.values).length +
  (any.colour ? 1 : 0);

/** Many palettes at once kept for each, their types or any: what each keeps now and then; what fixtures get stays. */
export function WidthsDialog({ onClose }: { onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [width, setWidth] = useState<Width>("type");
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(
    () =>
      palettesByNumber(show)
        .filter((p) => p.width !== width)
        .map((palette) => ({ palette, then: { ...palette, ...atWidth(show, palette, width) } })),
    [show, width],
  );
  const chosen = rows.filter(({ palette }) => ticked.has(palette.id));
  const [before, after] = [
    chosen.reduce((sum, r) => sum + valuesIn(r.palette), 0),
    chosen.reduce((sum, r) => sum + valuesIn(r.then), 0),
  ];
  const tick = (id: string, on: boolean) => {
    const next = new Set(ticked);
    if (on) next.add(id);
    else next.delete(id);
    setTicked(next);
  };
  return (
    <Modal opened onClose={onClose} size="xl" centered title="Palette scope">
      <Stack gap="sm">
        <Group gap="sm">
          <Text size="sm">Set the ticked palettes to</Text>
          <SegmentedControl
            size="xs"
            aria-label="New scope"
            data={WIDTHS.map((w) => ({ value: w, label: w }))}
            value={width}
            onChange={(w) => (setWidth(w), setTicked(new Set()))}
          />
          <Text size="sm" c="dimmed">
            What each fixture gets does not change.
          </Text>
        </Group>
        <ScrollArea.Autosize mah={400}>
          <Table verticalSpacing={2} stickyHeader aria-label="Palettes of another scope">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>
                  <Checkbox
                    size="xs"
                    aria-label="All of them"
                    checked={chosen.length === rows.length && rows.length > 0}
                    indeterminate={chosen.length > 0 && chosen.length < rows.length}
                    onChange={(e) =>
                      setTicked(e.currentTarget.checked ? new Set(rows.map((r) => r.palette.id)) : new Set())
                    }
                  />
                </Table.Th>
                <Table.Th>Palette</Table.Th>
                <Table.Th>Now</Table.Th>
                <Table.Th>Result</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {rows.map(({ palette, then }) => (
                <Table.Tr key={palette.id}>
                  <Table.Td>
                    <Checkbox
                      size="xs"
                      aria-label={`Palette ${palette.number}`}
                      checked={ticked.has(palette.id)}
                      onChange={(e) => tick(palette.id, e.currentTarget.checked)}
                    />
                  </Table.Td>
                  <Table.Td>
                    <span className="num">{palette.number}</span> {palette.name}
                  </Table.Td>
                  <Table.Td>
                    {palette.width}: {countsText(palette)}
                  </Table.Td>
                  <Table.Td>{countsText(then)}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          {rows.length === 0 && <Text c="dimmed">Every palette has this scope already.</Text>}
        </ScrollArea.Autosize>
        <Button
          disabled={chosen.length === 0}
          onClick={() =>
            session.act(chosen.map(({ palette }) => widenPalette.of({ palette: palette.id, width }))) || onClose()
          }
        >
          Set {plural(chosen.length, "palette")} to {width} ({plural(before, "value")} become {after})
        </Button>
      </Stack>
    </Modal>
  );
}
