/** Every key there is, in one place. */
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
  {
    id: "escape",
    keys: "Escape",
    shown: "Esc",
    does: "Close what is open, then empty the line, then drop the selection",
  },
  { id: "clear", keys: "Shift+Escape", shown: "Shift Esc", does: "Let go of everything held" },
];

/** What the patch table does with keys while it has the focus: bound there, told of here. */
export const TABLE_KEYS: readonly Pick<KeyBinding, "id" | "shown" | "does">[] = [
  { id: "table-move", shown: "arrows", does: "Go to another cell; with Shift take a range, with Ctrl go to the end" },
  { id: "table-edit", shown: "Enter, F2", does: "Edit the cell; typing starts afresh. Over a range a start counts on" },
  { id: "table-copy", shown: "Ctrl C, Ctrl V", does: "Copy to and paste from a spreadsheet" },
  { id: "table-all", shown: "Ctrl A", does: "Take the whole table" },
  { id: "table-empty", shown: "Del", does: "Empty names, notes and addresses" },
  { id: "table-leave", shown: "Esc", does: "Drop a draft that clashes, then leave the table" },
];

export const shownKey = (id: string): string => KEYS.find((key) => key.id === id)?.shown ?? "";
