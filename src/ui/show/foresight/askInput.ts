/** The one Ask bar's field, for the keys. */
export const ASK_ID = "ask";
export const askInput = (): HTMLInputElement | null => document.getElementById(ASK_ID) as HTMLInputElement | null;

/** Puts a line into the Ask bar as if it were typed, so that it says what the line would do. */
export function putIntoAsk(line: string): void {
  const field = askInput();
  if (!field) return;
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!.call(field, line);
  field.dispatchEvent(new Event("input", { bubbles: true }));
  if (line !== "") field.focus();
}
