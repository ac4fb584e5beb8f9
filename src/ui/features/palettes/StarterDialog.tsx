"use client";

import { Button, Checkbox, Modal, ScrollArea, Stack, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { startGroups, starterGroups } from "@/core/select/starterGroups";
import { startPalettes } from "@/core/palette/startIntent";
import { startersFor } from "@/core/palette/starters";
import { grouped } from "@/core/units/grouped";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Palettes.module.css";
import { plural } from "@/core/units/plural";

/** Palettes the rig offers, with ticks: seen before they are recorded, and never a double. */
export function StarterDialog({ onClose }: { onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const offered = useMemo(() => startersFor(show), [show]);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const chosen = offered.filter((s) => !left.has(s.name));
  const tick = (names: readonly string[], on: boolean) => {
    const next = new Set(left);
    for (const name of names)
      if (on) next.delete(name);
      else next.add(name);
    setLeft(next);
  };
  const [byType, setByType] = useState(true);
  const groups = useMemo(() => starterGroups(show), [show]);
  const grouping = byType && groups.length > 0;
  const record = () => {
    const palettes =
      chosen.length > 0 ? [startPalettes.of(left.size > 0 ? { names: chosen.map((s) => s.name) } : {})] : [];
    if (!session.act([...palettes, ...(grouping ? [startGroups.of({})] : [])])) onClose();
  };
  return (
    <Modal opened onClose={onClose} size="xl" centered title="Starter palettes">
      <Stack gap="sm">
        <Text size="sm" c="dimmed">
          {offered.length > 0
            ? "Worked out from the rig: its wheels, what mixes colour, its ranges, and points over the plan. What is there already is left out."
            : "The rig offers no others."}
        </Text>
        <ScrollArea.Autosize mah={420}>
          {[...grouped(offered, (s) => s.family)].map(([family, own]) => (
            <fieldset key={family} className={classes.starters}>
              <legend>
                <Checkbox
                  label={`${family} (${own.length})`}
                  checked={own.every((s) => !left.has(s.name))}
                  indeterminate={own.some((s) => left.has(s.name)) && own.some((s) => !left.has(s.name))}
                  onChange={(e) =>
                    tick(
                      own.map((s) => s.name),
                      e.currentTarget.checked,
                    )
                  }
                />
              </legend>
              {own.map((s) => (
                <Checkbox
                  key={s.name}
                  size="xs"
                  label={`${s.number} ${s.name}`}
                  checked={!left.has(s.name)}
                  onChange={(e) => tick([s.name], e.currentTarget.checked)}
                />
              ))}
            </fieldset>
          ))}
        </ScrollArea.Autosize>
        {groups.length > 0 && (
          <Checkbox
            label={`Groups by type too: ${groups.map((g) => `${g.name} (${g.members.length})`).join(", ")}`}
            checked={byType}
            onChange={(e) => setByType(e.currentTarget.checked)}
          />
        )}
        <Button disabled={chosen.length === 0 && !grouping} onClick={record}>
          Record{" "}
          {[chosen.length > 0 && plural(chosen.length, "palette"), grouping && plural(groups.length, "group")]
            .filter(Boolean)
            .join(" and ") || "nothing"}
        </Button>
      </Stack>
    </Modal>
  );
}
