"use client";

import { ActionIcon, Group } from "@mantine/core";
import { IconChevronLeft, IconChevronRight } from "@tabler/icons-react";
import { useState } from "react";
import { inForceAt, standingOf, trackingOf } from "@/core/cue/tracking";
import { attributeInfo } from "@/core/fixture/attribute";
import { allTargets, itemText, type Target } from "@/core/show/model";
import { resolveEntry } from "@/core/program/resolve";
import type { CueList, Show } from "@/core/show/schema";
import { isAim, isLink } from "@/core/show/value";
import { cuesOf, fixturesByNumber } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { effectMark, paletteMark } from "../palettes/standing";
import { usePaletteNames } from "../palettes/usePaletteNames";
import { useShow } from "../useSession";
import classes from "./Cues.module.css";

const MOST = 7;

/** One fixture's values through the list: stored, tracked, released or not set, each by its form. */
export function ValuesPanel({ list, shown }: { list: CueList; shown: string | null }) {
  const world = useShow((s) => s.world);
  const [at, setAt] = useState(0);
  const items =
    world.hands.selection.length > 0
      ? world.hands.selection
      : fixturesByNumber(world.show)
          .slice(0, 1)
          .map((f) => f.id);
  const item = items[Math.min(at, items.length - 1)];
  const cues = cuesOf(list);
  const used = new Set(cues.flatMap((c) => Object.keys(c.entries)));
  const targets = item
    ? allTargets(world.show, item)
        .filter((t) => used.has(t.key))
        .slice(0, MOST)
    : [];
  const fixture = item ? world.show.fixtures[item.split(".")[0]!] : undefined;
  const [names, setNames] = usePaletteNames();
  return (
    <aside className={classes.values} aria-label="Values through the list">
      <header className={classes.head}>
        <h2>Values through the list</h2>
        <ActionIcon
          size="sm"
          variant={names ? "light" : "subtle"}
          color="gray"
          aria-pressed={names}
          aria-label="Palettes by name"
          title="Palettes by name instead of their values; in sheets too"
          onClick={() => setNames(!names)}
        >
          ◇
        </ActionIcon>
        {fixture && (
          <Group gap={2} wrap="nowrap">
            <ActionIcon
              size="sm"
              variant="subtle"
              color="gray"
              aria-label="Fixture before"
              disabled={at <= 0}
              onClick={() => setAt(at - 1)}
            >
              <IconChevronLeft size={14} />
            </ActionIcon>
            <span className="muted">
              {itemText(world.show, item!)} {fixture.name}
            </span>
            <ActionIcon
              size="sm"
              variant="subtle"
              color="gray"
              aria-label="Next fixture"
              disabled={at >= items.length - 1}
              onClick={() => setAt(at + 1)}
            >
              <IconChevronRight size={14} />
            </ActionIcon>
          </Group>
        )}
      </header>
      {targets.length === 0 ? (
        <p className={classes.hint}>
          {fixture ? "This list stores nothing for this fixture." : "Select fixtures to see their values in every cue."}
        </p>
      ) : (
        <div className={classes.scroll} tabIndex={0} role="region" aria-label="Values through the list">
          <table className={classes.grid}>
            <thead>
              <tr>
                <th>Cue</th>
                {targets.map((t) => (
                  <th key={t.key} title={attributeInfo(t.attribute).label}>
                    {attributeInfo(t.attribute).label.slice(0, 6)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {cues.map((cue, i) => (
                <tr key={cue.id} data-shown={cue.id === shown}>
                  <th>{plain(cue.number, 3)}</th>
                  {targets.map((t) => (
                    <Cell key={t.key} show={world.show} list={list} index={i} target={t} />
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </aside>
  );
}

function Cell({ show, list, index, target }: { show: Show; list: CueList; index: number; target: Target }) {
  const [names] = usePaletteNames();
  const standing = standingOf(list, index, target.key, show);
  const playing = inForceAt(trackingOf(list, show), target.key, index, false, "effect");
  const mark = playing && effectMark(show, playing.entry.effect);
  if (mark)
    return (
      <td
        data-state={playing.at === index ? "stored" : "tracked"}
        title={`${mark}${playing.at === index ? ", stored here" : ", tracked"}`}
      >
        {playing.at === index ? "•" : "↧"}
        {names ? mark : "∿"}
      </td>
    );
  if (standing.state === "unset" || standing.state === "released")
    return (
      <td data-state={standing.state} title={standing.state === "released" ? "Released here" : "Not set so far"}>
        ∅
      </td>
    );
  const { entry } = standing;
  const step = target.spec.functions
    .find((f) => f.attribute === entry.attribute)
    ?.steps?.find((s) => s.value === entry.value);
  const means = resolveEntry(show, target.key, target.spec, entry);
  const palette =
    typeof entry.value === "object" && isLink(entry.value) ? show.palettes[entry.value.palette] : undefined;
  const text =
    palette && names
      ? paletteMark(palette)
      : `${palette ? "◇ " : ""}${step?.name ?? (means ? plain(means.value, 1) : "…")}${entry.value !== undefined && isAim(entry.value) ? " ⌖" : ""}`;
  const own = entry.time && standing.state === "stored" ? " ◷" : "";
  return (
    <td
      data-state={standing.state}
      title={`${palette ? `${paletteMark(palette)}: ` : ""}${
        standing.state === "tracked" ? `tracked from cue ${plain(standing.from.number, 3)}` : "stored here"
      }`}
    >
      {standing.state === "stored" ? "•" : "↧"}
      {text}
      {own}
    </td>
  );
}
