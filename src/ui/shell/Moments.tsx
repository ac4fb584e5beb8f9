"use client";

import { Button, Group, Modal, Stack, Text } from "@mantine/core";
import { useCallback, useEffect, useState } from "react";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { restoreShow } from "@/core/show/restore";
import { keepMoment, listMoments, openMoment, type Moment } from "@/session/storage/moments";
import { useSession } from "../useSession";

/** Earlier versions of the show; going back is one step of undo. */
export function Moments({ opened, onClose }: { opened: boolean; onClose(): void }) {
  const session = useSession();
  const [moments, setMoments] = useState<Moment[] | null>(null);
  const refresh = useCallback(async () => setMoments(await listMoments(session.id)), [session]);
  useEffect(() => {
    if (opened) void refresh();
  }, [opened, refresh]);

  const keep = async () => {
    await keepMoment(session.id, "Kept by hand", session.store.getState().world.show);
    await refresh();
  };
  const goBack = async (at: number) => {
    const show = await openMoment(session.id, at);
    if (isRefusal(show)) return session.tell(refusalText(show), "refused");
    await keepMoment(session.id, "Before going back", session.store.getState().world.show);
    if (session.act([restoreShow.of({ show })], "goes back to an earlier version")) return;
    session.tell("The show is as it was then. Undo brings back what was.");
    onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} title="Earlier moments" centered size="lg">
      <Stack gap="xs">
        <Group justify="space-between">
          <Text size="sm" c="dimmed">
            Kept when a show is opened and every ten minutes. Going back can be undone.
          </Text>
          <Button size="compact-sm" onClick={() => void keep()}>
            Keep this moment
          </Button>
        </Group>
        {moments?.length === 0 && <Text c="dimmed">No moments yet. The first is kept when something has changed.</Text>}
        {moments?.map((m) => (
          <Group key={m.at} justify="space-between" wrap="nowrap" data-testid="moment">
            <Text size="sm">
              {new Date(m.at).toLocaleString()} · {m.name} · {m.fixtures} fixtures, {m.cues} cues
            </Text>
            <Button size="compact-sm" variant="default" onClick={() => void goBack(m.at)}>
              Go back to it
            </Button>
          </Group>
        ))}
      </Stack>
    </Modal>
  );
}
