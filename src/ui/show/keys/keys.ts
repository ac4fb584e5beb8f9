/** Every key there is, in one place. */
import type { KeyChanges } from "@/ui/base/preferences/registry";

export interface KeyBinding {
  id: string;
  /** As tinykeys writes it. */
  keys: string;
  /** As people read it. */
  shown: string;
  does: string;
}

export const KEYS: readonly KeyBinding[] = [
  { id: "go", keys: "Space", shown: "Space", does: "Go on the armed list" },
  { id: "back", keys: "Shift+Space", shown: "Shift Space", does: "Back on the armed list" },
  { id: "pause", keys: "Period", shown: ".", does: "Pause the armed list" },
  { id: "help", keys: "Shift+?", shown: "?", does: "Show all keys" },
  { id: "handbook", keys: "F1", shown: "F1", does: "Open the handbook: every command with an example" },
  { id: "undo", keys: "$mod+z", shown: "Ctrl Z", does: "Undo" },
  { id: "redo", keys: "$mod+Shift+Z", shown: "Ctrl Shift Z", does: "Redo" },
  { id: "rig", keys: "Alt+1", shown: "Alt 1", does: "Rig" },
  { id: "build", keys: "Alt+2", shown: "Alt 2", does: "Build" },
  { id: "cues", keys: "Alt+3", shown: "Alt 3", does: "Cues" },
  { id: "run", keys: "Alt+4", shown: "Alt 4", does: "Run" },
  { id: "check", keys: "Alt+5", shown: "Alt 5", does: "Check" },
  { id: "effect", keys: "Alt+e", shown: "Alt E", does: "In Build: open or close the effect editor" },
  { id: "room", keys: "Alt+r", shown: "Alt R", does: "The stage as a room in three dimensions; again: from above" },
  {
    id: "before",
    keys: "Alt+b",
    shown: "Alt B",
    does: "In the effect editor: compare before and after",
  },
  { id: "step-next", keys: "Alt+n", shown: "Alt N", does: "The next step of the selection" },
  { id: "step-previous", keys: "Alt+p", shown: "Alt P", does: "The step before" },
  { id: "step-whole", keys: "Alt+w", shown: "Alt W", does: "The whole selection again" },
  { id: "highlight", keys: "Alt+h", shown: "Alt H", does: "Highlight the selection, and end it" },
  {
    id: "blind",
    keys: "Alt+Shift+L",
    shown: "Alt Shift L",
    does: "Blind: set values without output; again: put them on stage",
  },
  { id: "peek", keys: "Alt+l", shown: "Alt L", does: "While blind: the live stage, and back" },
  {
    id: "escape",
    keys: "Escape",
    shown: "Esc",
    does: "Close what is open, then clear the line, then deselect",
  },
  { id: "tap", keys: "Alt+t", shown: "Alt T", does: "Tap the speed of the armed list" },
  ...([1, 2, 3, 4] as const).flatMap((n): KeyBinding[] => [
    {
      id: `macro-${n}`,
      keys: `Control+Shift+Digit${n}`,
      shown: `Ctrl Shift ${n}`,
      does: `Run the ${["first", "second", "third", "fourth"][n - 1]} macro`,
    },
    {
      id: `view-${n}`,
      keys: `Alt+Shift+Digit${n}`,
      shown: `Alt Shift ${n}`,
      does: `Arrange a place by the ${["first", "second", "third", "fourth"][n - 1]} view`,
    },
    {
      id: `page-${n}`,
      keys: `Control+Alt+Digit${n}`,
      shown: `Ctrl Alt ${n}`,
      does: `Show the ${["first", "second", "third", "fourth"][n - 1]} page of the deck`,
    },
  ]),
  { id: "clear", keys: "Shift+Escape", shown: "Shift Esc", does: "Clear the programmer" },
  { id: "select-all", keys: "$mod+a", shown: "Ctrl A", does: "Select all fixtures; in a table, take all of it" },
];

/** What sheets do with keys while it has the focus: bound there, told of here. */
export const TABLE_KEYS: readonly Pick<KeyBinding, "id" | "shown" | "does">[] = [
  { id: "table-move", shown: "arrows", does: "Go to another cell; with Shift take a range, with Ctrl go to the end" },
  { id: "table-edit", shown: "Enter, F2", does: "Edit the cell; typing starts afresh. Over a range a start counts on" },
  { id: "table-copy", shown: "Ctrl C, Ctrl V", does: "Copy to and paste from a spreadsheet" },
  { id: "table-empty", shown: "Del", does: "Empty names, notes and addresses; clear held values" },
  { id: "table-leave", shown: "Esc", does: "Drop a draft that clashes, then leave the table" },
];

/** All keys with the changes; what is changed is shown as it is pressed. */
export const keysWith = (changes: KeyChanges): readonly KeyBinding[] =>
  KEYS.map((key) => (changes[key.id] ? { ...key, keys: changes[key.id]!, shown: shownKeys(changes[key.id]!) } : key));

const NAMES: Record<string, string> = {
  $mod: "Ctrl",
  Control: "Ctrl",
  Period: ".",
  Comma: ",",
  Slash: "/",
  Minus: "-",
  Equal: "=",
};

/** Keys as people read them: "Control+Shift+KeyG" is "Ctrl Shift G". */
export const shownKeys = (keys: string): string =>
  keys
    .split("+")
    .map(
      (part) => NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part.replace(/^(Key|Digit|Numpad(?=\d))/, "")),
    )
    .join(" ");

const MODIFIERS = ["Control", "Alt", "Shift", "Meta"] as const;
type Pressed = Pick<KeyboardEvent, "code" | "key" | "ctrlKey" | "altKey" | "shiftKey" | "metaKey">;

/** What was pressed, as tinykeys writes it; undefined while only a modifier is down. */
export function pressedKeys(event: Pressed): string | undefined {
  if ((MODIFIERS as readonly string[]).includes(event.key) || event.code === "") return undefined;
  const down = [event.ctrlKey, event.altKey, event.shiftKey, event.metaKey];
  return [...MODIFIERS.filter((_, k) => down[k]), event.code].join("+");
}

/** Why keys cannot be taken for something; undefined where they can. */
export function keysRefused(changes: KeyChanges, id: string, keys: string): string | undefined {
  if (/^(Shift\+)?(Key.|Digit\d|Numpad\d)$/.test(keys))
    return "A letter or digit by itself begins a line in the Ask bar: take it with Ctrl or Alt";
  const other = keysWith(changes).find((key) => key.id !== id && shownKeys(key.keys) === shownKeys(keys));
  return other && `${other.shown} is "${other.does}" already`;
}
