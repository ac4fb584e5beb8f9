/** With its first letter large: for what is told in the middle of a sentence elsewhere. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
