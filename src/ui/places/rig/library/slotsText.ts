/** Slots as paper has them: 5, 5-6, or 5, 9 where they do not follow each other. */
export const slotsText = (slots: readonly number[]): string =>
  slots.length > 1 && slots.every((s, k) => s === slots[0]! + k) ? `${slots[0]}-${slots.at(-1)}` : slots.join(", ");
