/** The small picture of a moment: the cue the armed list stands in, else its first. */
import { cuesOf } from "@/core/show/world";
import type { Session } from "./state";

const SIZE = { width: 168, height: 120 };
/** A picture that takes longer is done without, milliseconds. */
const PATIENCE_MS = 8000;

/** @returns a data address; undefined where there is no cue, or the picture does not come. */
export async function momentPicture(session: Pick<Session, "picture" | "store">): Promise<string | undefined> {
  const { world, playing } = session.store.getState();
  const list = world.show.lists[world.hands.armed] ?? Object.values(world.show.lists)[0];
  const cue = list && (playing.runs[list.id]?.cue ?? cuesOf(list)[0]?.id);
  if (!list || !cue) return undefined;
  const bitmap = await new Promise<ImageBitmap | null>((resolve) => {
    const forget = session.picture(
      { list: list.id, cue, ...SIZE, daylight: false, have: "", then: false },
      (_, made) => (clearTimeout(late), resolve(made)),
    );
    const late = setTimeout(() => (forget(), resolve(null)), PATIENCE_MS);
  });
  if (!bitmap) return undefined;
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.getContext("bitmaprenderer")!.transferFromImageBitmap(bitmap);
  const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: "image/webp", quality: 0.7 })).arrayBuffer());
  return `data:image/webp;base64,${btoa(String.fromCharCode(...bytes))}`;
}
