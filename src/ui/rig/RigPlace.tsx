"use client";

import { Button, Group, Menu, Tabs } from "@mantine/core";
import { IconFileExport, IconFileImport, IconPlus, IconTrash, IconUnlink } from "@tabler/icons-react";
import { useState } from "react";
import { z } from "@/core/units/zod";
import { writePatch } from "@/core/exchange/patchTable";
import { splitItem } from "@/core/show/ids";
import { remove, unpatch, usesOf } from "@/core/patch/intents";
import { plural } from "../parts/words";
import { saveFile } from "../parts/saveFile";
import { usePrefs } from "../parts/usePrefs";
import { useSession, useShow } from "../useSession";
import { ImportDialog } from "./exchange/ImportDialog";
import { printPatchSheet } from "./exchange/patchSheet";
import { Library } from "./library/Library";
import { PatchDialog } from "./PatchDialog";
import { PatchTable } from "./patch/PatchTable";
import { PlanEditor } from "./plan/PlanEditor";
import { UniverseMap } from "./universes/UniverseMap";
import { Outputs } from "./wire/Outputs";
import { WireMonitor } from "./wire/WireMonitor";
import classes from "./Rig.module.css";

/** Where the tab chosen last is remembered. */
export const RIG_TAB = "bold-comet-rig-tab";
const TABS = ["patch", "library", "universes", "plan", "outputs", "wire"] as const;
const TITLES: Record<(typeof TABS)[number], string> = {
  patch: "Patch",
  library: "Library",
  universes: "Universes",
  plan: "Plan",
  outputs: "Outputs",
  wire: "Wire",
};

/** The rig: what hangs, of which types, at which addresses, where, and how it is reached. */
export function RigPlace() {
  const session = useSession();
  const [tab, setTab] = usePrefs<(typeof TABS)[number]>(RIG_TAB, z.enum(TABS), "patch");
  const [patching, setPatching] = useState<{ type: string; mode: string } | "any" | null>(null);
  const [importing, setImporting] = useState(false);
  const world = useShow((s) => s.world);
  const fixtures = [...new Set(world.hands.selection.map((i) => splitItem(i).fixture))];
  const uses = usesOf(world, fixtures);
  const along =
    uses.groups + uses.cues > 0
      ? `Also from ${plural(uses.groups, "group")} and ${plural(uses.cues, "cue")}. Can be undone`
      : "Can be undone";
  const exportCsv = () =>
    saveFile(`${world.show.name || "show"} patch.csv`, new TextEncoder().encode(writePatch(world.show)), "text/csv");
  return (
    <div className={classes.rig}>
      <Tabs value={tab} onChange={(v) => v && setTab(v as typeof tab)} keepMounted={false} className={classes.tabs}>
        <div className={classes.head}>
          <Tabs.List>
            {TABS.map((id) => (
              <Tabs.Tab key={id} value={id}>
                {TITLES[id]}
              </Tabs.Tab>
            ))}
          </Tabs.List>
          <Group gap={8} wrap="nowrap">
            {fixtures.length > 0 && (
              <>
                <span className="muted">{fixtures.length} selected</span>
                <Button
                  size="compact-sm"
                  variant="default"
                  leftSection={<IconUnlink size={14} />}
                  onClick={() => session.act([unpatch.of({ fixtures })])}
                >
                  Unpatch
                </Button>
                <Button
                  size="compact-sm"
                  variant="default"
                  leftSection={<IconTrash size={14} />}
                  title={along}
                  onClick={() => session.act([remove.of({ fixtures })])}
                >
                  Remove
                  {uses.groups + uses.cues > 0
                    ? ` (in ${plural(uses.groups, "group")}, ${plural(uses.cues, "cue")})`
                    : ""}
                </Button>
              </>
            )}
            <Button
              size="compact-sm"
              variant="default"
              leftSection={<IconFileImport size={14} />}
              onClick={() => setImporting(true)}
            >
              Import
            </Button>
            <Menu position="bottom-end" shadow="md">
              <Menu.Target>
                <Button size="compact-sm" variant="default" leftSection={<IconFileExport size={14} />}>
                  Export
                </Button>
              </Menu.Target>
              <Menu.Dropdown>
                <Menu.Item onClick={exportCsv}>The patch as CSV</Menu.Item>
                <Menu.Item onClick={() => printPatchSheet(world.show)}>Print the patch sheet</Menu.Item>
              </Menu.Dropdown>
            </Menu>
            <Button
              size="compact-sm"
              leftSection={<IconPlus size={14} />}
              onClick={() => setPatching("any")}
              data-testid="patch-open"
            >
              Patch fixtures
            </Button>
          </Group>
        </div>
        <Tabs.Panel value="patch" className={classes.panel}>
          <PatchTable onPatch={() => setPatching("any")} />
        </Tabs.Panel>
        <Tabs.Panel value="library" className={classes.panel}>
          <Library onPatch={(type, mode) => setPatching({ type, mode })} />
        </Tabs.Panel>
        <Tabs.Panel value="universes" className={classes.panel}>
          <UniverseMap />
        </Tabs.Panel>
        <Tabs.Panel value="plan" className={classes.panel}>
          <PlanEditor />
        </Tabs.Panel>
        <Tabs.Panel value="outputs" className={classes.panel}>
          <Outputs />
        </Tabs.Panel>
        <Tabs.Panel value="wire" className={classes.panel}>
          <WireMonitor />
        </Tabs.Panel>
      </Tabs>
      <PatchDialog
        opened={patching !== null}
        preset={patching === "any" ? null : patching}
        onClose={() => setPatching(null)}
      />
      <ImportDialog opened={importing} onClose={() => setImporting(false)} />
    </div>
  );
}
