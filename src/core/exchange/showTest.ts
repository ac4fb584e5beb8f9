/** The looks of a show written down as a show test: what every cue must still look like after any change. */
import { fixtureLook, partsOf } from "../cue/looks";
import { effectAt } from "../cue/effects";
import { inForceAt, trackingOf } from "../cue/tracking";
import { isIntensity } from "../program/light";
import { resolveEntry } from "../program/resolve";
import { selText, exact, quote } from "../show/words/lineText";
import { item } from "../show/ids";
import type { CueList, Show } from "../show/schema";
import { cuesOf, fixturesByNumber, listsByNumber } from "../show/world";
import { grouped } from "../units/grouped";

/** Cues are compared after so long, seconds: what moves in black or follows a delay of their own is there. */
const SETTLED = 0;

/** One thing a look must show: a value of an attribute. */
interface Expected {
  item: string;
  attribute: string;
  value: number;
}

/** What is seen of a list in a cue: Dimmers of all fixtures it uses, all else of lit ones; what an effect moves is left out. */
function expectedIn(show: Show, list: CueList, at: number): Expected[] {
  const tracking = trackingOf(list, show);
  return fixturesByNumber(show).flatMap((fixture) => {
    const lit = fixtureLook(show, fixture, tracking, at) !== null;
    return partsOf(show, fixture).flatMap(({ key, spec }): Expected[] => {
      if (!tracking.columns.has(key) || effectAt(show, tracking, key, at)) return [];
      if (!lit && (!isIntensity(spec) || spec.cell > 0)) return [];
      const found = inForceAt(tracking, key, at)?.entry;
      const resolved = (found && resolveEntry(show, key, spec, found)) ?? { value: spec.default, fn: 0 };
      return [
        {
          item: item(fixture.id, spec.cell),
          attribute: spec.functions[resolved.fn]!.attribute,
          value: Math.round(resolved.value * 100) / 100,
        },
      ];
    });
  });
}

/** @param file the show file the test opens. @returns a script that passes while every cue of every list looks as it does now. */
export function writeShowTest(show: Show, file: string): string {
  const lines = [`// How every cue of ${show.name} looks: run it after a change`, `open ${quote(file)}`];
  for (const list of listsByNumber(show)) {
    if (list.kind !== "list" || list.htp) continue;
    for (const [at, cue] of cuesOf(list).entries()) {
      lines.push(
        "",
        `// list ${list.number} ${list.name}, cue ${exact(cue.number)} ${cue.name}`.replace(/[\r\n]+/g, " "),
        "release all",
        "wait 86400",
        `go list ${list.number} cue ${exact(cue.number)} over ${SETTLED}`,
      );
      const groups = grouped(expectedIn(show, list, at), (e) => `${e.attribute} ${e.value}`);
      for (const [text, same] of groups) {
        const [attribute, value] = text.split(" ") as [string, string];
        lines.push(
          `expect ${selText(
            show,
            same.map((e) => e.item),
          )} ${attribute} ${value} within 0.02`,
        );
      }
    }
  }
  return `${lines.join("\n")}\n`;
}
