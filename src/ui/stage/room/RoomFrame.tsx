"use client";

import { ActionIcon, Button, Menu, Tooltip } from "@mantine/core";
import { IconBookmarkPlus, IconRoute, IconTrash, IconVideo } from "@tabler/icons-react";
import dynamic from "next/dynamic";
import { useMemo, useRef, useState, type ReactNode } from "react";
import { REMEMBERED, type Viewpoint } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { drawsRoom } from "./drawsRoom";
import type { RoomProps } from "./RoomCanvas";
import { usualViewpoints } from "./viewpoints";
import classes from "./Room.module.css";

/** three.js is large: it is loaded when the room is shown. */
const RoomCanvas = dynamic(() => import("./RoomCanvas").then((m) => m.RoomCanvas), {
  ssr: false,
  loading: () => <p className={classes.loading}>The room is being built</p>,
});

const GIVES_UP = ["haze structure", "beam rays", "gobo detail", "half the resolution"];

type Given = Pick<RoomProps, "lamps" | "show" | "selection" | "lit" | "aiming" | "onPick" | "onAim">;

/** The room with where it is looked at from, and what is given up for speed. */
export function RoomFrame({ children, ...room }: Given & { children?: ReactNode }) {
  const usual = useMemo(() => usualViewpoints(room.lamps), [room.lamps]);
  const [kept, setKept] = useRemembered(REMEMBERED.viewpoints);
  const look = useRef<Viewpoint | null>(null);
  const now = useRef<Pick<Viewpoint, "from" | "to"> | null>(null);
  const [walking, setWalking] = useState(false);
  const [drawn] = useState(drawsRoom);
  const [pace, setPace] = useState({ frames: 0, level: 0 });
  const all = useMemo(() => [...usual, ...kept], [usual, kept]);
  const keep = () => now.current && setKept([...kept, { name: `View ${kept.length + 1}`, ...now.current }]);
  return (
    <div className={classes.room} data-testid="room" data-pace={pace.frames.toFixed(1)} data-level={pace.level}>
      {drawn ? (
        <RoomCanvas {...room} start={usual[0]!} look={look} now={now} walk={walking ? all : null} onPace={setPace} />
      ) : (
        <p className={classes.loading} role="alert">
          This browser does not draw in three dimensions (WebGL). Allow it in its settings, or go on with the plan.
        </p>
      )}
      {drawn && room.lamps.length === 0 && (
        <p className={classes.loading}>Nothing hangs here yet. Patch the first fixtures in Rig.</p>
      )}
      <div className={classes.bar} role="toolbar" aria-label="Viewpoints">
        <Menu position="bottom-end" shadow="md">
          <Menu.Target>
            <Button size="compact-sm" variant="default" leftSection={<IconVideo size={14} />}>
              Look from
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {usual.map((v) => (
              <Menu.Item key={v.name} onClick={() => (setWalking(false), (look.current = v))}>
                {v.name}
              </Menu.Item>
            ))}
            {kept.length > 0 && <Menu.Divider />}
            {kept.map((v, k) => (
              <Menu.Item
                key={`${v.name} ${k}`}
                onClick={() => (setWalking(false), (look.current = v))}
                rightSection={
                  <IconTrash
                    size={14}
                    aria-label={`Forget ${v.name}`}
                    onClick={(e) => (e.stopPropagation(), setKept(kept.filter((_, i) => i !== k)))}
                  />
                }
              >
                {v.name}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        <Tooltip label="Save where it is looked at from now" openDelay={400}>
          <ActionIcon variant="subtle" color="gray" size={30} aria-label="Save this viewpoint" onClick={keep}>
            <IconBookmarkPlus size={16} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label="Walk around, from viewpoint to viewpoint, with the look that is shown" openDelay={400}>
          <ActionIcon
            variant={walking ? "light" : "subtle"}
            color="gray"
            size={30}
            aria-label="Walk through"
            aria-pressed={walking}
            onClick={() => setWalking(!walking)}
          >
            <IconRoute size={16} />
          </ActionIcon>
        </Tooltip>
        {children}
      </div>
      {pace.level > 0 && (
        <p className={classes.given}>
          drawn without {GIVES_UP.slice(0, Math.min(3, pace.level)).join(", ")}
          {pace.level > 3 ? ", at half the resolution" : ""}, for speed
        </p>
      )}
    </div>
  );
}
