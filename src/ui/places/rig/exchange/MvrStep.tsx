"use client";

import { Button, Checkbox, Group, Progress, ScrollArea, SegmentedControl, Stack, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { importFixtures } from "@/core/exchange/importIntent";
import { groupsNew, pointsNew } from "@/core/exchange/mvr/parts";
import { bringParts, type POINTS_AS } from "@/core/exchange/mvr/partsIntent";
import { piecesNew, planMvr } from "@/core/exchange/mvr/plan";
import type { MvrRead } from "@/core/exchange/mvr/read";
import { addressText } from "@/core/show/address";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Import.module.css";
import { plural } from "@/core/units/plural";

interface Props {
  name: string;
  read: MvrRead;
  onBack(): void;
  onClose(): void;
}

/** The first few by name. */
const named = (parts: readonly { name: string }[]): string =>
  `${parts
    .slice(0, 4)
    .map((p) => p.name)
    .join(", ")}${parts.length > 4 ? " ..." : ""}`;

const A_PIECE = 500;
const SHOWN = 400;

/** A rig from an MVR file: fixture by fixture what is new and what would change, before it is done. */
export function MvrStep({ name, read, onBack, onClose }: Props) {
  const session = useSession();
  const live = useShow((s) => s.world.show);
  const [show] = useState(live);
  const [how, setHow] = useState<"add" | "update">("update");
  const [scenery, setScenery] = useState(true);
  const [layers, setLayers] = useState(false);
  const [groups, setGroups] = useState(true);
  const [points, setPoints] = useState<(typeof POINTS_AS)[number] | "none">("aim");
  const [running, setRunning] = useState<number | null>(null);
  const plan = useMemo(() => planMvr(show, read, how), [show, read, how]);
  const pieces = useMemo(() => piecesNew(show, read.pieces), [show, read]);
  const parts = useMemo(
    () => ({
      layers: groupsNew(show, read, plan, "layer"),
      groups: groupsNew(show, read, plan, "group"),
      points: pointsNew(show, read, plan),
    }),
    [show, read, plan],
  );
  const wanted = {
    groups: [...(layers ? parts.layers : []), ...(groups ? parts.groups : [])],
    points: points === "none" ? [] : parts.points,
  };
  const hasParts = wanted.groups.length + wanted.points.length > 0;
  const fresh = plan.rows.filter((r) => r.updates === null);
  const changed = plan.rows.filter((r) => r.updates !== null && (r.changes.length > 0 || r.problem));
  const same = plan.rows.length - fresh.length - changed.length;
  const come = [...changed, ...fresh];
  const hasRows = come.length > 0 || (scenery && pieces.length > 0);
  const bring = async () => {
    setRunning(0);
    const rows = (some: typeof come) => some.map(({ updates, fixture }) => ({ updates, fixture }));
    const first = importFixtures.of({ rows: rows(changed), types: plan.types, pieces: scenery ? pieces : [] });
    const rest = Array.from({ length: Math.ceil(fresh.length / A_PIECE) }, (_, k) =>
      importFixtures.of({ rows: rows(fresh.slice(k * A_PIECE, (k + 1) * A_PIECE)) }),
    );
    const all = [
      ...(hasRows ? [first, ...rest] : []),
      ...(hasParts ? [bringParts.of({ ...wanted, as: points === "none" ? "aim" : points })] : []),
    ];
    const refused = await session.actInPieces({
      pieces: all.map((intent) => [intent]),
      says: `brings in the rig of ${name}`,
      progress: (done) => (setRunning(done / all.length), true),
    });
    setRunning(null);
    if (refused !== undefined) return;
    session.tell(
      `${plural(fresh.length, "new fixture")}, ${changed.length} changed${wanted.groups.length > 0 ? `, ${plural(wanted.groups.length, "group")}` : ""}${wanted.points.length > 0 ? `, ${plural(wanted.points.length, "position palette")}` : ""}, from ${name}. One undo takes it back`,
    );
    onClose();
  };
  if (running !== null)
    return (
      <Stack>
        <Text>{Math.round(running * 100)} % is worked out. All of it comes in together at the end.</Text>
        <Progress value={running * 100} aria-label="Import" />
      </Stack>
    );
  return (
    <Stack gap="sm">
      <Group>
        <Text>
          {name}: {plural(read.fixtures.length, "fixture")}, {plural(Object.keys(plan.types).length, "type")},{" "}
          {plural(read.pieces.length, "set piece")}
        </Text>
        <SegmentedControl
          size="xs"
          ml="auto"
          aria-label="Existing fixtures"
          data={[
            { value: "update", label: "Add and update" },
            { value: "add", label: "Only add new ones" },
          ]}
          value={how}
          onChange={(v) => setHow(v)}
        />
      </Group>
      <Text size="sm" c="dimmed" data-testid="mvr-counts">
        {plural(fresh.length, "new fixture")}, {changed.length} changed, {how === "add" ? plan.left : same} as they are.
        Fixtures are known by their id in files, else by their number.
      </Text>
      <ScrollArea.Autosize mah={300} className={classes.preview}>
        <table>
          <thead>
            <tr>
              <th>No.</th>
              <th>Name</th>
              <th>Type</th>
              <th>Address</th>
              <th>What changes</th>
            </tr>
          </thead>
          <tbody>
            {come.slice(0, SHOWN).map((row) => (
              <tr key={`${row.fixture.number} ${row.updates}`}>
                <td className="num">{row.fixture.number}</td>
                <td>{row.fixture.name}</td>
                <td>
                  {row.read.type.model} · {row.fixture.mode}
                </td>
                <td className="num">{row.fixture.addresses.map(addressText).join(" + ") || "unpatched"}</td>
                <td>
                  {row.updates === null ? "new" : row.changes.map((c) => `${c.what} ${c.from} → ${c.to}`).join(", ")}
                  {row.problem && <span style={{ color: "var(--caution)" }}> {row.problem}</span>}
                </td>
              </tr>
            ))}
            {come.length === 0 && (
              <tr>
                <td colSpan={5} className="muted">
                  Every fixture in the file is already here, unchanged.
                </td>
              </tr>
            )}
          </tbody>
        </table>
        {come.length > SHOWN && <Text size="sm">and {come.length - SHOWN} more</Text>}
      </ScrollArea.Autosize>
      {pieces.length > 0 && (
        <Checkbox
          size="xs"
          label={`${plural(pieces.length, "truss or set piece", "trusses and set pieces")} too`}
          checked={scenery}
          onChange={(e) => setScenery(e.currentTarget.checked)}
        />
      )}
      {parts.groups.length > 0 && (
        <Checkbox
          size="xs"
          label={`${plural(parts.groups.length, "group")}: ${named(parts.groups)}`}
          checked={groups}
          onChange={(e) => setGroups(e.currentTarget.checked)}
        />
      )}
      {parts.layers.length > 0 && (
        <Checkbox
          size="xs"
          label={`${plural(parts.layers.length, "layer as a group", "layers as groups")}: ${named(parts.layers)}`}
          checked={layers}
          onChange={(e) => setLayers(e.currentTarget.checked)}
        />
      )}
      {parts.points.length > 0 && (
        <Group gap="xs">
          <Text size="sm">
            {plural(parts.points.length, "focus point")}: {named(parts.points)}
          </Text>
          <SegmentedControl
            size="xs"
            ml="auto"
            aria-label="Focus points become"
            data={[
              { value: "aim", label: "Palettes that aim there" },
              { value: "degrees", label: "Palettes of pan and tilt" },
              { value: "none", label: "Leave out" },
            ]}
            value={points}
            onChange={(v) => setPoints(v)}
          />
        </Group>
      )}
      {read.notes.length > 0 && (
        <ScrollArea.Autosize mah={110}>
          {read.notes.map((n) => (
            <Text key={n} size="sm" c="var(--caution)">
              {n}
            </Text>
          ))}
        </ScrollArea.Autosize>
      )}
      <Group justify="flex-end">
        <Button variant="default" onClick={onBack}>
          Another file
        </Button>
        <Button onClick={() => void bring()} disabled={!hasRows && !hasParts} data-autofocus>
          Import
        </Button>
      </Group>
    </Stack>
  );
}
