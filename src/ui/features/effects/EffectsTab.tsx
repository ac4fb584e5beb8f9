"use client";

import { ActionIcon, Menu } from "@mantine/core";
import { IconDots, IconPlus, IconWaveSine } from "@tabler/icons-react";
import { effectCalled, holdEffect } from "@/core/command/voices";
import { deleteEffect, recordEffect, setEffect, updateEffect } from "@/core/effect/intents";
import { drivenBy } from "@/core/effect/casting";
import { voicesIn } from "@/core/effect/gather";
import { effectUses, effectUsesText } from "@/core/effect/users";
import { voiceText } from "@/core/effect/words";
import { isFrom, isStop, type EffectRecord } from "@/core/show/effectSchema";
import { effectsByNumber, type World } from "@/core/show/world";
import { useSession, useShow } from "@/ui/show/useSession";
import { trying } from "@/ui/stage/blind/trying";
import { editEffect } from "@/ui/show/effects/editing";
import { VoicePicture } from "@/ui/stage/pictures/VoicePicture";
import tiles from "@/ui/stage/pictures/Tiles.module.css";

/** The effects of the show: pressed they run on their fixtures, or on the selection; an empty place records. */
export function EffectsTab({ search, over }: { search: string; over: number }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show, hands } = world;
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = effectsByNumber(show).filter((e) =>
    words.every((w) => `${e.number} ${e.name}`.toLowerCase().includes(w)),
  );
  const next = (effectsByNumber(show).at(-1)?.number ?? 0) + 1;
  const held = voicesIn(show, hands.held).length;
  return (
    <ul className={tiles.tiles}>
      {found.map((effect) => (
        <EffectTile key={effect.id} world={world} effect={effect} over={over} />
      ))}
      {!search && (
        <li className={tiles.place}>
          <button
            type="button"
            disabled={held === 0}
            title={
              held > 0
                ? `Records the ${held} voices that are held as effect ${next}`
                : "Start a wave beside a number, or a ready effect below, then press here"
            }
            onClick={() => session.act([recordEffect.of({ number: next })])}
          >
            <span className="num">{next}</span> <IconPlus size={16} aria-hidden />{" "}
            <i>{held > 0 ? "record here" : "Set values, then record here"}</i>
          </button>
        </li>
      )}
      <li className={tiles.place}>
        <button
          type="button"
          title="Opens the editor: what is held of effects, and ready ones to begin from"
          onClick={() => editEffect("held")}
        >
          <span /> <IconWaveSine size={16} aria-hidden /> <i>{held > 0 ? `edit the ${held} held` : "ready effects"}</i>
        </button>
      </li>
    </ul>
  );
}

function EffectTile({ world, effect, over }: { world: World; effect: EffectRecord; over: number }) {
  const session = useSession();
  const { show, hands } = world;
  const { id, number, name, cast, voices, colour } = effect;
  const items = cast ?? hands.selection;
  const fits = items.filter((i) => voices.some((v) => drivenBy(show, i, v.voice).length > 0)).length;
  const runs = Object.values(hands.held).some(({ effect: e }) => e && !isStop(e) && isFrom(e) && e.from === id);
  const uses = effectUsesText(effectUses(world, id));
  const held = voicesIn(show, hands.held).length;
  const press = () =>
    session.hold(
      (b) => {
        holdEffect(b, effectCalled(show, number), items);
        if (over > 0) b.over = over;
      },
      false,
      items,
    );
  return (
    <li
      className={tiles.tile}
      data-width={cast ? "each" : "any"}
      data-stands={runs}
      data-lacks={items.length > 0 && fits === 0}
      style={colour ? { borderTopColor: colour } : undefined}
      onContextMenu={(e) => (e.preventDefault(), editEffect(id))}
    >
      <button
        type="button"
        className={tiles.press}
        aria-pressed={runs}
        disabled={items.length === 0}
        title={`${name}: ${voices.map((v) => voiceText(show, v.voice)).join("; ")}. ${cast ? `Press: it runs on its ${cast.length} fixtures` : "Press: it runs on the selection"}${uses ? `; used ${uses}` : ""}`}
        {...trying(session, `effect ${number} ${name}`, (b) => holdEffect(b, effectCalled(show, number), items), items)}
        onClick={() => void press()}
        onDoubleClick={() => editEffect(id)}
      >
        <span className="num">{number}</span> {voices[0] && <VoicePicture voice={voices[0].voice} items={items} />}{" "}
        <b>{name}</b>
      </button>
      <Menu position="top-end" shadow="md" withinPortal>
        <Menu.Target>
          <ActionIcon
            className={tiles.more}
            variant="subtle"
            color="gray"
            size="sm"
            aria-label={`More for effect ${number}`}
          >
            <IconDots size={14} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => editEffect(id)}>Edit …</Menu.Item>
          <Menu.Item disabled={held === 0} onClick={() => session.act([updateEffect.of({ effect: id })])}>
            Update from what is held ({held} voices)
          </Menu.Item>
          <Menu.Item
            disabled={hands.selection.length === 0}
            onClick={() => session.act([setEffect.of({ effect: id, cast: [...hands.selection] })])}
          >
            Cast on the selection
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item color="red" onClick={() => session.act([deleteEffect.of({ effect: id })])}>
            Delete{uses ? `: used ${uses}, its voices stay there` : " (can be undone)"}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}
