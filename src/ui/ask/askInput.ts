/** The one Ask bar's field, for the keys. */
export const ASK_ID = "ask";
export const askInput = (): HTMLInputElement | null => document.getElementById(ASK_ID) as HTMLInputElement | null;
