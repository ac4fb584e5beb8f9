"use client";

import { Button, Group, Modal, NumberInput, Stack, Text } from "@mantine/core";
import { useState } from "react";

interface Props {
  title: string;
  label: string;
  description?: string;
  start: number | "";
  min: number;
  max: number;
  step?: number;
  /** Whether it may have a fraction. */
  fraction?: boolean;
  button: string;
  /** What would be done with a number, in words or as its line. */
  says?(n: number): string;
  /** @returns whether it could not be done: then the dialog stays. */
  onDone(n: number): unknown;
  onClose(): void;
}

/** One number asked for in a small dialog: menus hold no fields. */
export function AskNumber({
  title,
  label,
  description,
  start,
  min,
  max,
  step = 1,
  fraction = false,
  button,
  says,
  onDone,
  onClose,
}: Props) {
  const [n, setN] = useState<number | string>(start);
  const fits = typeof n === "number" && n >= min && n <= max;
  return (
    <Modal opened onClose={onClose} centered title={title} size="sm">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (fits && !onDone(n)) onClose();
        }}
      >
        <Stack gap="sm">
          <NumberInput
            data-autofocus
            label={label}
            description={description}
            min={min}
            max={max}
            step={step}
            allowDecimal={fraction}
            clampBehavior="none"
            error={n !== "" && !fits ? `From ${min.toLocaleString("en")} to ${max.toLocaleString("en")}` : undefined}
            value={n}
            onChange={setN}
            onFocus={(e) => e.currentTarget.select()}
          />
          {says && fits && (
            <Text size="sm" c="dimmed">
              {says(n)}
            </Text>
          )}
          <Group justify="flex-end">
            <Button type="submit" disabled={!fits}>
              {button}
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
