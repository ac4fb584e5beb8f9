/** Trusses and set pieces on the plan: lines and shapes to read the room by. */
import { z } from "../units/zod";
import { defineIntent, newId } from "../show/change/intent";
import { IdSchema } from "../show/ids";
import { exact, quote } from "../show/words/lineText";
import { fail } from "../show/refusal";
import { ScenicSchema } from "../show/schema";

const MOST = 1000;

/** Draws a piece, or changes the one of that id. */
export const drawScenic = defineIntent({
  kind: "drawScenic",
  fields: { piece: ScenicSchema.omit({ id: true }), id: IdSchema.optional() },
  apply(world, { piece, id }) {
    if (id !== undefined && !world.show.scenery[id]) fail("that piece is no longer on the plan");
    if (Object.keys(world.show.scenery).length >= MOST)
      fail(`the plan has ${MOST} pieces already`, "Remove some first");
    const own = id ?? newId(world, "s");
    world.show.scenery[own] = { ...piece, id: own };
  },
  says: (_, { piece }) => `draws the ${piece.shape as string}${piece.name ? ` "${piece.name}"` : ""}`,
  lines: ({ show }, { piece, id }) => {
    const [from, to] = [piece.from, piece.to].map(({ x, y }) => `${exact(x)} ${exact(y)}`);
    const old = id === undefined ? undefined : show.scenery[id];
    const draw = `draw ${piece.shape as string} from ${from} to ${to}${piece.name ? ` name ${quote(piece.name)}` : ""}`;
    return [...(old ? [`erase ${quote(old.name)}`] : []), draw];
  },
});

/** Takes the pieces of a name off the plan. */
export const eraseScenic = defineIntent({
  kind: "eraseScenic",
  fields: { name: z.string().optional(), id: IdSchema.optional() },
  apply(world, { name, id }) {
    const gone = Object.values(world.show.scenery).filter((s) =>
      id !== undefined ? s.id === id : s.name.toLowerCase() === name?.toLowerCase(),
    );
    if (gone.length === 0)
      fail(
        `nothing on the plan is called "${name ?? ""}"`,
        `There is ${
          Object.values(world.show.scenery)
            .map((s) => `"${s.name}"`)
            .join(", ") || "no scenery yet"
        }`,
      );
    for (const piece of gone) delete world.show.scenery[piece.id];
  },
  says: ({ show }, { name, id }) => `takes "${name ?? show.scenery[id ?? ""]?.name ?? ""}" off the plan`,
  lines: ({ show }, { name, id }) => [`erase ${quote(name ?? show.scenery[id ?? ""]?.name ?? "")}`],
});
