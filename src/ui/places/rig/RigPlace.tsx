"use client";

import { Button, Group, Menu, Tabs } from "@mantine/core";
import {
  IconArrowsExchange,
  IconChevronDown,
  IconCopy,
  IconFileExport,
  IconFileImport,
  IconPlus,
  IconTrash,
  IconUnlink,
} from "@tabler/icons-react";
import { useState } from "react";
import { writeMvr } from "@/core/exchange/mvr/write";
import { writePatch } from "@/core/exchange/patchTable";
import { splitItem } from "@/core/show/ids";
import { unpatch } from "@/core/patch/intents";
import { exportAscii, exportCues } from "@/ui/base/files/exportText";
import { saveFile } from "@/ui/base/files/saveFile";
import { REMEMBERED, RIG_TABS } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { useSession, useShow } from "@/ui/show/useSession";
import { BringDialog } from "./bring/BringDialog";
import { DuplicateDialog } from "./DuplicateDialog";
import { ImportDialog } from "./exchange/ImportDialog";
import { printLabels, printPatchSheet } from "./exchange/patchSheet";
import { Library } from "./library/Library";
import { PatchDialog } from "./PatchDialog";
import { PatchTable } from "./patch/PatchTable";
import { PlanEditor } from "./plan/PlanEditor";
import { RemoveDialog } from "./RemoveDialog";
import { exportPlanPdf, exportPlanSvg } from "./paper/planPaper";
import { SwapDialog } from "./swap/SwapDialog";
import { UniverseMap } from "./universes/UniverseMap";
import { Outputs } from "./wire/Outputs";
import { WireMonitor } from "./wire/WireMonitor";
import classes from "./Rig.module.css";

const TITLES: Record<(typeof RIG_TABS)[number], string> = {
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
  const [tab, setTab] = useRemembered(REMEMBERED.rigTab);
  const [patching, setPatching] = useState<{ type: string; mode: string } | "any" | null>(null);
  const [importing, setImporting] = useState(false);
  const [bringing, setBringing] = useState(false);
  const [swapping, setSwapping] = useState<readonly string[] | null>(null);
  const [duplicating, setDuplicating] = useState<readonly string[] | null>(null);
  const [removing, setRemoving] = useState<readonly string[] | null>(null);
  const world = useShow((s) => s.world);
  const fixtures = [...new Set(world.hands.selection.map((i) => splitItem(i).fixture))];
  const exportCsv = () =>
    saveFile(`${world.show.name || "show"} patch.csv`, new TextEncoder().encode(writePatch(world.show)), "text/csv");
  const exportMvr = () => {
    const { bytes, left } = writeMvr(world.show);
    saveFile(`${world.show.name || "show"}.mvr`, bytes, "application/zip");
    if (left.length > 0) session.tell(`An MVR file does not carry ${left.join(", ")}`);
  };
  const exportText = () => {
    const left = exportAscii(world.show);
    if (left) session.tell(left);
  };
  return (
    <div className={classes.rig}>
      {removing && <RemoveDialog fixtures={removing} onClose={() => setRemoving(null)} />}
      <Tabs value={tab} onChange={(v) => v && setTab(v as typeof tab)} keepMounted={false} className={classes.tabs}>
        <div className={classes.head}>
          <Tabs.List>
            {RIG_TABS.map((id) => (
              <Tabs.Tab key={id} value={id}>
                {TITLES[id]}
              </Tabs.Tab>
            ))}
          </Tabs.List>
          <Group gap={8} wrap="nowrap">
            {fixtures.length > 0 && (
              <Menu position="bottom-end" shadow="md">
                <Menu.Target>
                  <Button size="compact-sm" variant="default" rightSection={<IconChevronDown size={14} />}>
                    {fixtures.length} selected
                  </Button>
                </Menu.Target>
                <Menu.Dropdown>
                  <Menu.Item leftSection={<IconArrowsExchange size={14} />} onClick={() => setSwapping(fixtures)}>
                    Swap type
                  </Menu.Item>
                  <Menu.Item leftSection={<IconCopy size={14} />} onClick={() => setDuplicating(fixtures)}>
                    Duplicate or copy programming
                  </Menu.Item>
                  <Menu.Item
                    leftSection={<IconUnlink size={14} />}
                    onClick={() => session.act([unpatch.of({ fixtures })])}
                  >
                    Unpatch
                  </Menu.Item>
                  <Menu.Item leftSection={<IconTrash size={14} />} onClick={() => setRemoving(fixtures)}>
                    Remove …
                  </Menu.Item>
                </Menu.Dropdown>
              </Menu>
            )}
            <Menu position="bottom-end" shadow="md">
              <Menu.Target>
                <Button size="compact-sm" variant="default" leftSection={<IconFileImport size={14} />}>
                  Import
                </Button>
              </Menu.Target>
              <Menu.Dropdown>
                <Menu.Item onClick={() => setImporting(true)}>
                  A patch, rig, type or lighting data from a file
                </Menu.Item>
                <Menu.Item onClick={() => setBringing(true)}>Bring over from another show</Menu.Item>
              </Menu.Dropdown>
            </Menu>
            <Menu position="bottom-end" shadow="md">
              <Menu.Target>
                <Button size="compact-sm" variant="default" leftSection={<IconFileExport size={14} />}>
                  Export
                </Button>
              </Menu.Target>
              <Menu.Dropdown>
                <Menu.Item onClick={exportCsv}>The patch as CSV</Menu.Item>
                <Menu.Item onClick={exportMvr}>The rig with its types as MVR</Menu.Item>
                <Menu.Item onClick={exportText}>Patch, groups and cues as text (USITT ASCII)</Menu.Item>
                <Menu.Item onClick={() => exportCues(world.show)}>The cues as CSV</Menu.Item>
                <Menu.Divider />
                <Menu.Item onClick={() => printPatchSheet(world.show, "universe")}>
                  Print the patch by universe
                </Menu.Item>
                <Menu.Item onClick={() => printPatchSheet(world.show, "position")}>
                  Print the patch by position
                </Menu.Item>
                <Menu.Item onClick={() => printLabels(world.show)}>Print labels</Menu.Item>
                <Menu.Divider />
                <Menu.Item onClick={() => exportPlanSvg(world.show)}>The plan to scale as SVG</Menu.Item>
                <Menu.Item onClick={() => void exportPlanPdf(world.show)}>The plan to scale as PDF</Menu.Item>
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
      <BringDialog opened={bringing} onClose={() => setBringing(false)} />
      <SwapDialog fixtures={swapping} onClose={() => setSwapping(null)} />
      <DuplicateDialog fixtures={duplicating} onClose={() => setDuplicating(null)} />
    </div>
  );
}
