/** The worker's side of a world that is handed on in pieces. */
import { gatherPieces, type Part } from "@/core/units/pieces";
import { z } from "@/core/units/zod";

export const PieceSchema = z.object({
  kind: z.literal("piece"),
  piece: z.array(z.custom<Part>((v) => Array.isArray(v) && v.length === 2 && Array.isArray(v[0]))),
});
export type PieceMessage = z.infer<typeof PieceSchema>;
const OpensSchema = z.looseObject({ kind: z.literal("open"), world: z.null() });

/** @returns what takes each message that comes: a piece is gathered, and then there is none; what opens without a world gets the one that came in pieces. */
export function createOpening(): (data: unknown) => unknown {
  let pieces = gatherPieces();
  return (data) => {
    const piece = PieceSchema.safeParse(data);
    if (piece.success) return void pieces.take(piece.data.piece);
    const opens = OpensSchema.safeParse(data);
    if (!opens.success) return data;
    const world = pieces.document();
    pieces = gatherPieces();
    return { ...opens.data, world };
  };
}
