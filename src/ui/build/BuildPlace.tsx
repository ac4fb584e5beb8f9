"use client";

import { Button } from "@mantine/core";
import { IconTable } from "@tabler/icons-react";
import { Group, Panel, Separator } from "react-resizable-panels";
import { z } from "@/core/units/zod";
import { usePrefs } from "../parts/usePrefs";
import { StagePlan } from "../stage/StagePlan";
import { ValuesSheet } from "../values/ValuesSheet";
import { GroupPanel } from "./GroupPanel";
import { OrderPanel } from "./OrderPanel";
import { Programmer } from "./Programmer";
import { SpreadPanel } from "./SpreadPanel";
import classes from "./Build.module.css";

const LayoutSchema = z.record(z.string().max(20), z.number().min(0).max(100));

/** Groups, order and spread; the stage, with the values sheet under it; the programmer. What is dragged wider stays so. */
export function BuildPlace() {
  const [across, setAcross] = usePrefs("bold-comet-build-across", LayoutSchema, {});
  const [down, setDown] = usePrefs("bold-comet-build-down", LayoutSchema, {});
  const [sheet, setSheet] = usePrefs("bold-comet-build-sheet", z.boolean(), false);
  return (
    <Group
      className={classes.build}
      orientation="horizontal"
      {...(Object.keys(across).length === 3 ? { defaultLayout: across } : {})}
      onLayoutChanged={setAcross}
    >
      <Panel id="build-left" defaultSize={216} minSize={190} maxSize={420} groupResizeBehavior="preserve-pixel-size">
        <div className={classes.left}>
          <GroupPanel />
          <OrderPanel />
          <SpreadPanel />
        </div>
      </Panel>
      <Separator className={classes.grip} aria-label="Width of the groups" />
      <Panel id="build-middle" minSize={320}>
        <Group
          orientation="vertical"
          {...(Object.keys(down).length === 2 && sheet ? { defaultLayout: down } : {})}
          onLayoutChanged={(layout) => sheet && setDown(layout)}
        >
          <Panel id="build-above" minSize={160}>
            <div className={classes.centre}>
              <StagePlan />
              <Button
                className={classes["sheet-button"]}
                size="compact-sm"
                variant={sheet ? "light" : "default"}
                leftSection={<IconTable size={14} />}
                aria-pressed={sheet}
                onClick={() => setSheet(!sheet)}
              >
                Values
              </Button>
            </div>
          </Panel>
          {sheet && (
            <>
              <Separator className={classes.grip} aria-label="Height of the values" />
              <Panel id="build-below" defaultSize="45%" minSize={140}>
                <ValuesSheet />
              </Panel>
            </>
          )}
        </Group>
      </Panel>
      <Separator className={classes.grip} aria-label="Width of the programmer" />
      <Panel id="build-right" defaultSize={300} minSize={270} maxSize={520} groupResizeBehavior="preserve-pixel-size">
        <Programmer />
      </Panel>
    </Group>
  );
}
