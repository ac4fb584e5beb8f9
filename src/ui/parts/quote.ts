/** A name as the command language writes it. */
export const quote = (text: string): string => `"${text.replaceAll('"', '""')}"`;
