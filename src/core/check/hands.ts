/** What was left on: highlight, park, blind; and looks that are not as they were signed off. */
import { setBlind, setHighlight, unpark } from "../program/intents";
import { bringBack, signOff } from "../cue/intents/signIntents";
import { brokenLooks } from "../cue/signed";
import { splitKey } from "../show/ids";
import type { World } from "../show/world";
import { cueName, fixturesText, type Finding } from "./finding";

export function* handFindings({ show, hands }: World): Generator<Finding> {
  const concern = "Left on" as const;
  if (hands.highlight)
    yield {
      key: "highlight",
      concern,
      what: "Highlight is on",
      why: "The selected fixtures are full and open, whatever the show says.",
      cures: [{ says: "End it", intents: [setHighlight.of({ on: false })] }],
    };
  if (hands.blind)
    yield {
      key: "blind",
      concern,
      what: "The programmer is blind",
      why: "What is held is not on stage.",
      cures: [{ says: "End it", intents: [setBlind.of({ on: false })] }],
    };
  const parked = [...new Set(Object.keys(hands.parked).map((key) => splitKey(key).fixture))];
  if (parked.length > 0)
    yield {
      key: "park",
      concern,
      what: `${parked.length === 1 ? "A fixture is" : `${parked.length} fixtures are`} parked`,
      why: `Nothing moves what is pinned of ${fixturesText(show, parked)}, masters included.`,
      fixtures: parked,
      cures: [{ says: "Unpark them", intents: [unpark.of({ keys: Object.keys(hands.parked) })] }],
    };
}

export function* signedFindings({ show }: World): Generator<Finding> {
  for (const { list, cue, others } of brokenLooks(show)) {
    const fixtures = others.map((o) => o.fixture);
    const words = [
      [others.filter((o) => o.how === "dark").length, "dark now"],
      [others.filter((o) => o.how === "lit").length, "lit now"],
      [others.filter((o) => o.how === "values").length, "changed"],
    ].flatMap(([n, what]) => ((n as number) > 0 ? [`${n} ${what}`] : []));
    yield {
      key: `signed ${list.id} ${cue.id} ${fixtures.join()}`,
      concern: "Looks that were signed off",
      what: `${cueName(list, cue).replace(/^c/, "C")} does not look as it was signed off`,
      why: `${words.join(", ")}: ${fixturesText(show, fixtures)}.`,
      list: list.id,
      cue: cue.id,
      fixtures,
      cures: [
        { says: "Restore it", intents: [bringBack.of({ list: list.id, cue: cue.id })] },
        { says: "Sign again", intents: [signOff.of({ list: list.id, cue: cue.id })] },
      ],
    };
  }
}
