/** Catches a fixture type that does not come back from its own GDTF file, or one of another hand read wrongly. */
import { isRefusal } from "../../show/refusal";
import { LIBRARY } from "../../fixture/library/library";
import { readGdtf, writeGdtf } from "./file";

const bare = (t: object) => {
  const { id: _i, kind: _k, guid: _g, file: _f, ...rest } = t as Record<string, unknown>;
  return rest;
};

test.each(LIBRARY.map((t) => [t.id, t] as const))("%s comes back from its GDTF file as it was", (_, type) => {
  const read = readGdtf(writeGdtf(type), { types: {} });
  if (isRefusal(read)) throw new Error(read.what);
  expect(read.notes).toEqual([]);
  expect(bare(read.type)).toEqual(bare(type));
  expect(read.type.kind).toBe(type.kind);
  expect(read.type.id).toBe(type.id);
});
