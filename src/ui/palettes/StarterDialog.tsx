"use client";

import { Button, Checkbox, Modal, ScrollArea, Stack, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { startPalettes } from "@/core/palette/startIntent";
import { startersFor } from "@/core/palette/starters";
import { several } from "@/core/palette/words";
import { grouped } from "@/core/units/grouped";
import { useSession, useShow } from "../useSession";
import classes from "./Palettes.module.css";

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
  const record = () => {
    const intent = startPalettes.of(left.size > 0 ? { names: chosen.map((s) => s.name) } : {});
    if (!session.act([intent])) onClose();
  };
  return (
    <Modal opened onClose={onClose} size="xl" centered title="Palettes to begin with">
      <Stack gap="sm">
        <Text size="sm" c="dimmed">
          {offered.length > 0
            ? "Worked out from the rig: its wheels, what mixes colour, its ranges, and points over the plan. What is there already is left out."
            : "The rig offers none that are not there already."}
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
        <Button disabled={chosen.length === 0} onClick={record}>
          Record {several(chosen.length, "palette")}
        </Button>
      </Stack>
    </Modal>
  );
}
