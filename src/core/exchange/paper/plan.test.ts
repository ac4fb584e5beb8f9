/** Catches a plan that is not to its scale, leaves something out, or lets a name become markup. */
import { demoWorld } from "@tests/setup/demo";
import { newDesk, runLine } from "../../desk/desk";
import { planSheet, sheetSvg, type Mark } from "./plan";

const textAt = (marks: readonly Mark[], text: string) =>
  marks.find((m): m is Extract<Mark, { kind: "text" }> => m.kind === "text" && m.text === text && m.strong === true)!
    .at;

test("lamps stand as far apart on paper as the scale says, and everything is on the sheet", () => {
  const { show } = demoWorld();
  const { marks, scale, width, height } = planSheet(show);
  const [a, b] = [textAt(marks, "1"), textAt(marks, "12")];
  // 10.8 metres from end to end of the mast truss.
  expect(((b[0] - a[0]) * scale) / 1000).toBeCloseTo(10.8, 3);
  expect(a[1]).toBeCloseTo(b[1], 6);
  // Upstage is up.
  expect(textAt(marks, "71")[1]).toBeGreaterThan(a[1]);
  for (const fixture of Object.values(show.fixtures)) expect(textAt(marks, String(fixture.number))).toBeDefined();
  for (const mark of marks)
    for (const [x, y] of mark.kind === "line" ? mark.points : [mark.at]) {
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(width);
      expect(y).toBeGreaterThanOrEqual(0);
      expect(y).toBeLessThanOrEqual(height);
    }
});

test("what is out of service is crossed and not counted, and nothing of a name becomes markup", () => {
  const desk = newDesk();
  for (const line of ["patch 3 dimmer as 1", "2 out of service on", 'draw area from 0 0 to 2 2 name "<b>deck</b>"'])
    expect(runLine(desk, line)).toBeUndefined();
  const svg = sheetSvg(planSheet(desk.world.show));
  expect(svg).toContain("2 fixtures, 1 out of service");
  expect(svg).toContain("2 × Dimmer");
  expect(svg).not.toContain("<b>");
  expect(svg.startsWith("<svg ")).toBe(true);
});

test("types of one kind are told apart in the legend and on the plan", () => {
  const desk = newDesk();
  for (const line of ["patch 2 dimmer as 1", "patch 2 twin-blinder as 11", "patch 1 kelp-wash as 21"])
    expect(runLine(desk, line)).toBeUndefined();
  const { marks } = planSheet(desk.world.show);
  const letters = marks.flatMap((m) => (m.kind === "text" && /^[A-Z]$/.test(m.text) ? [m.text] : []));
  expect(letters.sort()).toEqual(["A", "A", "A", "B", "B", "B"]);
});
