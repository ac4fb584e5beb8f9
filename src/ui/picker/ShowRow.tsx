"use client";

import { ActionIcon, Button, Menu, Modal } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useState } from "react";
import { isRefusal, refusalText } from "@/core/show/refusal";
import type { ShowCard } from "@/session/storage/database";
import { duplicateShow, openShow, renameShow } from "@/session/storage/shows";
import { isHosted } from "@/session/running";
import { EditableText } from "@/ui/base/parts/EditableText";
import { saveShowFile } from "@/ui/base/files/saveFile";
import { Rescue } from "../shell/Rescue";
import classes from "./Picker.module.css";

interface Props {
  card: ShowCard;
  onOpen(): void;
  onChanged(): Promise<void>;
  onRemove(): void;
  onSay(text: string): void;
}

export function ShowRow({ card, onOpen, onChanged, onRemove, onSay }: Props) {
  const [renaming, setRenaming] = useState(false);
  const [rescuing, setRescuing] = useState(false);
  const rename = async (name: string) => {
    setRenaming(false);
    if (!name) return;
    if (await isHosted(card.id))
      return onSay(`"${card.name}" is open in a window: name it there, with set show name "..."`);
    const refusal = await renameShow(card.id, name);
    if (refusal) onSay(refusalText(refusal));
    await onChanged();
  };
  const duplicate = async () => {
    const made = await duplicateShow(card.id);
    if (isRefusal(made)) onSay(refusalText(made));
    await onChanged();
  };
  const exportFile = async () => {
    const opened = await openShow(card.id);
    if (isRefusal(opened)) onSay(refusalText(opened));
    else saveShowFile(opened.world.show);
  };
  return (
    <li className={classes.show}>
      <div className={classes.words}>
        <strong>
          {renaming ? (
            <EditableText value={card.name} label="Name of the show" onSave={(n) => void rename(n)} />
          ) : (
            card.name
          )}
        </strong>
        <span className="muted">
          {card.fixtures} fixtures, {card.cues} cues, changed {new Date(card.changed).toLocaleString()}
        </span>
      </div>
      <Button onClick={onOpen} aria-label={`Open ${card.name}`}>
        Open
      </Button>
      <Menu position="bottom-end">
        <Menu.Target>
          <ActionIcon variant="default" size={36} aria-label={`More for ${card.name}`}>
            <IconDots size={18} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => setRenaming(true)}>Rename</Menu.Item>
          <Menu.Item onClick={() => void duplicate()}>Duplicate</Menu.Item>
          <Menu.Item onClick={() => void exportFile()}>Save as a file</Menu.Item>
          <Menu.Item onClick={() => setRescuing(true)}>Earlier versions</Menu.Item>
          <Menu.Item color="red" onClick={onRemove}>
            Delete (can be undone)
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <Modal
        opened={rescuing}
        onClose={() => setRescuing(false)}
        title={`Earlier versions of ${card.name}`}
        size="xl"
        centered
      >
        {rescuing && <Rescue tells showId={card.id} onKept={() => (setRescuing(false), void onChanged())} />}
      </Modal>
    </li>
  );
}
