const BROWSER = "bold-comet-browser";

/** Names this browser towards the bridge, so that all windows of a show count as one. */
export function browserId(): string {
  try {
    const known = localStorage.getItem(BROWSER);
    if (known && /^[0-9a-f-]{36}$/.test(known)) return known;
    const made = crypto.randomUUID();
    localStorage.setItem(BROWSER, made);
    return made;
  } catch {
    return crypto.randomUUID();
  }
}
