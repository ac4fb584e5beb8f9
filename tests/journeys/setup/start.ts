import { startPlaces, stopPlaces } from "./places";

export default async function start({ maxWorkers }: { maxWorkers: number }): Promise<void> {
  await startPlaces(maxWorkers);
  (globalThis as { stopPlaces?: () => Promise<void> }).stopPlaces = stopPlaces;
}
