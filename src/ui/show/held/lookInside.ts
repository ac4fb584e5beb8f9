export const OPEN = "bold-comet-palette";

/** Opens a palette, from wherever it is named. */
export const lookInside = (id: string): void => void dispatchEvent(new CustomEvent(OPEN, { detail: id }));
