/** Tells the app where the bridge and the stand-in node of this start are, and their token: the app alone. */
import { readFile } from "node:fs/promises";
import { z } from "@/core/units/zod";

export const dynamic = "force-dynamic";

const OWN = /^(127\.0\.0\.1|localhost)(:\d+)?$/;
const port = z.number().int().min(1).max(65_535).nullable();
const RunningSchema = z.object({ token: z.string(), bridge: port, node: port });

/** What ./bold-comet wrote of this start; a bridge that was started again may have another port. */
async function running(): Promise<z.infer<typeof RunningSchema> | undefined> {
  try {
    return RunningSchema.safeParse(
      JSON.parse(await readFile(/*turbopackIgnore: true*/ process.env.BOLD_COMET_RUNNING ?? "", "utf8")),
    ).data;
  } catch {
    return undefined;
  }
}

export async function GET(request: Request) {
  const site = request.headers.get("sec-fetch-site");
  if (!OWN.test(request.headers.get("host") ?? "") || (site !== null && site !== "same-origin"))
    return Response.json({ error: "only the app itself may ask" }, { status: 403 });
  const { token = "", bridge = null, node = null } = (await running()) ?? {};
  return Response.json({ token, bridge, node }, { headers: { "cache-control": "no-store" } });
}
