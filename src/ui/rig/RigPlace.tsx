"use client";

import { Button, Group, Tabs } from "@mantine/core";
import { IconPlus, IconTrash, IconUnlink } from "@tabler/icons-react";
import { useState } from "react";
import { splitItem } from "@/core/show/ids";
import { usesOf } from "@/core/patch/intents";
import { useSession, useShow } from "../useSession";
import { DmxView } from "./DmxView";
import { PatchDialog } from "./PatchDialog";
import { PatchTable } from "./PatchTable";
import classes from "./Rig.module.css";

/** The patch and the DMX it makes. */
export function RigPlace() {
  const session = useSession();
  const [patching, setPatching] = useState(false);
  const world = useShow((s) => s.world);
  const fixtures = [...new Set(world.hands.selection.map((i) => splitItem(i).fixture))];
  const numbers = fixtures.map((id) => world.show.fixtures[id]!.number).join(" + ");
  const uses = usesOf(world, fixtures);
  const along = uses.groups + uses.cues > 0 ? `Also from ${uses.groups} groups and ${uses.cues} cues. Can be undone` : "Can be undone";
  return (
    <div className={classes.rig}>
      <Tabs defaultValue="patch" keepMounted={false} className={classes.tabs}>
        <div className={classes.head}>
          <Tabs.List>
            <Tabs.Tab value="patch">Patch</Tabs.Tab>
            <Tabs.Tab value="dmx">DMX</Tabs.Tab>
          </Tabs.List>
          <Group gap={8}>
            {fixtures.length > 0 && (
              <>
                <span className="muted">{fixtures.length} selected</span>
                <Button size="compact-sm" variant="default" leftSection={<IconUnlink size={14} />} onClick={() => void session.run(`${numbers} unpatch`)}>Unpatch</Button>
                <Button size="compact-sm" variant="default" leftSection={<IconTrash size={14} />} title={along} onClick={() => void session.run(`remove ${numbers}`)}>Remove</Button>
              </>
            )}
            <Button size="compact-sm" leftSection={<IconPlus size={14} />} onClick={() => setPatching(true)} data-testid="patch-open">Patch fixtures</Button>
          </Group>
        </div>
        <Tabs.Panel value="patch" className={classes.panel}><PatchTable onPatch={() => setPatching(true)} /></Tabs.Panel>
        <Tabs.Panel value="dmx" className={classes.panel}><DmxView /></Tabs.Panel>
      </Tabs>
      <PatchDialog opened={patching} onClose={() => setPatching(false)} />
    </div>
  );
}
