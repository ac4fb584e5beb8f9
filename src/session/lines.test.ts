/** Catches a history of lines that a drag or a round of clicks floods, or that says something else than was done. */
import { newDesk, runLine } from "@/core/desk/desk";
import { hold } from "@/core/program/intents";
import { select } from "@/core/select/intents";
import { lineText, withLine, type DoneLine } from "./lines";

const desk = newDesk();
for (const line of ["patch 4 dimmer as 1", "1 thru 2"]) runLine(desk, line);
const before = desk.world;
const ids = Object.keys(before.show.fixtures);
const held = (value: number) => ({
  before,
  intents: [
    hold.of({
      values: Object.fromEntries(ids.slice(0, 2).map((id) => [`${id}.0.Dimmer`, { attribute: "Dimmer", value }])),
    }),
  ],
});
const chosen = (n: number) => ({ before, intents: [select.of({ items: ids.slice(0, n) })] });

test("what hands did is told as the line that does it; drags and rounds of clicks are one", () => {
  let lines: readonly DoneLine[] = withLine([], "1 thru 2");
  lines = withLine(lines, held(10));
  lines = withLine(lines, held(20), true);
  lines = withLine(lines, held(35), true);
  lines = withLine(lines, chosen(1));
  lines = withLine(lines, chosen(3));
  expect(lines.map(lineText)).toEqual(["1 thru 2", "at 35", "1 thru 3"]);
  lines = withLine(lines, "1 thru 2");
  expect(lines.map(lineText)).toEqual(["at 35", "1 thru 3", "1 thru 2"]);
});
