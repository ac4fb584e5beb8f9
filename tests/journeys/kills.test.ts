/** Catches a show that does not come back as it was said to be saved: a few kills of the browser process. More: npm run kills -- 200. */
import { spawn } from "node:child_process";
import { join } from "node:path";

const root = join(__dirname, "../..");

test("killed at random moments, the browser opens the show as it was", async () => {
  const child = spawn(process.execPath, [join(root, "tools/run-bundled.mjs"), "tests/kills/kills.ts", "2", "7"], {
    cwd: root,
    stdio: ["ignore", "pipe", "pipe"],
  });
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (text) => (said += String(text)));
  const code = await new Promise((resolve) => child.once("close", resolve));
  expect({ code, said }).toEqual({ code: 0, said: expect.stringMatching(/2 kills, \d+ edits, .*, 0 failures/) });
});
