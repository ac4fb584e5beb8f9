/** The columns of sheets of values: the fixture, and each attribute. */
import { attributeInfo, attributesKnown } from "@/core/fixture/attribute";
import type { SheetColumn } from "./view";

export const FIXTURE: SheetColumn = {
  id: "fixture",
  title: "Fixture",
  hint: "Number and name",
  width: 190,
  kind: "text",
  fixed: true,
};

/** Every attribute as a column. */
export const valueColumns = (): readonly SheetColumn[] => [
  FIXTURE,
  ...attributesKnown()
    .filter((a) => a.name !== "Control1")
    .map(({ name, family }): SheetColumn => ({
      id: name,
      title: attributeInfo(name).label,
      hint: family,
      width: 84,
      kind: "live",
    })),
];
