/** What is suspicious about palettes, groups, effects and waves. */
import { deleteEffect } from "../effect/intents";
import { effectUses, effectUsesText } from "../effect/users";
import { deleteWave } from "../effect/waveIntents";
import { deletePalette } from "../palette/goneIntents";
import { widenPalette } from "../palette/intents";
import { saidBy } from "../palette/lookup";
import { gapsOf, usesOf, usesText } from "../palette/uses";
import { paletteText } from "../palette/words";
import { deleteGroup } from "../select/groupIntents";
import { namedByRecord } from "../show/checking/links";
import { effectsByNumber, groupsByNumber, palettesByNumber, wavesByNumber, type World } from "../show/world";
import { doubled } from "./cues";
import { fixturesText, type Finding } from "./finding";

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const concern = "Palettes, groups and effects" as const;

export function* keptFindings(world: World): Generator<Finding> {
  const { show } = world;
  for (const group of groupsByNumber(show))
    if (group.members.length === 0)
      yield {
        key: `empty group ${group.id}`,
        concern,
        what: `Group ${group.number} "${group.name}" is empty`,
        why: "Its fixtures were removed.",
        cures: [{ says: "Delete it", intents: [deleteGroup.of({ group: group.id })] }],
      };
  for (const [id, gaps] of gapsOf(show, (palette, key) => saidBy(show, palette, key) !== undefined)) {
    const each = show.palettes[id]?.width === "each";
    yield {
      key: `gap ${id} ${[...gaps].join()}`,
      concern,
      what: `${capital(paletteText({ show }, id))} has nothing for ${fixturesText(show, [...gaps])}`,
      why: "Cues use it there, but it has no value: what came before shows through.",
      fixtures: [...gaps],
      cures: [
        {
          says: each ? "Let their types follow it" : "Widen it to any fixture",
          intents: [widenPalette.of({ palette: id, width: each ? "type" : "any" })],
        },
      ],
    };
  }
  for (const palette of palettesByNumber(show)) {
    if (usesText(usesOf(world, palette.id)) !== "") continue;
    yield {
      key: `unused palette ${palette.id}`,
      concern,
      what: `${capital(paletteText({ show }, palette.id))} is not used`,
      why: "No cue, effect, palette or macro names it, and no pad takes it.",
      cures: [{ says: "Delete it", intents: [deletePalette.of({ palette: palette.id })] }],
    };
  }
  for (const effect of effectsByNumber(show)) {
    if (effectUsesText(effectUses(world, effect.id)) !== "") continue;
    yield {
      key: `unused effect ${effect.id}`,
      concern,
      what: `Effect ${effect.number} "${effect.name}" is not used`,
      why: "No cue and no macro plays it, and it is on no lane and no pad.",
      cures: [{ says: "Delete it", intents: [deleteEffect.of({ effect: effect.id })] }],
    };
  }
  for (const wave of wavesByNumber(show)) {
    if (effectsByNumber(show).some((e) => namedByRecord(e).includes(wave.id))) continue;
    if (JSON.stringify(show.lists).includes(`"${wave.id}"`)) continue;
    yield {
      key: `unused wave ${wave.id}`,
      concern,
      what: `The wave "${wave.name}" is not used`,
      why: "No effect runs on it.",
      cures: [{ says: "Delete it", intents: [deleteWave.of({ wave: wave.id })] }],
    };
  }
  yield* doubled(
    groupsByNumber(show).map((g) => ({ name: g.name, label: `group ${g.number}` })),
    "groups",
  );
  yield* doubled(
    palettesByNumber(show).map((p) => ({ name: p.name, label: `palette ${p.number}` })),
    "palettes",
  );
}
