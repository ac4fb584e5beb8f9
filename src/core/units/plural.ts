/** A count with its noun: "1 cue", "1,500 cues", "2 looks change". @param many of other counts than one, where an s does not make it. */
export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString("en")} ${n === 1 ? one : many}`;
