/** Values as they are typed into fields and cells. */

export interface TypedAmounts {
  /** Whether they are added to what is there. */
  relative: boolean;
  amounts: string;
  /** Seconds it takes to get there. */
  over?: number;
}

/**
 * "20 to 80"; "by 5", "+5" and "-5", which are added to what is there and keep differences; "=-5", which is set; "50 over
 * 3". A spread that begins with a minus is set as it stands, as "-20 to 20" is.
 */
export function typedAmounts(typed: string): TypedAmounts {
  const found = /^\s*(by\s+|=\s*)?(.*?)(?:\s+over\s+(\d+(?:\.\d+)?)\s*s?)?\s*$/i.exec(typed);
  if (!found) return { relative: false, amounts: typed };
  const [, word = "", amounts = ""] = found;
  const signed = word === "" && (/^\+\s*\d/.test(amounts) || (/^-\s*\d/.test(amounts) && !/\bto\b/i.test(amounts)));
  const seconds = found[3] === undefined ? undefined : Math.min(86_400, Number(found[3]));
  return {
    relative: signed || /^by/i.test(word),
    amounts: signed ? amounts.replace(/^([+-])\s+/, "$1") : amounts,
    ...(seconds === undefined ? {} : { over: seconds }),
  };
}

/** The same as a setting of the command language, for the Ask bar to say beforehand. @param what an attribute as it is typed. */
export function typedLine(typed: string, what: string): string | null {
  const { relative, amounts, over } = typedAmounts(typed);
  if (amounts.trim() === "") return null;
  return `${what} ${relative ? "by" : "at"} ${amounts.replace(/^\+/, "")}${over === undefined ? "" : ` over ${over}`}`;
}
