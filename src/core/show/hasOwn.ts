/** What a record holds itself under a name from outside; never what every object has (`constructor`, `toString`). */
export const own = <T>(record: Readonly<Record<string, T>>, name: string): T | undefined =>
  Object.hasOwn(record, name) ? record[name] : undefined;
