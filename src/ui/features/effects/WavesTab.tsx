"use client";

import { ActionIcon, Button, Group, Modal, SegmentedControl, Stack, Table, Text, TextInput } from "@mantine/core";
import { IconPlus, IconTrash } from "@tabler/icons-react";
import { useRef, useState, type PointerEvent } from "react";
import { effectUses, effectUsesText } from "@/core/effect/users";
import { deleteWave, recordWave } from "@/core/effect/waveIntents";
import { drawnAt } from "@/core/effect/wave";
import { JOINS, type Drawn, type OwnWave } from "@/core/show/effectSchema";
import { wavesByNumber } from "@/core/show/world";
import { clamp } from "@/core/units/units";
import { NumberField } from "@/ui/show/NumberField";
import { useSession, useShow } from "@/ui/show/useSession";
import tiles from "@/ui/stage/pictures/Tiles.module.css";
import classes from "./Effects.module.css";
import voices from "@/ui/stage/pictures/Voices.module.css";

type Points = OwnWave["points"];

const pathOf = (drawn: Drawn, width: number, height: number): string =>
  Array.from({ length: 121 }, (_, i) => {
    const u = Math.min(i / 120, 1 - 1e-9);
    return `${i ? "L" : "M"}${((i / 120) * width).toFixed(1)} ${((1 - drawnAt(drawn, u)) * height).toFixed(1)}`;
  }).join(" ");

/** The show's own waves: drawn by points, or typed in a table. */
export function WavesTab({ search }: { search: string }) {
  const world = useShow((s) => s.world);
  const [open, setOpen] = useState<OwnWave | "new" | null>(null);
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = wavesByNumber(world.show).filter((w) => words.every((x) => w.name.toLowerCase().includes(x)));
  return (
    <>
      <ul className={tiles.tiles}>
        {found.map((wave) => {
          const uses = effectUsesText(effectUses(world, wave.id));
          return (
            <li key={wave.id} className={tiles.tile} data-width="any">
              <button
                type="button"
                className={tiles.press}
                title={`${wave.name}: press to change it${uses ? `; it runs ${uses}` : "; nothing runs it yet"}`}
                onClick={() => setOpen(wave)}
              >
                <span className="num">{wave.number}</span>
                <svg className={voices.mini} viewBox="-3 -4 102 34" preserveAspectRatio="none" aria-hidden>
                  <path d={pathOf(wave, 96, 26)} />
                  {wave.second && (
                    <path className={classes.second} d={pathOf({ ...wave, points: wave.second }, 96, 26)} />
                  )}
                </svg>
                <b>{wave.name}</b>
              </button>
            </li>
          );
        })}
        {!search && (
          <li className={tiles.place}>
            <button type="button" onClick={() => setOpen("new")}>
              <span /> <IconPlus size={16} aria-hidden /> <i>draw a wave</i>
            </button>
          </li>
        )}
      </ul>
      {open && <WaveDialog wave={open === "new" ? null : open} onClose={() => setOpen(null)} />}
    </>
  );
}

const SIZE = { width: 420, height: 190 };

function WaveDialog({ wave, onClose }: { wave: OwnWave | null; onClose(): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const [name, setName] = useState(wave?.name ?? "");
  const [join, setJoin] = useState(wave?.join ?? "smooth");
  const [tracks, setTracks] = useState<Points[]>([
    wave?.points ?? [
      [0, 0],
      [50, 100],
      [100, 0],
    ],
    ...(wave?.second ? [wave.second] : []),
  ]);
  const [track, setTrack] = useState(0);
  const points = tracks[track] ?? tracks[0]!;
  const put = (made: Points) => setTracks(tracks.map((t, k) => (k === track ? made : t)));
  const grabbed = useRef<number | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const placeOf = (e: PointerEvent): [number, number] => {
    const box = svg.current!.getBoundingClientRect();
    return [
      clamp(Math.round(((e.clientX - box.left) / box.width) * 200) / 2, 0, 100),
      clamp(Math.round((1 - (e.clientY - box.top) / box.height) * 200) / 2, 0, 100),
    ];
  };
  const moved = (k: number, [x, y]: [number, number]): Points =>
    points.map((p, i) => {
      if (i !== k) return p;
      const low = i === 0 ? 0 : points[i - 1]![0] + 0.5;
      const high = i === points.length - 1 ? 100 : points[i + 1]![0] - 0.5;
      return [clamp(x, low, high), y];
    });
  const press = (e: PointerEvent<SVGSVGElement>) => {
    const at = placeOf(e);
    const near = points.findIndex(([x, y]) => Math.hypot(x - at[0], (y - at[1]) * 0.6) < 4);
    e.currentTarget.setPointerCapture(e.pointerId);
    if (near >= 0) return void (grabbed.current = near);
    const made = [...points.filter(([x]) => Math.abs(x - at[0]) >= 0.5), at].sort((a, b) => a[0] - b[0]);
    grabbed.current = made.indexOf(at);
    put(made);
  };
  const uses = wave ? effectUsesText(effectUses(world, wave.id)) : "";
  const save = () => {
    const refused = session.act([
      recordWave.of({
        name: name.trim(),
        points: tracks[0]!,
        join,
        ...(tracks[1] ? { second: tracks[1] } : {}),
        ...(wave ? { wave: wave.id } : {}),
      }),
    ]);
    if (!refused) onClose();
  };
  return (
    <Modal opened onClose={onClose} size="lg" centered title={wave ? `Wave “${wave.name}”` : "Draw a wave"}>
      <Stack gap="sm">
        <Group gap="sm" align="end">
          <TextInput
            size="xs"
            label="Name"
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
            data-autofocus
          />
          <SegmentedControl
            size="xs"
            aria-label="How points are joined"
            data={JOINS.map((j) => ({ value: j, label: j }))}
            value={join}
            onChange={setJoin}
          />
          <SegmentedControl
            size="xs"
            aria-label="Track"
            data={[
              { value: "0", label: "track 1" },
              { value: "1", label: tracks[1] ? "track 2" : "+ track 2" },
            ]}
            value={String(track)}
            onChange={(v) => {
              if (v === "1" && !tracks[1])
                setTracks([
                  tracks[0]!,
                  [
                    [0, 50],
                    [25, 100],
                    [75, 0],
                    [100, 50],
                  ],
                ]);
              setTrack(Number(v));
            }}
          />
          {tracks[1] && (
            <Button
              size="compact-sm"
              variant="subtle"
              color="gray"
              onClick={() => (setTracks([tracks[0]!]), setTrack(0))}
            >
              One track
            </Button>
          )}
        </Group>
        <Group align="start" wrap="nowrap" gap="md">
          <svg
            ref={svg}
            className={classes.drawing}
            viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
            role="img"
            aria-label="The wave: press to add a point, drag to move one"
            onPointerDown={press}
            onPointerMove={(e) => grabbed.current !== null && put(moved(grabbed.current, placeOf(e)))}
            onPointerUp={() => (grabbed.current = null)}
          >
            {tracks.map((t, k) => (
              <path
                key={k}
                className={k === track ? undefined : classes.second}
                d={pathOf({ points: t, join }, SIZE.width, SIZE.height)}
              />
            ))}
            {points.map(([x, y], k) => (
              <circle key={k} cx={(x / 100) * SIZE.width} cy={(1 - y / 100) * SIZE.height} r={6} />
            ))}
          </svg>
          <div className={classes.points}>
            <Table verticalSpacing={2} aria-label="Points">
              <Table.Thead>
                <Table.Tr>
                  <Table.Th>Place %</Table.Th>
                  <Table.Th>Height %</Table.Th>
                  <Table.Th />
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {points.map(([x, y], k) => (
                  <Table.Tr key={k}>
                    <Table.Td>
                      <NumberField
                        size="xs"
                        w={64}
                        aria-label={`Place of point ${k + 1}`}
                        min={0}
                        max={100}
                        step={0.5}
                        value={x}
                        onSet={(v) => put(moved(k, [v, y]))}
                      />
                    </Table.Td>
                    <Table.Td>
                      <NumberField
                        size="xs"
                        w={64}
                        aria-label={`Height of point ${k + 1}`}
                        min={0}
                        max={100}
                        step={0.5}
                        value={y}
                        onSet={(v) => put(moved(k, [x, v]))}
                      />
                    </Table.Td>
                    <Table.Td>
                      <ActionIcon
                        size="sm"
                        variant="subtle"
                        color="gray"
                        aria-label={`Remove point ${k + 1}`}
                        disabled={points.length <= 1}
                        onClick={() => put(points.filter((_, i) => i !== k))}
                      >
                        <IconTrash size={13} />
                      </ActionIcon>
                    </Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          </div>
        </Group>
        <Text size="sm" c="dimmed">
          Press in the picture to add a point, drag to move one. {uses ? `It runs ${uses}: all of them follow.` : ""} A
          second track drives the next voice that runs the wave.
        </Text>
        <Group>
          <Button size="compact-md" disabled={!name.trim()} onClick={save}>
            {wave ? "Keep" : "Record the wave"}
          </Button>
          {wave && (
            <Button
              ml="auto"
              size="compact-sm"
              color="red"
              variant="subtle"
              onClick={() => (session.act([deleteWave.of({ wave: wave.id })]), onClose())}
            >
              Delete{uses ? "; what runs it keeps its points" : ""}
            </Button>
          )}
        </Group>
      </Stack>
    </Modal>
  );
}
