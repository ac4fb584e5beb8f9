"use client";

import { ActionIcon, Select, TextInput } from "@mantine/core";
import { IconArrowsHorizontal, IconPlus, IconRefresh, IconSparkles, IconSquarePlus } from "@tabler/icons-react";
import { useMemo, useState } from "react";
import { palette as applyPalette } from "@/core/command/building";
import { gather } from "@/core/command/gathering";
import type { Family } from "@/core/fixture/attribute";
import { orderPalettes, shelvePalettes } from "@/core/palette/goneIntents";
import { recordPalette } from "@/core/palette/intents";
import { attributeInfo } from "@/core/fixture/attribute";
import { paletteText, wideText } from "@/core/palette/words";
import { recordable } from "@/core/program/intents";
import { WIDTHS } from "@/core/show/paletteSchema";
import { palettesByNumber } from "@/core/show/world";
import { NumberField } from "@/ui/show/NumberField";
import { REMEMBERED, SHELF_TABS } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { trying } from "@/ui/stage/blind/trying";
import { useReorder } from "@/ui/base/gestures/useReorder";
import { useSession, useShow } from "@/ui/show/useSession";
import { EffectsTab } from "@/ui/features/effects/EffectsTab";
import { WavesTab } from "@/ui/features/effects/WavesTab";
import { attributesIn } from "@/ui/show/held/heldIn";
import { lookInside } from "@/ui/show/held/lookInside";
import { RecordPalette } from "@/ui/features/palettes/RecordPalette";
import { StarterDialog } from "@/ui/features/palettes/StarterDialog";
import { Tile } from "@/ui/features/palettes/Tile";
import { pictureOf } from "@/ui/stage/pictures/palettePicture";
import { offShelf, palettesOn, reachOf, stateOf, tabOf, type Tab } from "@/ui/features/palettes/tiles";
import { UpdateDialog } from "@/ui/features/palettes/UpdateDialog";
import { WidthsDialog } from "@/ui/features/palettes/WidthsDialog";
import classes from "./Shelf.module.css";
import tiles from "@/ui/stage/pictures/Tiles.module.css";

/** Where the numbers of a tab begin, while it is empty. */
const FIRST: Record<Tab, number> = {
  Intensity: 1,
  Position: 21,
  Colour: 41,
  Gobo: 61,
  Beam: 71,
  Focus: 81,
  Control: 91,
  Mixed: 101,
};

/** A free number after those of a tab. */
export function numberAfter(taken: ReadonlySet<number>, own: readonly number[], first: number): number {
  let number = own.length > 0 ? Math.max(...own) + 1 : first;
  while (taken.has(number)) number += 1;
  return number;
}

/** Palettes by family under the stage: pressed they go on the selection; an empty place records. */
export function Shelf() {
  const session = useSession();
  const world = useShow((s) => s.world);
  const [shown, setTab] = useRemembered(REMEMBERED.shelfTab);
  const aside = shown === "Effects" || shown === "Waves" ? shown : null;
  const tab: Tab = shown === "Effects" || shown === "Waves" ? "Mixed" : shown;
  const [width, setWidth] = useRemembered(REMEMBERED.shelfWidth);
  const [search, setSearch] = useState("");
  const [over, setOver] = useState(0);
  const [dialog, setDialog] = useState<{ kind: "record" | "update" | "starters" | "widths" } | null>(null);
  const { show, hands } = world;
  const [showsOff, setShowsOff] = useState(false);
  const off = search ? [] : offShelf(show, tab);
  const found = useMemo(
    () => [...palettesOn(show, tab, search), ...(showsOff && !search ? offShelf(show, tab) : [])],
    [show, tab, search, showsOff],
  );
  const chosen = hands.selection;
  const pictures = useMemo(
    () => new Map(found.map((p) => [p.id, pictureOf({ show, hands: { ...hands, selection: chosen } }, p)])),
    [found, show.fixtures, show.types, show.palettes, chosen], // oxlint-disable-line react-hooks/exhaustive-deps
  );
  const reaches = useMemo(
    () => new Map(found.map((p) => [p.id, reachOf(show, chosen, p)])),
    [found, show.fixtures, show.types, show.palettes, chosen], // oxlint-disable-line react-hooks/exhaustive-deps
  );
  const states = useMemo(
    () => new Map(found.map((p) => [p.id, stateOf(hands.held, p, reaches.get(p.id)!)])),
    [found, reaches, hands.held],
  );
  const familiesHeld = new Set([...attributesIn(recordable(world))].map((a) => attributeInfo(a).family));
  const keeps: Family[] | undefined = tab === "Mixed" ? undefined : [tab];
  const canKeep = keeps ? keeps.some((f) => familiesHeld.has(f)) : familiesHeld.size > 0;
  const all = palettesByNumber(show);
  const next = numberAfter(
    new Set(all.map((p) => p.number)),
    all.filter((p) => tabOf(p) === tab).map((p) => p.number),
    FIRST[tab],
  );
  const apply = (id: string) =>
    session.hold((b) => {
      applyPalette(b, id);
      if (over > 0) b.over = over;
    });
  const [made, setMade] = useState<string>();
  /** What is recorded by a press has its name offered at once. */
  const quick = () => {
    const intent = recordPalette.of({
      number: next,
      width,
      entries: gather(session.context(), { width, only: keeps }),
      ...(keeps ? { only: keeps } : {}),
    });
    if (session.act([intent])) return;
    setMade(palettesByNumber(session.store.getState().world.show).find((p) => p.number === next)?.id);
  };
  const order = found.map((p) => p.id);
  const isNumberedSo = found.every((p, k) => k === 0 || p.number > found[k - 1]!.number);
  const reorder = useReorder((dragged, onto) => {
    if (search) return;
    const rest = found.map((p) => p.id).filter((id) => id !== dragged);
    const to = found.findIndex((p) => p.id === onto);
    session.act([shelvePalettes.of({ palettes: [...rest.slice(0, to), dragged, ...rest.slice(to)] })]);
  });
  return (
    <section className={classes.shelf} aria-label="Palettes">
      <header className={classes.head}>
        <div className={classes.tabs} role="tablist" aria-label="Families">
          {SHELF_TABS.map((name) => (
            <button
              key={name}
              type="button"
              role="tab"
              aria-selected={name === shown && (!search || aside !== null)}
              onClick={() => (setTab(name), setSearch(""))}
            >
              {name}
            </button>
          ))}
        </div>
        <TextInput
          className={classes.find}
          size="xs"
          placeholder="Find"
          aria-label={aside ? `Find one of the ${aside.toLowerCase()}` : "Find a palette"}
          value={search}
          onChange={(e) => setSearch(e.currentTarget.value)}
        />
        <NumberField
          size="xs"
          w={48}
          aria-label="Seconds a pressed palette takes"
          title="Seconds a pressed palette takes to get there"
          suffix=" s"
          value={over}
          min={0}
          max={600}
          step={0.5}
          onSet={setOver}
        />
        {!aside && (
          <>
            <Select
              size="xs"
              w={68}
              value={width}
              onChange={(v) => v && setWidth(v)}
              data={[...WIDTHS]}
              allowDeselect={false}
              title="Scope of new palettes: each fixture itself, its type, or any fixture"
              aria-label="Scope of new palettes"
            />
            <ActionIcon
              variant="default"
              aria-label="Record a palette in full"
              title="Record a palette in full: for whom, which families, how much of them"
              onClick={() => setDialog({ kind: "record" })}
            >
              <IconSquarePlus size={16} />
            </ActionIcon>
            <ActionIcon
              variant="default"
              aria-label="Starter palettes"
              title="Starter palettes, made from the rig, and groups by type"
              disabled={Object.keys(show.fixtures).length === 0}
              onClick={() => setDialog({ kind: "starters" })}
            >
              <IconSparkles size={16} />
            </ActionIcon>
            <ActionIcon
              variant="default"
              aria-label="Palette scope"
              title="Palette scope: each fixture, its type, or any, for several palettes"
              disabled={all.length === 0}
              onClick={() => setDialog({ kind: "widths" })}
            >
              <IconArrowsHorizontal size={16} />
            </ActionIcon>
            <ActionIcon
              variant="default"
              aria-label="Update the sources of held values"
              title="Update the palettes and cues that held values came from"
              disabled={familiesHeld.size === 0}
              onClick={() => setDialog({ kind: "update" })}
            >
              <IconRefresh size={16} />
            </ActionIcon>
          </>
        )}
      </header>
      {aside === "Effects" && <EffectsTab search={search} over={over} />}
      {aside === "Waves" && <WavesTab search={search} />}
      {!aside && (
        <ul className={tiles.tiles}>
          {found.map((p) => (
            <Tile
              key={p.id}
              world={world}
              palette={p}
              fresh={p.id === made}
              state={states.get(p.id)!}
              picture={pictures.get(p.id)!}
              trial={trying(session, paletteText(world, p.id), (b) => applyPalette(b, p.id))}
              onPress={() => void apply(p.id)}
              onDetails={() => lookInside(p.id)}
              reorder={reorder(p.id)}
              {...(isNumberedSo ? {} : { onNumber: () => session.act([orderPalettes.of({ palettes: order })]) })}
            />
          ))}
          {off.length > 0 && (
            <li className={tiles.place}>
              <button type="button" aria-pressed={showsOff} onClick={() => setShowsOff(!showsOff)}>
                <i>
                  {showsOff ? "hide" : "show"} {off.length} off the shelf
                </i>
              </button>
            </li>
          )}
          {!search && (
            <li className={tiles.place}>
              <button
                type="button"
                disabled={!canKeep}
                title={
                  canKeep
                    ? `Records ${tab === "Mixed" ? "all that is held" : `the ${tab.toLowerCase()} that is held`} as palette ${next}, ${wideText[width]}`
                    : `Hold some ${tab === "Mixed" ? "values" : tab.toLowerCase()} first, then press here`
                }
                onClick={() => void quick()}
              >
                <span className="num">{next}</span> <IconPlus size={16} aria-hidden />{" "}
                <i>{canKeep ? "record here" : "Set values, then record here"}</i>
              </button>
            </li>
          )}
        </ul>
      )}
      {!aside && search && found.length === 0 && <p className="muted">No match. Try fewer words.</p>}
      {dialog?.kind === "record" && (
        <RecordPalette
          number={next}
          width={width}
          only={keeps && canKeep ? keeps : undefined}
          onClose={() => setDialog(null)}
        />
      )}
      {dialog?.kind === "starters" && <StarterDialog onClose={() => setDialog(null)} />}
      {dialog?.kind === "widths" && <WidthsDialog onClose={() => setDialog(null)} />}
      {dialog?.kind === "update" && <UpdateDialog onClose={() => setDialog(null)} />}
    </section>
  );
}
