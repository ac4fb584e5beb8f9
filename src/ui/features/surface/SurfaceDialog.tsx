"use client";

import { Button, Group, Modal, NumberInput, Stack, Switch, Table, Text } from "@mantine/core";
import { doesText } from "@/core/surface/mapping";
import { OSC_ADDRESSES } from "@/core/surface/osc";
import { plain } from "@/core/units/units";
import { knowsMidi } from "@/session/midi";
import { useShow } from "@/ui/show/useSession";
import { useMappings, useOscIn, useOscOut, useSurfaceState } from "./useSurface";

/** Control surfaces: what is heard, what its controls do, learned by pressing here and moving there. */
export function SurfaceDialog({ opened, onClose }: { opened: boolean; onClose(): void }) {
  const show = useShow((s) => s.world.show);
  const osc = useShow((s) => s.wire.bridge?.osc);
  const [hears, setHears] = useOscIn();
  const { ports, wantsPorts, last } = useSurfaceState();
  const [mappings, setMappings] = useMappings();
  const [out, setOut] = useOscOut();
  const learn = () => {
    useSurfaceState.setState({ learns: true, wanted: null });
    onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} title="Control surfaces" centered size="lg">
      <Stack gap="sm">
        <Group gap="xs">
          <Button size="compact-sm" onClick={learn}>
            Learn: press here, move there
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => window.open("/standin/surface", "bold-comet-surface", "popup,width=560,height=420")}
          >
            Open the stand-in surface
          </Button>
          <Switch
            size="xs"
            label="Listen to MIDI ports of this machine"
            description={knowsMidi() ? undefined : "This browser has no MIDI. Chromium has."}
            disabled={!knowsMidi()}
            checked={wantsPorts}
            onChange={(e) => useSurfaceState.setState({ wantsPorts: e.currentTarget.checked })}
          />
        </Group>
        <Text size="sm" c="dimmed" data-testid="surface-last">
          {ports.length > 0 ? `Heard: ${ports.join(", ")}. ` : ""}
          {last ? `Last moved: ${last.control}, ${plain(last.value * 100, 0)} %.` : "Nothing was moved yet."}
        </Text>
        <Table verticalSpacing={2} aria-label="What controls do">
          <Table.Tbody>
            {mappings.map((m) => (
              <Table.Tr key={m.control}>
                <Table.Td className="num">{m.control}</Table.Td>
                <Table.Td>{doesText(show, m.to)}</Table.Td>
                <Table.Td>
                  <Button
                    size="compact-xs"
                    variant="subtle"
                    color="gray"
                    onClick={() => setMappings(mappings.filter((o) => o !== m))}
                  >
                    forget
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        {mappings.length === 0 && (
          <Text c="dimmed">
            No control is learned yet. A fader takes over once it passes the level, so nothing jumps.
          </Text>
        )}
        <Text size="sm" fw={600}>
          Open Sound Control, on this machine only
        </Text>
        <Group gap="sm">
          <Switch
            size="xs"
            label="Listen for Open Sound Control"
            checked={hears}
            onChange={(e) => setHears(e.currentTarget.checked)}
          />
          <Text size="sm" c="dimmed" data-testid="osc-in">
            {!hears
              ? "Off: not listening."
              : typeof osc === "number"
                ? `Heard at 127.0.0.1, UDP port ${osc}: the addresses below and those you have learned, no others.`
                : osc === "taken"
                  ? "Not heard: another program has its port. Close that one, then turn this off and on."
                  : "Not heard yet: the bridge is not reached."}
          </Text>
        </Group>
        <Table verticalSpacing={1} aria-label="OSC addresses">
          <Table.Tbody>
            {OSC_ADDRESSES.map(([address, does]) => (
              <Table.Tr key={address}>
                <Table.Td className="num">{address}</Table.Td>
                <Table.Td>{does}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        <NumberInput
          size="xs"
          w={260}
          label="Send levels and cues to this port; 0 for none"
          min={0}
          max={65535}
          value={out}
          onChange={(v) => typeof v === "number" && setOut(Math.round(v))}
        />
      </Stack>
    </Modal>
  );
}
