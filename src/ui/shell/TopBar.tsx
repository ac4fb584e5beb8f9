"use client";

import { Menu, Tooltip } from "@mantine/core";
import {
  IconAdjustments,
  IconAppWindow,
  IconBook,
  IconChevronDown,
  IconDeviceFloppy,
  IconDownload,
  IconFolder,
  IconHistory,
  IconKeyboard,
  IconLayout,
  IconList,
} from "@tabler/icons-react";
import { useCallback, useState } from "react";
import { AskBar } from "./ask/AskBar";
import { useSession, useShow } from "@/ui/show/useSession";
import { saveShowFile } from "@/ui/base/files/saveFile";
import { BACKUP_MINUTES, canBackUp, startBackup } from "./backup";
import { MacrosDialog } from "@/ui/features/macros/MacrosDialog";
import { SurfaceDialog } from "@/ui/features/surface/SurfaceDialog";
import { ViewsDialog } from "@/ui/features/views/ViewsDialog";
import { TimeMachine } from "@/ui/features/versions/TimeMachine";
import { HouseDim } from "./HouseDim";
import { APP_GONE, useLeave } from "@/ui/show/addresses/places";
import { Handbook } from "./handbook/Handbook";
import { KeysHelp } from "./KeysHelp";
import { RecordButton } from "./RecordButton";
import { Truths } from "./Truths";
import classes from "./Shell.module.css";

const SAVED_WORDS = { saved: "saved", saving: "saving", failed: "not saved, trying again" } as const;

/** By itself, as it changes with every step of a drag. */
const SavedWord = () => <span data-testid="saved">{SAVED_WORDS[useShow((s) => s.saved)]}</span>;

export function TopBar() {
  const session = useSession();
  const leaveFor = useLeave();
  const name = useShow((s) => s.world.show.name);
  const failed = useShow((s) => s.saved === "failed");
  const blackout = useShow((s) => s.playing.blackout);
  const [moments, setMoments] = useState(false);
  const [macros, setMacros] = useState(false);
  const [views, setViews] = useState(false);
  const [surface, setSurface] = useState(false);
  const [help, setHelp] = useState(false);
  const [handbook, setHandbook] = useState(false);

  const openHandbook = useCallback(() => setHandbook(true), []);
  const leave = () => {
    if (
      session.hosts &&
      session.store.getState().saved === "failed" &&
      !confirm("Some changes could not be written yet and would be lost. Leave anyway?")
    )
      return;
    void leaveFor("/").then((left) => left || session.tell(APP_GONE, "refused"));
  };

  return (
    <header className={classes.top}>
      <div className={classes.side}>
        <span className={classes.mark} aria-hidden />
        <span className={classes.name}>Bold Comet</span>
        <Menu position="bottom-start" shadow="md">
          <Menu.Target>
            <button
              className={`${classes.chip} ${classes["show-chip"]}`}
              data-tone={failed ? "failed" : undefined}
              data-testid="show-menu"
            >
              <span className={classes.title}>{name}</span> · <SavedWord /> <IconChevronDown size={13} />
            </button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item leftSection={<IconFolder size={16} />} onClick={leave}>
              All shows
            </Menu.Item>
            <Menu.Item
              leftSection={<IconDownload size={16} />}
              onClick={() => saveShowFile(session.store.getState().world.show)}
            >
              Save as a file
            </Menu.Item>
            <Menu.Item
              leftSection={<IconAppWindow size={16} />}
              onClick={() => window.open(location.pathname, "_blank", "popup,width=1280,height=800")}
            >
              This place in its own window
            </Menu.Item>
            <Menu.Item leftSection={<IconHistory size={16} />} onClick={() => setMoments(true)}>
              Earlier moments
            </Menu.Item>
            <Menu.Item leftSection={<IconList size={16} />} onClick={() => setMacros(true)}>
              Macros
            </Menu.Item>
            <Menu.Item leftSection={<IconAdjustments size={16} />} onClick={() => setSurface(true)}>
              Control surfaces
            </Menu.Item>
            <Menu.Item leftSection={<IconLayout size={16} />} onClick={() => setViews(true)}>
              Views
            </Menu.Item>
            {canBackUp() && (
              <Menu.Item leftSection={<IconDeviceFloppy size={16} />} onClick={() => void startBackup(session)}>
                Back up to a file every {BACKUP_MINUTES} minutes
              </Menu.Item>
            )}
            <Menu.Item leftSection={<IconBook size={16} />} onClick={() => setHandbook(true)}>
              Handbook
            </Menu.Item>
            <Menu.Item leftSection={<IconKeyboard size={16} />} onClick={() => setHelp(true)}>
              All keys
            </Menu.Item>
            <Menu.Divider />
            <Menu.Label>Every change is kept in this browser</Menu.Label>
          </Menu.Dropdown>
        </Menu>
      </div>
      <AskBar />
      <div className={`${classes.side} ${classes.end}`}>
        <HouseDim />
        <Truths />
        <RecordButton />
        <Tooltip label={blackout ? "All intensity is out. Press to bring it back" : "Takes all intensity out"}>
          <button
            className={classes.chip}
            data-on={blackout}
            aria-pressed={blackout}
            onClick={() => void session.event({ kind: "blackout", on: !blackout })}
          >
            Blackout
          </button>
        </Tooltip>
      </div>
      <MacrosDialog opened={macros} onClose={() => setMacros(false)} />
      {surface && <SurfaceDialog opened onClose={() => setSurface(false)} />}
      {views && <ViewsDialog opened onClose={() => setViews(false)} />}
      <TimeMachine opened={moments} onClose={() => setMoments(false)} />
      <KeysHelp opened={help} onClose={() => setHelp(false)} onOpen={() => setHelp(true)} />
      <Handbook opened={handbook} onClose={() => setHandbook(false)} onOpen={openHandbook} />
    </header>
  );
}
