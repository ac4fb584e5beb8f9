/** The demo show, "The Salt Lantern": a puppet opera on a moored barge, built line by line like any show. */
import { recordView } from "../deck/intents";
import { newDesk, runLine } from "../desk/desk";
import { INTENTS } from "../intents";
import { applyIntents } from "../show/change/intent";
import { isRefusal, refusalText } from "../show/refusal";
import { newWorld, type World } from "../show/world";
import { ACT_TWO } from "./saltLanternActTwo";
import { DECK } from "./saltLanternDeck";
import { MAIN_CUES, OTHER_LISTS } from "./saltLanternCues";
import { EFFECTS } from "./saltLanternEffects";
import { PALETTES } from "./saltLanternPalettes";

const round = (value: number): number => Math.round(value * 100) / 100;

/** The lanterns hang in an arc over the deck. */
const lanternArc = Array.from({ length: 24 }, (_, i) => {
  const t = i / 23;
  const x = -7.4 + 14.8 * t;
  return `${41 + i} place ${round(x)} ${round(9.6 - 0.034 * x * x)} 5`;
});

const RIG = [
  'patch 12 petrel-spot as 1 at 1:1 name "Mast"',
  'patch 8 kelp-wash as 21 at 2:1 name "Port"',
  'patch 8 kelp-wash as 29 at 2:97 name "Starboard"',
  'patch 24 lantern-par as 41 at 3:1 name "Lantern"',
  'patch 6 tide-bar mode cells as 71 at 3:101 name "Waterline"',
  'patch 6 dimmer as 81 at 4:1 name "Footlight"',
  'patch 4 dimmer as 87 at 4:7 name "Special"',
  'patch 2 squall-strobe as 91 at 4:21 name "Squall"',
  'patch 2 twin-blinder as 93 at 4:31 name "Blinder"',
  'patch 1 foghorn-beams as 95 at 4:41 name "Foghorn"',
  'patch 2 gull-scroller as 96 at 4:51 name "Scroller"',
  'patch 1 mist-hazer as 99 at 4:61 name "Haze"',
  "1 thru 12 place -5.4 to 5.4 7 6",
  "21 thru 28 place -7.4 to -6.8 6.6 to 0.6 3",
  "29 thru 36 place 7.4 to 6.8 6.6 to 0.6 3",
  ...lanternArc,
  "71 thru 76 place -6 to 6 -0.9 0.3",
  "81 thru 86 place -5 to 5 -0.1 0.2",
  "87 thru 90 place -3 to 3 -2.4 6",
  "91 place -4.2 8.2 4",
  "92 place 4.2 8.2 4",
  "93 place -2.4 8.3 4.4",
  "94 place 2.4 8.3 4.4",
  "95 place 0 8.3 5",
  "95 turn -55 0 0",
  "96 place -6.2 7.6 5",
  "97 place 6.2 7.6 5",
  "99 place 7.9 8.4 0",
  'draw truss from -5.9 7 to 5.9 7 name "Mast truss"',
  'draw area from -7.6 -0.5 to 7.6 9.9 name "Deck"',
  'draw line from -7.6 -1.3 to 7.6 -1.3 name "Waterline"',
  'draw round from -1 4.2 to 1 6.2 name "Lighthouse"',
  "output 1 thru 3 artnet to 127.0.0.1 as 0",
  "output 4 sacn to 127.0.0.1 as 4",
];

const GROUPS: [number, string, string][] = [
  [1, "Mast spots", "1 thru 12"],
  [2, "Rail washes", "21 thru 36"],
  [3, "Rail port", "21 thru 28"],
  [4, "Rail starboard", "29 thru 36"],
  [5, "Lantern line", "41 thru 64"],
  [6, "Waterline", "71 thru 76"],
  [7, "Footlights", "81 thru 86"],
  [8, "Booth specials", "87 thru 90"],
  [9, "Storm", "91 thru 94"],
  [10, "Mast odd", "1 thru 12 every 2"],
  [11, "Waterline cells", "71 thru 76 cells"],
];

/** Signs and colours to find groups by, orders worth having, and rails turned straight so that a spread runs along both at once. */
const ARRANGED = [
  "set group 1 colour #9db2ff",
  "set group 2 arrangement rows 8",
  "set group 5 colour #ffd27d",
  "set group 5 sign moon",
  "set group 6 sign wave",
  "set group 9 sign star",
  "41 thru 64",
  "order centre",
  'record group 12 "Lanterns, middle out"',
  "set group 12 sign moon",
  "1 thru 6 + 12 thru 7",
  'record group 13 "Mast, ends in"',
  "set group 13 steps 1 2 3 4 5 6 1 2 3 4 5 6",
];

/** Arrangements of places worth going back to. */
const VIEWS = [
  recordView.of({ number: 1, name: "Focus", place: "build", arrangement: { "bold-comet-shelf-tab": '"Position"' } }),
  recordView.of({ number: 2, name: "Sheet", place: "cues", arrangement: { "bold-comet-cues-shape": '"sheet"' } }),
  recordView.of({ number: 3, name: "Lives", place: "cues", arrangement: { "bold-comet-cues-shape": '"lives"' } }),
];

/** Builds the demo. @throws where one of its own lines is refused: a mistake of ours that a test finds. */
export function makeDemo(): World {
  const desk = newDesk(newWorld("The Salt Lantern"));
  const groups = GROUPS.flatMap(([number, name, sel]) => [sel, `record group ${number} "${name}"`]);
  for (const line of [
    ...RIG,
    ...groups,
    ...ARRANGED,
    "none",
    ...PALETTES,
    ...EFFECTS,
    'set list 1 name "Main"',
    ...MAIN_CUES,
    ...ACT_TWO,
    ...OTHER_LISTS,
    ...DECK,
    "none",
  ]) {
    const refusal = runLine(desk, line);
    if (isRefusal(refusal)) throw new Error(`demo: ${line}: ${refusalText(refusal)}`);
  }
  const done = applyIntents(INTENTS, desk.world, VIEWS);
  if (isRefusal(done)) throw new Error(`demo: ${refusalText(done)}`);
  return done.world;
}
