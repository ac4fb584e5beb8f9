/** Drift, and moves in the dark that come too late. */
import { clean } from "../cue/intents/cleanIntent";
import { driftsOf, type Drift } from "../cue/drift";
import { setCue } from "../cue/intents/intents";
import { latesOf, type Late } from "../cue/lateMoves";
import { attributeInfo } from "../fixture/attribute";
import { cuesOf, listsByNumber, type World } from "../show/world";
import { grouped } from "../units/grouped";
import { cueName, fixturesText, type Finding } from "./finding";

const attributesText = (keys: readonly string[]): string =>
  [...new Set(keys.map((k) => attributeInfo(k.split(".")[2]!).label.toLowerCase()))].join(", ");

export function* darkFindings({ show }: World): Generator<Finding> {
  for (const list of listsByNumber(show)) {
    if (list.kind !== "list") continue;
    const cues = cuesOf(list);
    const counts = ({ fixture }: { fixture: string }) => show.fixtures[fixture]?.outOfService !== true;
    const byCue = grouped(driftsOf(show, list).filter(counts), (d: Drift) => `${d.at} ${d.kind} ${d.curable}`);
    for (const drifts of byCue.values()) {
      const { at, kind, curable } = drifts[0]!;
      const cue = cues[at]!;
      const fixtures = drifts.map((d) => d.fixture);
      const what = attributesText(drifts.flatMap((d) => d.changes.map((c) => c.key)));
      yield {
        key: `drift ${kind} ${list.id} ${cue.id} ${fixtures.join()}`,
        concern: "Drift",
        what: `In ${cueName(list, cue)} ${fixturesText(show, fixtures)} ${fixtures.length === 1 ? "changes" : "change"} ${
          kind === "lit" ? "while fading out" : "in the dark"
        }: ${what}`,
        why: curable
          ? kind === "lit"
            ? "The move is seen as they go out. It can be stored where they are next lit instead."
            : "Nobody sees it; it makes the list hard to read, and lamps move twice."
          : "No entry of this cue does it: a reach ends or the list starts afresh here.",
        list: list.id,
        cue: cue.id,
        fixtures,
        cures: [
          ...(curable
            ? [
                { says: "Clean this cue", intents: [clean.of({ list: list.id, cue: cue.id })] },
                { says: "Clean the list", intents: [clean.of({ list: list.id })] },
              ]
            : []),
          { says: "It is meant", intents: [setCue.of({ list: list.id, cue: cue.id, meant: fixtures })] },
        ],
      };
    }
    for (const lates of grouped(latesOf(show, list).filter(counts), (l: Late) => `${l.at} ${l.changing}`).values()) {
      const { at, changing } = lates[0]!;
      const cue = cues[at]!;
      const fixtures = lates.map((l) => l.fixture);
      const by = Math.max(...lates.map((l) => l.by));
      yield {
        key: `late ${list.id} ${cue.id} ${fixtures.join()}`,
        concern: "Moves in the dark",
        what: changing
          ? `In ${cueName(list, cue)} ${fixturesText(show, fixtures)} ${fixtures.length === 1 ? "comes" : "come"} up changing`
          : `For ${cueName(list, cue)} ${fixturesText(show, fixtures)} ${fixtures.length === 1 ? "moves" : "move"} too late, by ${by} s`,
        why: changing
          ? `There is no dark time before it, so ${attributesText(lates.flatMap((l) => l.keys))} fade while they light up.`
          : `They are dark for too short a time to get ready (${attributesText(lates.flatMap((l) => l.keys))}); what is left is seen.`,
        list: list.id,
        cue: cue.id,
        fixtures,
        cures: [
          {
            says: "Be ready: put them there at once",
            intents: [setCue.of({ list: list.id, cue: cue.id, ready: true })],
          },
        ],
      };
    }
  }
}
