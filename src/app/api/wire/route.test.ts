/** @jest-environment node */
import { GET } from "./route";

const ask = (headers: Record<string, string>) => GET(new Request("http://127.0.0.1:4610/api/wire", { headers }));

test("the app learns ports and token; nobody else does", async () => {
  Object.assign(process.env, { BOLD_COMET_TOKEN: "secret", BOLD_COMET_BRIDGE_PORT: "5001", BOLD_COMET_NODE_PORT: "" });
  const own = ask({ host: "127.0.0.1:4610", "sec-fetch-site": "same-origin" });
  expect(own.status).toBe(200);
  expect(await own.json()).toEqual({ token: "secret", bridge: 5001, node: null });
  for (const headers of [{ host: "127.0.0.1:4610", "sec-fetch-site": "cross-site" }, { host: "evil.example" }, { host: "127.0.0.1.evil.example" }, {}]) {
    const answer = ask(headers as unknown as Record<string, string>);
    expect(answer.status).toBe(403);
    expect(await answer.text()).not.toContain("secret");
  }
});
