"use client";

import { ActionIcon, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useState } from "react";
import { blockCue, deleteCue, setCue, unblockCue } from "@/core/cue/intents";
import { reachMore } from "@/core/cue/reach";
import { takeCue, updateCue } from "@/core/cue/recordIntents";
import type { Cue, CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { useSession } from "../useSession";
import { CopyDialog } from "./CopyDialog";

/** What can be done with a cue. */
export function CueMenu({ list, cue }: { list: CueList; cue: Cue }) {
  const session = useSession();
  const [copying, setCopying] = useState(false);
  const number = plain(cue.number, 3);
  const here = { list: list.id, cue: cue.id };
  const set = (change: Omit<Parameters<typeof setCue.of>[0], "list" | "cue">) =>
    session.act([setCue.of({ ...here, ...change })]);
  return (
    <>
      {copying && <CopyDialog list={list} cue={cue} onClose={() => setCopying(false)} />}
      <Menu position="bottom-end">
        <Menu.Target>
          <ActionIcon variant="subtle" color="gray" aria-label={`More for cue ${number}`}>
            <IconDots size={16} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => void session.event({ kind: "go", ...here })}>Go to this cue</Menu.Item>
          <Menu.Item onClick={() => void session.event({ kind: "next", ...here })}>Make it the next</Menu.Item>
          <Menu.Divider />
          <Menu.Item onClick={() => session.act([takeCue.of({ ...here, all: false })])}>
            Take it into the programmer
          </Menu.Item>
          <Menu.Item onClick={() => session.act([updateCue.of({ ...here, all: false, cueOnly: false })])}>
            Update it with what is held
          </Menu.Item>
          <Menu.Item onClick={() => setCopying(true)}>Copy to …</Menu.Item>
          <Menu.Item onClick={() => session.act([blockCue.of(here)])}>Block: store everything in force</Menu.Item>
          <Menu.Item onClick={() => session.act([unblockCue.of(here)])}>Unblock: drop what would track in</Menu.Item>
          <Menu.Item onClick={() => set({ fresh: !cue.fresh })}>
            {cue.fresh ? "Let earlier cues track in" : "Fresh start: nothing tracks in"}
          </Menu.Item>
          <Menu.Item onClick={() => set({ assert: !cue.assert })}>
            {cue.assert ? "Stamp only what moves" : "Assert: stamp everything in force"}
          </Menu.Item>
          <Menu.Item onClick={() => set({ reach: cue.reach ? null : reachMore(list, cue.id, 1) })}>
            {cue.reach ? "Reach all later cues" : "Reach only the next cue"}
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item onClick={() => session.act([deleteCue.of({ ...here, keepLooks: true })])}>
            Delete, later looks stay
          </Menu.Item>
          <Menu.Item onClick={() => session.act([deleteCue.of({ ...here, keepLooks: false })])}>
            Delete, let it track
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </>
  );
}
