"use client";

import { Button, Group, Modal, ScrollArea, Stack, Text } from "@mantine/core";
import { updateCue } from "@/core/cue/intents/recordIntents";
import type { Intent } from "@/core/show/change/intent";
import type { Cue, CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { useForesightOf } from "@/ui/show/foresight/useForesight";
import { RipplePairs } from "@/ui/stage/pictures/RipplePairs";
import { capital } from "@/ui/base/typed/capital";
import { useSession } from "@/ui/show/useSession";
import { plural } from "@/core/units/plural";

/** What an update would write into a cue and which later looks it changes, in pictures, before it is done. */
export function UpdateCue({ list, cue, onClose }: { list: CueList; cue: Cue; onClose(): void }) {
  const session = useSession();
  const intents = [updateCue.of({ list: list.id, cue: cue.id, all: false })];
  const found = useForesightOf(intents);
  const others = found.ripple.filter((r) => r.list !== list.id || r.cue !== cue.id);
  const done = (made: readonly Intent[]) => void (session.act(made) ?? onClose());
  return (
    <Modal opened onClose={onClose} centered size={780} title={`Update cue ${plain(cue.number, 3)} ${cue.name}`}>
      <Stack gap="sm">
        <Text size="sm" data-testid="update-says">
          {capital(found.says)}
          {found.known && !found.refused && others.length === 0 && ". No later look changes."}
        </Text>
        {others.length > 0 && (
          <>
            <Text size="sm" c="dimmed">
              {plural(others.length, "later look")} {others.length === 1 ? "changes" : "change"}: now, and after.
            </Text>
            <ScrollArea.Autosize mah={340}>
              <RipplePairs ripple={others} then={found} width={104} height={72} most={40} />
            </ScrollArea.Autosize>
          </>
        )}
        <Group justify="flex-end">
          {found.keeps && others.length > 0 && (
            <Button variant="default" onClick={() => found.keeps && done(found.keeps)}>
              Update, keep later looks
            </Button>
          )}
          <Button data-autofocus disabled={!found.known || found.refused} onClick={() => done(intents)}>
            Update
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
