"use client";

import { Button, Checkbox, Group, Progress, ScrollArea, SegmentedControl, Stack, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { importFixtures } from "@/core/exchange/importIntent";
import { piecesNew, planMvr } from "@/core/exchange/mvr/plan";
import type { MvrRead } from "@/core/exchange/mvr/read";
import { addressText } from "@/core/show/address";
import { plural } from "../../parts/words";
import { useSession, useShow } from "../../useSession";
import classes from "./Import.module.css";

interface Props {
  name: string;
  read: MvrRead;
  onBack(): void;
  onClose(): void;
}

const A_PIECE = 500;
const SHOWN = 400;

/** A rig from an MVR file: fixture by fixture what is new and what would change, before it is done. */
export function MvrStep({ name, read, onBack, onClose }: Props) {
  const session = useSession();
  const live = useShow((s) => s.world.show);
  const [show] = useState(live);
  const [how, setHow] = useState<"add" | "update">("update");
  const [scenery, setScenery] = useState(true);
  const [running, setRunning] = useState<number | null>(null);
  const plan = useMemo(() => planMvr(show, read, how), [show, read, how]);
  const pieces = useMemo(() => piecesNew(show, read.pieces), [show, read]);
  const fresh = plan.rows.filter((r) => r.updates === null);
  const changed = plan.rows.filter((r) => r.updates !== null && (r.changes.length > 0 || r.problem));
  const same = plan.rows.length - fresh.length - changed.length;
  const come = [...changed, ...fresh];
  const bring = async () => {
    setRunning(0);
    const rows = (some: typeof come) => some.map(({ updates, fixture }) => ({ updates, fixture }));
    const first = importFixtures.of({ rows: rows(changed), types: plan.types, pieces: scenery ? pieces : [] });
    const rest = Array.from({ length: Math.ceil(fresh.length / A_PIECE) }, (_, k) =>
      importFixtures.of({ rows: rows(fresh.slice(k * A_PIECE, (k + 1) * A_PIECE)) }),
    );
    const all = [first, ...rest];
    const refused = await session.actInPieces({
      pieces: all.map((intent) => [intent]),
      says: `brings in the rig of ${name}`,
      progress: (done) => (setRunning(done / all.length), true),
    });
    setRunning(null);
    if (refused !== undefined) return;
    session.tell(
      `${plural(fresh.length, "new fixture")}, ${changed.length} changed, from ${name}. One undo takes it back`,
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
          aria-label="What happens to fixtures that are there already"
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
                  Every fixture of the file is here already, as it is there.
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
        <Button
          onClick={() => void bring()}
          disabled={come.length === 0 && !(scenery && pieces.length > 0)}
          data-autofocus
        >
          Bring it in
        </Button>
      </Group>
    </Stack>
  );
}
