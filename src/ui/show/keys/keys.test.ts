/** Catches keys that cannot be pressed, mean two things, or steal what is typed. */
import { KEYS, keysRefused, keysWith, pressedKeys, shownKeys } from "./keys";

const press = (
  code: string,
  key: string,
  down: Partial<Record<"ctrlKey" | "altKey" | "shiftKey" | "metaKey", true>> = {},
) => pressedKeys({ code, key, ctrlKey: false, altKey: false, shiftKey: false, metaKey: false, ...down });

test("what is pressed is written as it is bound, and read as people say it", () => {
  expect(press("KeyG", "g", { ctrlKey: true, shiftKey: true })).toBe("Control+Shift+KeyG");
  expect(shownKeys("Control+Shift+KeyG")).toBe("Ctrl Shift G");
  expect(press("ShiftLeft", "Shift", { shiftKey: true })).toBeUndefined();
});

test("no key means two things, changed or not", () => {
  expect(new Set(KEYS.map((k) => shownKeys(k.keys))).size).toBe(KEYS.length);
  expect(keysRefused({}, "go", "F8")).toBeUndefined();
  expect(keysRefused({}, "go", "Control+KeyZ")).toMatch(/Undo/);
  expect(keysRefused({ go: "F8" }, "back", "F8")).toMatch(/Go on the armed list/);
  expect(keysRefused({ go: "F8" }, "back", "Space")).toBeUndefined();
  expect(keysWith({ go: "F8" }).find((k) => k.id === "go")).toMatchObject({ keys: "F8", shown: "F8" });
});

test("letters and digits go on beginning a line", () => {
  expect(keysRefused({}, "go", "KeyG")).toMatch(/Ask bar/);
  expect(keysRefused({}, "go", "Alt+KeyG")).toBeUndefined();
});
