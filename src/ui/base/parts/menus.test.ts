/** Catches a menu that holds a field, which takes no keys there, or more entries than a hand takes in. */
import { sourcesIn } from "@tests/setup/sources";

const FIELD = /<(NumberInput|NumberField|TextInput|Textarea|Select|Autocomplete|EditableText|input)\b/;
const MOST = 10;
/** What stands under a name of its own is a level of its own. */
const LEVEL = /<Under\b[^]*?<\/Under>/g;

const menus = sourcesIn("ui").flatMap(({ name, text }) =>
  [...text.matchAll(/<Menu\.Dropdown\b[^]*?<\/Menu\.Dropdown>/g)].map((m) => ({ name, text: m[0] })),
);

test("there are menus to look at", () => expect(menus.length).toBeGreaterThan(15));

test.each(menus.map((m) => [m.name, m] as const))("a menu of %s", (_, { text }) => {
  expect(FIELD.exec(text)?.[0]).toBeUndefined();
  const levels = [text.replace(LEVEL, ""), ...(text.match(LEVEL) ?? [])];
  for (const level of levels)
    expect((level.match(/<Menu\.Item\b/g) ?? []).length + (level.match(/<Under\b/g)?.length ?? 0)).toBeLessThanOrEqual(
      MOST,
    );
});
