/** A backup file that is written again and again, where the browser lets a page do so. */
import { writeShowFile } from "@/core/exchange/showFile";
import type { Session } from "@/session/state";

interface FileHandle {
  createWritable(): Promise<{ write(data: BufferSource): Promise<void>; close(): Promise<void> }>;
  name: string;
}
type Picker = (options: { suggestedName: string }) => Promise<FileHandle>;

export const BACKUP_MINUTES = 10;
const picker = (): Picker | undefined => (globalThis as { showSaveFilePicker?: Picker }).showSaveFilePicker;
export const canBackUp = (): boolean => picker() !== undefined;

/** Asks for a file once, writes it now and every ten minutes while this window is open. */
export async function startBackup(session: Session): Promise<void> {
  const { name } = session.store.getState().world.show;
  const handle = await picker()?.({ suggestedName: `${name.replace(/\W+/g, "-").toLowerCase()}.comet.zip` }).catch(
    () => undefined,
  );
  if (!handle) return;
  const write = async () => {
    try {
      const file = await handle.createWritable();
      await file.write(writeShowFile(session.store.getState().world.show) as BufferSource);
      await file.close();
    } catch {
      session.tell(
        `The backup file ${handle.name} could not be written. It is tried again in ${BACKUP_MINUTES} minutes`,
        "refused",
      );
    }
  };
  await write();
  session.tell(`Backed up to ${handle.name}, and again every ${BACKUP_MINUTES} minutes while this window is open`);
  setInterval(() => void write(), BACKUP_MINUTES * 60_000);
}
