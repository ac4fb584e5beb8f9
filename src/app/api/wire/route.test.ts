/** Catches a token told to anybody but the app, and ports that are not those of this start. */
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { GET } from "./route";

const file = join(mkdtempSync(join(tmpdir(), "bold-comet-route-")), "running.json");
const ask = (headers: Record<string, string>) => GET(new Request("http://127.0.0.1:4610/api/wire", { headers }));
const own = { host: "127.0.0.1:4610", "sec-fetch-site": "same-origin" };
beforeAll(() => void (process.env.BOLD_COMET_RUNNING = file));

test("the app learns ports and token, also of a bridge started again; nobody else does", async () => {
  writeFileSync(file, JSON.stringify({ token: "secret", bridge: 5001, node: null, processes: [] }));
  expect(await (await ask(own)).json()).toEqual({ token: "secret", bridge: 5001, node: null });
  writeFileSync(file, JSON.stringify({ token: "secret", bridge: 5002, node: 5003, processes: [] }));
  expect(await (await ask(own)).json()).toEqual({ token: "secret", bridge: 5002, node: 5003 });
  for (const headers of [
    { host: "127.0.0.1:4610", "sec-fetch-site": "cross-site" },
    { host: "evil.example" },
    { host: "127.0.0.1.evil.example" },
    {},
  ]) {
    const answer = await ask(headers as unknown as Record<string, string>);
    expect(answer.status).toBe(403);
    expect(await answer.text()).not.toContain("secret");
  }
});

test.each(["", "{", '{"token":1}', "null"])("a file that says nothing (%s) gives nowhere to send to", async (text) => {
  writeFileSync(file, text);
  expect(await (await ask(own)).json()).toEqual({ token: "", bridge: null, node: null });
});
