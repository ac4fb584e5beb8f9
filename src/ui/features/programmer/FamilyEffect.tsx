"use client";

import { ActionIcon, Menu } from "@mantine/core";
import { IconWaveSine } from "@tabler/icons-react";
import { memo } from "react";
import { holdEffect, holdVoices } from "@/core/command/voices";
import { drivenBy, stopFor } from "@/core/effect/casting";
import { GALLERY } from "@/core/effect/gallery";
import { PLAIN_PHASING } from "@/core/effect/words";
import { attributeInfo, type Family } from "@/core/fixture/attribute";
import { familiesOf } from "@/core/palette/families";
import { drop, hold } from "@/core/program/intents";
import { hasStops, type Voice } from "@/core/show/effectSchema";
import type { ParamKey } from "@/core/show/ids";
import { NO_SPREAD } from "@/core/show/spreadSchema";
import { STOP } from "@/core/show/value";
import { effectsByNumber, palettesByNumber } from "@/core/show/world";
import { useSession, useShow } from "@/ui/show/useSession";
import { editEffect } from "@/ui/show/effects/editing";
import { playedOf } from "@/ui/show/effects/played";

const familyOfVoice = (voice: Voice): Family =>
  hasStops(voice)
    ? "family" in voice.of
      ? voice.of.family
      : attributeInfo(voice.of.attribute).family
    : attributeInfo(voice.attribute).family;

/** The effect of a family in the programmer: begun from palettes, from a ready one or one of the show; opened, ended, let go of. */
export const FamilyEffect = memo(function FamilyEffect({ family }: { family: Family }) {
  const { held, selection } = useShow((s) => s.world.hands);
  return <EffectMenu family={family} played={playedOf(held, selection, family)} disabled={selection.length === 0} />;
});

const EffectMenu = memo(function EffectMenu({
  family,
  played,
  disabled,
}: {
  family: Family;
  played: readonly ParamKey[];
  disabled: boolean;
}) {
  return (
    <Menu position="bottom-end" shadow="md" withinPortal>
      <Menu.Target>
        <ActionIcon
          size="sm"
          variant={played.length > 0 ? "light" : "subtle"}
          color="gray"
          aria-label={`Effect of ${family.toLowerCase()}`}
          title={played.length > 0 ? "An effect is held here: open it, or end it" : "Begin an effect here"}
          disabled={disabled}
        >
          <IconWaveSine size={14} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown mah={380} style={{ overflow: "auto" }}>
        <Choices family={family} played={played} />
      </Menu.Dropdown>
    </Menu>
  );
});

/** What the menu offers; worked out only while it is open. */
function Choices({ family, played }: { family: Family; played: readonly ParamKey[] }) {
  const session = useSession();
  const { show, hands } = useShow((s) => s.world);
  const items = hands.selection;
  const fits = (voices: readonly Voice[]) =>
    voices.some((v) => familyOfVoice(v) === family) &&
    items.slice(0, 100).some((i) => voices.some((v) => drivenBy(show, i, v).length > 0));
  const palettes = palettesByNumber(show)
    .filter((p) => familiesOf(p).includes(family))
    .filter((p) =>
      items.slice(0, 20).some((i) => {
        const voice: Voice = stopsOf(family, [p.id, p.id]);
        return drivenBy(show, i, voice).some((t) =>
          stopFor(show, t.key, t.spec, { family }, { value: { palette: p.id } }),
        );
      }),
    );
  const begin = (voices: readonly Voice[], name: string) => {
    if (!session.hold((b) => holdVoices(b, voices, name))) editEffect("held");
  };
  const ready = GALLERY.filter((g) => fits(g.voices));
  const shows = effectsByNumber(show).filter((e) => fits(e.voices.map((v) => v.voice)));
  return (
    <>
      {played.length > 0 && (
        <>
          <Menu.Item onClick={() => editEffect("held")}>Open what is held</Menu.Item>
          <Menu.Item onClick={() => session.act([drop.of({ keys: [...played] })])}>Clear it</Menu.Item>
          <Menu.Item
            onClick={() =>
              session.act([
                hold.of({
                  values: Object.fromEntries(
                    played.map((key) => [key, { attribute: hands.held[key]!.attribute, effect: STOP }]),
                  ),
                  says: `stops the effects of ${family.toLowerCase()}`,
                }),
              ])
            }
          >
            Stop: hold the end of it
          </Menu.Item>
          <Menu.Divider />
        </>
      )}
      {palettes.length >= 2 && (
        <Menu.Item
          onClick={() =>
            begin(
              [
                stopsOf(
                  family,
                  palettes.slice(0, 2).map((p) => p.id),
                ),
              ],
              `stops of ${family.toLowerCase()}`,
            )
          }
        >
          Stops: {palettes[0]!.name || palettes[0]!.number} and {palettes[1]!.name || palettes[1]!.number}
        </Menu.Item>
      )}
      {shows.length > 0 && <Menu.Label>Effects of the show</Menu.Label>}
      {shows.map((e) => (
        <Menu.Item key={e.id} onClick={() => session.hold((b) => holdEffect(b, e.id, b.items))}>
          {e.number} {e.name}
        </Menu.Item>
      ))}
      {ready.length > 0 && <Menu.Label>Ready effects</Menu.Label>}
      {ready.map((g) => (
        <Menu.Item key={g.name} onClick={() => begin(g.voices, g.name.toLowerCase())}>
          {g.name}: {g.about}
        </Menu.Item>
      ))}
      {palettes.length < 2 && shows.length === 0 && ready.length === 0 && played.length === 0 && (
        <Menu.Label>Press the wave beside a number below, or record two palettes for stops</Menu.Label>
      )}
    </>
  );
}

const stopsOf = (family: Family, palettes: readonly string[]): Voice => ({
  ...PLAIN_PHASING,
  bpm: 10,
  spread: NO_SPREAD,
  of: { family },
  stops: palettes.map((palette) => ({ value: { palette }, curve: "smooth" as const })),
});
