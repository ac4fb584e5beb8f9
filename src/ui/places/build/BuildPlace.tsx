"use client";

import { Button } from "@mantine/core";
import { useMediaQuery } from "@mantine/hooks";
import { IconColorSwatch, IconTable, IconWaveSine } from "@tabler/icons-react";
import { Group, Panel } from "react-resizable-panels";
import { Grip, Split } from "@/ui/base/parts/Split";
import { REMEMBERED, type BELOW_STAGE } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { editEffect, useEditing } from "@/ui/show/effects/editing";
import { EffectEditor } from "@/ui/features/effects/EffectEditor";
import { Stage } from "@/ui/stage/Stage";
import { Shelf } from "./Shelf";
import { ValuesSheet } from "@/ui/features/values/ValuesSheet";
import { GroupPanel } from "@/ui/features/groups/GroupPanel";
import { OrderPanel } from "@/ui/features/groups/OrderPanel";
import { Programmer } from "@/ui/features/programmer/Programmer";
import { SpreadPanel } from "@/ui/features/groups/SpreadPanel";
import { useShow } from "@/ui/show/useSession";
import classes from "./Build.module.css";

/** Groups, order and spread; the stage, with palettes or the values sheet under it; the programmer. What is dragged wider stays so. */
export function BuildPlace() {
  const [across, setAcross] = useRemembered(REMEMBERED.splits["build-across"]);
  const [down, setDown] = useRemembered(REMEMBERED.splits["build-down"]);
  const [below, setBelow] = useRemembered(REMEMBERED.buildBelow);
  const editing = useEditing((s) => s.open !== null);
  // Where there is room, groups and programmer stay beside the effect editor.
  const roomy = useMediaQuery("(min-width: 1260px)", true);
  const alone = editing && !roomy;
  const lower = editing || below !== "nothing";
  const press = (what: (typeof BELOW_STAGE)[number]) => {
    setBelow(!editing && below === what ? "nothing" : what);
    editEffect(null);
  };
  return (
    <Group
      className={classes.build}
      orientation="horizontal"
      {...(Object.keys(across).length === 3 && !alone ? { defaultLayout: across } : {})}
      onLayoutChanged={(layout, { isUserInteraction }) =>
        isUserInteraction && Object.keys(layout).length === 3 && setAcross(layout)
      }
    >
      {!alone && (
        <>
          <Panel
            id="build-left"
            defaultSize={216}
            minSize={190}
            maxSize={420}
            groupResizeBehavior="preserve-pixel-size"
          >
            <LeftColumn />
          </Panel>
          <Grip label="Width of the groups" />
        </>
      )}
      <Panel id="build-middle" minSize={320}>
        <Group
          orientation="vertical"
          {...(Object.keys(down).length === 2 && lower && !editing ? { defaultLayout: down } : {})}
          onLayoutChanged={(layout, { isUserInteraction }) => isUserInteraction && lower && !editing && setDown(layout)}
        >
          <Panel id="build-above" minSize={160}>
            <div className={classes.centre}>
              <Stage />
              <Button.Group className={classes["sheet-button"]}>
                <Button
                  size="compact-sm"
                  variant={!editing && below === "palettes" ? "light" : "default"}
                  leftSection={<IconColorSwatch size={14} />}
                  aria-pressed={!editing && below === "palettes"}
                  onClick={() => press("palettes")}
                >
                  Shelf
                </Button>
                <Button
                  size="compact-sm"
                  variant={editing ? "light" : "default"}
                  leftSection={<IconWaveSine size={14} />}
                  aria-pressed={editing}
                  onClick={() => editEffect(editing ? null : "held")}
                >
                  Effect
                </Button>
                <Button
                  size="compact-sm"
                  variant={!editing && below === "values" ? "light" : "default"}
                  leftSection={<IconTable size={14} />}
                  aria-pressed={!editing && below === "values"}
                  onClick={() => press("values")}
                >
                  Values
                </Button>
              </Button.Group>
            </div>
          </Panel>
          {lower && (
            <>
              <Grip label="Height of what lies under the stage" />
              <Panel
                key={editing ? "editor" : "shelf"}
                id={editing ? "build-editor" : "build-below"}
                defaultSize={editing ? "62%" : "36%"}
                minSize={140}
              >
                {editing ? <EffectEditor /> : below === "values" ? <ValuesSheet /> : <Shelf />}
              </Panel>
            </>
          )}
        </Group>
      </Panel>
      {!alone && (
        <>
          <Grip label="Width of the programmer" />
          <Panel
            id="build-right"
            defaultSize={300}
            minSize={270}
            maxSize={520}
            groupResizeBehavior="preserve-pixel-size"
          >
            <Programmer />
          </Panel>
        </>
      )}
    </Group>
  );
}

/** Groups; while something is selected its order and spread share the column with them, by a divider. */
function LeftColumn() {
  const some = useShow(({ world: { hands } }) => hands.selection.length > 0 || hands.stepping !== null);
  return (
    <div className={classes.left}>
      {some ? (
        <Split
          name="groups-down"
          label="Height of the groups"
          keeps="second"
          size="56%"
          least={[150, 120]}
          first={<GroupPanel />}
          second={
            <div className={classes.rest}>
              <OrderPanel />
              <SpreadPanel />
            </div>
          }
        />
      ) : (
        <GroupPanel />
      )}
    </div>
  );
}
