"use client";

import { Button, Group, Modal, NumberInput, Stack } from "@mantine/core";
import { useState } from "react";
import { GUARD_MS, useGuard } from "./goOnce";

/** How soon a go pressed again counts as the same press. */
export function GuardDialog({ onClose }: { onClose(): void }) {
  const [guard, setGuard] = useGuard();
  const [wanted, setWanted] = useState<number | string>(guard);
  const fits = typeof wanted === "number" && wanted >= 0 && wanted <= 2000;
  return (
    <Modal opened onClose={onClose} centered title="Go pressed twice" size="sm">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (!fits) return;
          setGuard(Math.round(wanted));
          onClose();
        }}
      >
        <Stack gap="sm">
          <NumberInput
            data-autofocus
            label="A go pressed again within, ms, is the same"
            description={`${GUARD_MS} at first; 0 takes every press`}
            min={0}
            max={2000}
            step={50}
            value={wanted}
            onChange={setWanted}
          />
          <Group justify="flex-end">
            <Button type="submit" disabled={!fits}>
              Keep
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
