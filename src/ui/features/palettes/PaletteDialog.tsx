"use client";

import { Button, Group, Modal, SegmentedControl, Select, Stack, Table, Text } from "@mantine/core";
import { useMemo } from "react";
import { deletePalette, replacePalette } from "@/core/palette/goneIntents";
import { exceptPalette, foldPalette, referPalette, setPalette, widenPalette } from "@/core/palette/intents";
import { atWidth, foldable } from "@/core/palette/keep";
import { usesOf } from "@/core/palette/uses";
import { linksInside, ownOfLinks } from "@/core/program/linksInside";
import { countsText, paletteText } from "@/core/palette/words";
import { dropLinks, writePalette } from "@/core/palette/writeIntent";
import { splitKey } from "@/core/show/ids";
import { WIDTHS, type Palette } from "@/core/show/paletteSchema";
import { fixturesByNumber, palettesByNumber } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { useSession, useShow } from "@/ui/show/useSession";
import { lookInside } from "@/ui/show/held/lookInside";
import { PaletteSheet } from "./PaletteSheet";
import { wordsOf } from "@/ui/stage/pictures/paletteWords";
import classes from "./Palettes.module.css";
import { plural } from "@/core/units/plural";

/** Inside a palette: whom each type follows, the exceptions, its width, and where it is used. */
export function PaletteDialog({ palette, onClose }: { palette: Palette; onClose(): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show, hands } = world;
  const { id } = palette;
  const fixtures = fixturesByNumber(show);
  const uses = usesOf(world, id);
  const exceptions = [...new Set(Object.keys(palette.own).map((key) => splitKey(key).fixture))].flatMap(
    (f) => show.fixtures[f] ?? [],
  );
  exceptions.sort((a, b) => a.number - b.number);
  const others = palettesByNumber(show).filter((p) => p.id !== id);
  const folds = foldable(show, palette).length;
  const items = [...hands.selection];
  const links = useMemo(() => linksInside(show, id), [show, id]);
  return (
    <Modal opened onClose={onClose} size="xl" centered title={`Palette ${palette.number}`}>
      <Stack gap="sm">
        <Group gap="md">
          <EditableText
            value={palette.name}
            label="Name"
            empty="no name"
            onSave={(name) => session.act([setPalette.of({ palette: id, name })])}
          />
          <SegmentedControl
            size="xs"
            data={WIDTHS.map((w) => ({ value: w, label: w }))}
            value={palette.width}
            title="What each fixture gets stays"
            onChange={(w) => session.act([widenPalette.of({ palette: id, width: w })])}
          />
          <Text size="sm" c="dimmed">
            {countsText(palette)}
            {palette.width !== "type" ? `; as type: ${countsText(atWidth(show, palette, "type"))}` : ""}
          </Text>
        </Group>
        <Table verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>For</Table.Th>
              <Table.Th>Follows</Table.Th>
              <Table.Th>Values</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {Object.entries(palette.types).map(([type, of]) => {
              const own = fixtures.filter((f) => f.type === type);
              const reference = of.reference ? show.fixtures[of.reference] : undefined;
              const follower = own.find((f) => !exceptions.includes(f)) ?? reference;
              return (
                <Table.Tr key={type}>
                  <Table.Td>
                    {plural(own.length, show.types[type]?.model ?? type, `× ${show.types[type]?.model ?? type}`)}
                  </Table.Td>
                  <Table.Td>
                    <Select
                      size="xs"
                      w={150}
                      aria-label={`Reference of ${show.types[type]?.model ?? type}`}
                      placeholder="its fixture is gone"
                      data={own.map((f) => ({ value: f.id, label: `${f.number} ${f.name}` }))}
                      value={of.reference}
                      onChange={(v) => v && session.act([referPalette.of({ palette: id, fixture: v })])}
                      searchable
                    />
                  </Table.Td>
                  <Table.Td className={classes.saysCell}>
                    {follower ? wordsOf(show, palette, follower).join(", ") : "–"}
                  </Table.Td>
                </Table.Tr>
              );
            })}
            {(palette.any.colour !== null || Object.keys(palette.any.values).length > 0) && (
              <Table.Tr>
                <Table.Td>any fixture that has it</Table.Td>
                <Table.Td>–</Table.Td>
                <Table.Td className={classes.saysCell}>
                  {[
                    palette.any.colour &&
                      `colour xy ${plain(palette.any.colour.xy[0], 3)} ${plain(palette.any.colour.xy[1], 3)} at ${plain(palette.any.colour.level * 100, 0)} %`,
                    ...Object.entries(palette.any.values).map(
                      ([name, v]) =>
                        `${name} ${typeof v === "number" ? plain(v, 1) : "aim" in v ? `at ${v.aim.map((m) => plain(m, 1)).join(" ")} m` : "by a palette"}`,
                    ),
                  ]
                    .filter(Boolean)
                    .join(", ")}
                </Table.Td>
              </Table.Tr>
            )}
            {exceptions.map((f) => (
              <Table.Tr key={f.id}>
                <Table.Td>
                  <b>{f.number}</b> {f.name}
                </Table.Td>
                <Table.Td>
                  {palette.width === "each" ? (
                    "itself"
                  ) : (
                    <Button
                      size="compact-xs"
                      variant="default"
                      onClick={() => session.act([exceptPalette.of({ palette: id, items: [f.id], own: false })])}
                    >
                      Exception: follow again
                    </Button>
                  )}
                </Table.Td>
                <Table.Td className={classes.saysCell}>{wordsOf(show, palette, f).join(", ")}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        {links.map(({ to, keys }) => (
          <Group key={to} gap="xs" data-testid="palette-link">
            <Text size="sm">
              {plural(keys.length, "value")} {keys.length === 1 ? "follows" : "follow"} {paletteText(world, to)}
            </Text>
            <Button size="compact-sm" variant="default" onClick={() => lookInside(to)}>
              Look inside it
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              title="Keeps the present values in this palette; it no longer follows the other"
              onClick={() =>
                session.act([
                  writePalette.of({
                    palette: id,
                    values: ownOfLinks(show, id, keys),
                    type: palette.width !== "each",
                  }),
                ])
              }
            >
              Unlink and keep the values
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              title="This palette no longer sets these values; the other palette is unchanged"
              onClick={() => session.act([dropLinks.of({ palette: id, to })])}
            >
              Unlink and remove the values
            </Button>
          </Group>
        ))}
        <PaletteSheet palette={palette} />
        <Group gap="xs">
          <Button
            size="compact-sm"
            variant="default"
            disabled={items.length === 0}
            onClick={() => session.act([exceptPalette.of({ palette: id, items, own: true })])}
          >
            Make the selected exceptions
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            disabled={items.length === 0}
            onClick={() => session.act([exceptPalette.of({ palette: id, items, own: false })])}
          >
            Make the selected follow
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            disabled={folds === 0}
            onClick={() => session.act([foldPalette.of({ palette: id })])}
          >
            Fold in {plural(folds, "equal exception")}
          </Button>
        </Group>
        <Text size="sm">
          {uses.cues.length + uses.palettes.length === 0
            ? "Nothing uses it yet."
            : `Used in ${[
                ...uses.cues.slice(0, 16).map((u) => `cue ${plain(u.number, 3)} of ${u.list.name}`),
                ...(uses.cues.length > 16 ? [`${uses.cues.length - 16} more cues`] : []),
                ...uses.palettes.map((p) => `palette ${show.palettes[p]!.number}`),
              ].join(", ")}.`}
        </Text>
        <Group gap="xs" align="end">
          <Select
            size="xs"
            w={230}
            label="Replace everywhere with…"
            placeholder="choose"
            data={others.map((p) => ({ value: p.id, label: `${p.number} ${p.name}` }))}
            value={null}
            onChange={(by) => by && session.act([replacePalette.of({ palette: id, by, merge: false })])}
            searchable
          />
          <Select
            size="xs"
            w={230}
            label="Merge into…"
            placeholder="choose"
            data={others.map((p) => ({ value: p.id, label: `${p.number} ${p.name}` }))}
            value={null}
            onChange={(by) => by && session.act([replacePalette.of({ palette: id, by, merge: true })])}
            searchable
          />
          <Button
            ml="auto"
            size="compact-sm"
            color="red"
            variant="subtle"
            onClick={() => (session.act([deletePalette.of({ palette: id })]), onClose())}
          >
            Delete (users keep plain values)
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
