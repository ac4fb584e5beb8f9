"use client";

import { Button, Modal, Stack } from "@mantine/core";
import { arm } from "@/core/program/intents";
import { groupUses } from "@/core/select/groupUses";
import type { Group } from "@/core/show/schema";
import { namingText } from "@/core/show/words/linesNaming";
import { plain } from "@/core/units/units";
import { usePlaces } from "@/ui/show/addresses/places";
import { useSession, useShow } from "@/ui/show/useSession";
import { plural } from "@/core/units/plural";

const MOST = 40;
const numbers = (all: readonly number[]): string =>
  all
    .slice(0, MOST)
    .map((n) => plain(n, 3))
    .join(", ") + (all.length > MOST ? ` and ${all.length - MOST} more` : "");

/** Where a group is used: cues that store something of its fixtures, and lines that name it. */
export function GroupUses({ group, onClose }: { group: Group; onClose(): void }) {
  const session = useSession();
  const { go } = usePlaces();
  const world = useShow((s) => s.world);
  const { lists, lines } = groupUses(world, group.id);
  const named = namingText(lines);
  return (
    <Modal opened onClose={onClose} centered title={`Where group ${group.number} ${group.name} is used`}>
      <Stack gap="sm">
        {lists.map(({ list, all, some }) => (
          <div key={list.id}>
            <Button
              size="compact-sm"
              variant="default"
              title="Go to its cues"
              onClick={() => {
                session.act([arm.of({ list: list.id })], "arm");
                go("cues");
              }}
            >
              {list.number} {list.name}
            </Button>
            {all.length > 0 && (
              <p className="num">
                all of it in {plural(all.length, "cue")}: {numbers(all)}
              </p>
            )}
            {some.length > 0 && (
              <p className="muted num">
                some of it in {plural(some.length, "cue")}: {numbers(some)}
              </p>
            )}
          </div>
        ))}
        {named && <p>Named {named}.</p>}
        {lists.length === 0 && !named && (
          <p className="muted">No cue stores values for its fixtures, and no macro line names it.</p>
        )}
      </Stack>
    </Modal>
  );
}
