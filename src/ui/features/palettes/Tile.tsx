"use client";

import { ActionIcon, ColorSwatch, Group, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useState } from "react";
import { deletePalette } from "@/core/palette/goneIntents";
import { setPalette, updatePalette, updating } from "@/core/palette/intents";
import { usesOf, usesText } from "@/core/palette/uses";
import type { Palette } from "@/core/show/paletteSchema";
import type { World } from "@/core/show/world";
import { EditableText } from "@/ui/base/parts/EditableText";
import type { useReorder } from "@/ui/base/gestures/useReorder";
import { useSession } from "@/ui/show/useSession";
import { TilePicture } from "@/ui/stage/pictures/TilePicture";
import type { Picture } from "@/ui/stage/pictures/palettePicture";
import { lacksText, type TileState } from "./tiles";
import tiles from "@/ui/stage/pictures/Tiles.module.css";

const TAGS = ["#7ee8c4", "#ffb07a", "#9db2ff", "#ffd27d", "#ff9fb4", "#c3b4ff"];

interface Props {
  /** It was just recorded: its name is offered. */
  fresh: boolean;
  world: World;
  palette: Palette;
  state: TileState;
  picture: Picture;
  /** What shows it on the stage picture while a hand rests on it. */
  trial: object;
  onPress(): void;
  onDetails(): void;
  /** Gives the numbers out anew in the order of the shelf, where they are in another. */
  onNumber?(): void;
  /** What makes it one to drag. */
  reorder: ReturnType<ReturnType<typeof useReorder>>;
}

/** One palette: what it does, its number and name, how wide it is by its edge, and how it stands to the selection. */
export function Tile({ world, palette, state, picture, trial, fresh, onNumber, onPress, onDetails, reorder }: Props) {
  const session = useSession();
  const [renaming, setRenaming] = useState(fresh);
  const { id, number, name, width, colour } = palette;
  const lacks = lacksText(state);
  const held = Object.keys(updating(world, palette)).length;
  const uses = usesText(usesOf(world, id));
  const set = (change: Omit<Parameters<typeof setPalette.of>[0], "palette">) =>
    session.act([setPalette.of({ palette: id, ...change })]);
  const update = (type: boolean) => session.act([updatePalette.of({ palette: id, type })]);
  return (
    <li
      className={tiles.tile}
      data-width={width}
      data-stands={state.stands}
      data-lacks={state.of > 0 && state.has === 0}
      style={colour ? { borderTopColor: colour } : undefined}
      {...reorder}
      onContextMenu={(e) => (e.preventDefault(), onDetails())}
    >
      {renaming ? (
        <div className={tiles.press}>
          <EditableText
            value={name}
            label="Palette name"
            onSave={(text) => void set({ name: text })}
            onClosed={() => setRenaming(false)}
          />
        </div>
      ) : (
        <button
          type="button"
          className={tiles.press}
          aria-pressed={state.stands}
          title={`${name}: press to apply${lacks ? ` (${lacks})` : ""}; of ${width === "each" ? "each fixture" : width === "type" ? "types" : "any fixture"}${uses ? `; used ${uses}` : ""}`}
          {...trial}
          onClick={onPress}
          onDoubleClick={() => setRenaming(true)}
        >
          <span className="num">{number}</span> <TilePicture picture={picture} /> <b>{name}</b>{" "}
          {lacks && <em>{lacks}</em>}
        </button>
      )}
      <Menu position="top-end" shadow="md" withinPortal>
        <Menu.Target>
          <ActionIcon
            className={tiles.more}
            variant="subtle"
            color="gray"
            size="sm"
            aria-label={`More for palette ${number}`}
          >
            <IconDots size={14} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={onDetails}>Look inside …</Menu.Item>
          <Menu.Item onClick={() => setRenaming(true)}>Rename</Menu.Item>
          <Menu.Item disabled={held === 0} onClick={() => update(false)}>
            Update for these fixtures only ({held} held)
          </Menu.Item>
          <Menu.Item disabled={held === 0} onClick={() => update(true)}>
            Update for the whole type
          </Menu.Item>
          <Menu.Item component="div" closeMenuOnClick={false}>
            <Group gap={5}>
              {TAGS.map((tag) => (
                <ColorSwatch
                  key={tag}
                  component="button"
                  type="button"
                  size={26}
                  color={tag}
                  aria-label={`Tag ${tag}`}
                  onClick={() => set({ colour: colour === tag ? null : tag })}
                />
              ))}
            </Group>
          </Menu.Item>
          <Menu.Item onClick={() => set({ shelf: palette.offShelf === true })}>
            {palette.offShelf ? "Put on the shelf" : "Keep without a tile"}
          </Menu.Item>
          {onNumber && <Menu.Item onClick={onNumber}>Number all here in this order</Menu.Item>}
          <Menu.Divider />
          <Menu.Item color="red" onClick={() => session.act([deletePalette.of({ palette: id })])}>
            Delete{uses ? `: used ${uses}; users keep plain values` : " (can be undone)"}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}
