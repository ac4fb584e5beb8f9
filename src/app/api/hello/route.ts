/** Tells a second start that a Bold Comet is running here. */
export function GET() {
  return Response.json({ app: "bold-comet" });
}
