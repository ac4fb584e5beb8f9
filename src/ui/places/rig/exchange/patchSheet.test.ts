/** Catches a patch sheet that says something else than the show. */
import { newDesk, runLine } from "@/core/desk/desk";
import { patchSheet } from "./patchSheet";

test("the sheet lists universes in order, unpatched fixtures last, and nothing of a name becomes markup", () => {
  const desk = newDesk();
  for (const line of [
    "patch 1 dimmer as 9 at 2:5",
    "patch 2 kelp-wash as 1 at 1:1",
    "patch 1 dimmer as 20 unpatched",
    '9 name "<script>alert(1)</script>"',
    '1 note "a & b"',
  ])
    expect(runLine(desk, line)).toBeUndefined();
  const sheet = patchSheet(desk.world.show);
  expect(sheet).not.toContain("<script>");
  expect(sheet).toContain("a &#38; b");
  expect(
    ["Universe 1", "1:1 - 12", "1:13 - 24", "Universe 2", "2:5 - 5", "Unpatched"].map((text) => sheet.indexOf(text)),
  ).toEqual(
    [
      ...["Universe 1", "1:1 - 12", "1:13 - 24", "Universe 2", "2:5 - 5", "Unpatched"].map((text) =>
        sheet.indexOf(text),
      ),
    ].sort((a, b) => a - b),
  );
  expect(sheet.indexOf("Unpatched")).toBeGreaterThan(0);
});
