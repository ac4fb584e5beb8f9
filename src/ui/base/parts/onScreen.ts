/** Putting what changes with every frame on screen: only where it is another, and in a way that lays nothing out anew. */

export function putText(element: Element, text: string): void {
  if (element.textContent !== text) element.textContent = text;
}

/** How much of a bar is full. @param share 0..1; told in steps that nobody sees. @param shown whether it is seen at all. */
export function putShare(bar: HTMLElement, share: number, shown = true): void {
  const transform = `scaleX(${Math.round(share * 1000) / 1000})`;
  if (bar.style.transform !== transform) bar.style.transform = transform;
  const opacity = shown ? "1" : "0";
  if (bar.style.opacity !== opacity) bar.style.opacity = opacity;
}
