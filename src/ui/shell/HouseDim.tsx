"use client";

import {
  ActionIcon,
  Popover,
  SegmentedControl,
  Slider,
  Stack,
  Text,
  Tooltip,
  useMantineColorScheme,
} from "@mantine/core";
import { IconMoon } from "@tabler/icons-react";
import { useState } from "react";
import { create } from "zustand";
import { useEscape } from "@/ui/base/gestures/useEscape";
import classes from "./Shell.module.css";

const useHouse = create<{ level: number; set(level: number): void }>((set) => ({
  level: 100,
  set: (level) => set({ level }),
}));

/** Takes the whole interface down to a glimmer for the dark. */
export function HouseDim() {
  const { level, set } = useHouse();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const [opened, setOpened] = useState(false);
  useEscape(opened, () => setOpened(false));
  return (
    <Popover width={280} position="bottom-end" shadow="md" opened={opened} onChange={setOpened}>
      <Popover.Target>
        <Tooltip label="House dim, dark or daylight">
          <ActionIcon variant="subtle" color="gray" aria-label="House dim" onClick={() => setOpened(!opened)}>
            <IconMoon size={18} />
          </ActionIcon>
        </Tooltip>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap="xs">
          <Text size="sm">House dim: {level} %</Text>
          <Slider
            thumbLabel="House dim"
            aria-label="House dim"
            min={8}
            max={100}
            value={level}
            onChange={set}
            label={null}
          />
          <Text size="sm">Dark or daylight</Text>
          <SegmentedControl
            size="xs"
            aria-label="Dark or daylight"
            value={colorScheme}
            onChange={(v) => setColorScheme(v)}
            data={[
              { value: "auto", label: "As the system" },
              { value: "dark", label: "Dark" },
              { value: "light", label: "Daylight" },
            ]}
          />
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}

function Veil() {
  const level = useHouse((s) => s.level);
  return <div className={classes.veil} style={{ opacity: 1 - level / 100 }} aria-hidden />;
}
HouseDim.Veil = Veil;
