export default async function stop(): Promise<void> {
  await (globalThis as { stopPlaces?: () => Promise<void> }).stopPlaces?.();
}
