/** Tells the app where the bridge and the stand-in node of this start are, and their token: the app alone. */
export const dynamic = "force-dynamic";

const OWN = /^(127\.0\.0\.1|localhost)(:\d+)?$/;

export function GET(request: Request) {
  const site = request.headers.get("sec-fetch-site");
  if (!OWN.test(request.headers.get("host") ?? "") || (site !== null && site !== "same-origin")) return Response.json({ error: "only the app itself may ask" }, { status: 403 });
  const { BOLD_COMET_TOKEN = "", BOLD_COMET_BRIDGE_PORT = "", BOLD_COMET_NODE_PORT = "" } = process.env;
  const port = (text: string) => (text === "" ? null : Number(text));
  return Response.json({ token: BOLD_COMET_TOKEN, bridge: port(BOLD_COMET_BRIDGE_PORT), node: port(BOLD_COMET_NODE_PORT) }, { headers: { "cache-control": "no-store" } });
}
