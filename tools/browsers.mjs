// A first show by pointer, an effect, the room, and a reload in mid fade, in browsers beside chromium: Debian's Firefox
// by puppeteer and WebKit by its own driver. They are installed where they are missing; the app is to be built.
import { spawn, spawnSync } from "node:child_process";
import { once } from "node:events";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import puppeteer from "puppeteer-core";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const PORT = 4661;
const base = `http://127.0.0.1:${PORT}`;
const PATIENCE_MS = 90_000;
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Firefox, by what is common to both. */
async function firefox() {
  const browser = await puppeteer.launch({
    browser: "firefox",
    executablePath: "/usr/bin/firefox-esr",
    headless: true,
  });
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  return {
    name: await browser.version(),
    open: (address) => page.goto(address),
    reload: () => page.reload(),
    ask: (text) => page.evaluate(text),
    press: (x, y) => page.mouse.click(x, y),
    type: (text) => page.keyboard.type(text),
    enter: () => page.keyboard.press("Enter"),
    close: () => browser.close(),
  };
}

/** WebKit, through its WebDriver, on a screen of its own. */
async function webkit() {
  const screen = spawn("Xvfb", [":97", "-screen", "0", "1400x1000x24", "-nolisten", "tcp"], { stdio: "ignore" });
  await pause(1500);
  const driver = spawn("WebKitWebDriver", ["--port=4662", "--host=127.0.0.1"], {
    stdio: "ignore",
    env: { ...process.env, DISPLAY: ":97", WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: "1" },
  });
  await pause(1500);
  const send = async (method, path, body) => {
    const answer = await fetch(`http://127.0.0.1:4662${path}`, {
      method,
      ...(body ? { body: JSON.stringify(body), headers: { "content-type": "application/json" } } : {}),
    });
    const { value } = await answer.json();
    if (!answer.ok) throw new Error(`${path}: ${value.message}`);
    return value;
  };
  const { sessionId, capabilities } = await send("POST", "/session", { capabilities: { alwaysMatch: {} } });
  const at = `/session/${sessionId}`;
  await send("POST", `${at}/window/rect`, { width: 1280, height: 800 });
  const act = (id, type, actions, more = {}) =>
    send("POST", `${at}/actions`, { actions: [{ id, type, actions, ...more }] });
  const keys = (text) =>
    act(
      "keys",
      "key",
      [...text].flatMap((value) => [
        { type: "keyDown", value },
        { type: "keyUp", value },
      ]),
    );
  return {
    name: `${capabilities.browserName} ${capabilities.browserVersion}`,
    open: (url) => send("POST", `${at}/url`, { url }),
    reload: () => send("POST", `${at}/refresh`, {}),
    ask: (text) => send("POST", `${at}/execute/sync`, { script: `return (${text});`, args: [] }),
    press: (x, y) =>
      act(
        "mouse",
        "pointer",
        [
          { type: "pointerMove", duration: 0, x: Math.round(x), y: Math.round(y) },
          { type: "pointerDown", button: 0 },
          { type: "pointerUp", button: 0 },
        ],
        { parameters: { pointerType: "mouse" } },
      ),
    type: keys,
    enter: () => keys("\uE007"),
    async close() {
      await send("DELETE", at).catch(() => undefined);
      driver.kill();
      screen.kill();
    },
  };
}

/** Waits until something asked of the page is so. */
async function until(page, what, text) {
  const end = Date.now() + PATIENCE_MS;
  for (;;) {
    const found = await page.ask(text).catch(() => null);
    if (found) return found;
    if (Date.now() > end) throw new Error(`not within ${PATIENCE_MS / 1000} s: ${what}`);
    await pause(150);
  }
}

/** Presses what is in sight and is called so, as a hand does. */
async function press(page, name, within = "document") {
  const middle = `(() => {
    const named = (e) => (e.getAttribute("aria-label") ?? e.textContent ?? "").trim();
    const all = [...(${within}).querySelectorAll("button, a, [role=tab], [role=menuitem]")];
    const found = all.find((e) => named(e) === ${JSON.stringify(name)} && e.getBoundingClientRect().width > 0);
    if (!found) return null;
    const { x, y, width, height } = found.getBoundingClientRect();
    return [x + width / 2, y + height / 2];
  })()`;
  const [x, y] = await until(page, `a button ${name}`, middle);
  await page.press(x, y);
}

async function line(page, text) {
  const [x, y] = await until(
    page,
    "the Ask bar",
    `(() => { const r = document.getElementById("ask")?.getBoundingClientRect(); return r && [r.x + 20, r.y + r.height / 2]; })()`,
  );
  await page.press(x, y);
  await page.type(text);
  await page.enter();
  await until(
    page,
    text,
    `document.querySelector("[data-testid=ask-last]")?.lastElementChild.textContent === ${JSON.stringify(text)}`,
  );
}

const bytes = (check) =>
  `(() => { const c = document.querySelector("[data-testid=dmx]")?.children; const b = c && [...c].map((e) => +e.lastElementChild.textContent); return !!b && (${check})(b); })()`;

const FIRST = `document.querySelector("[aria-label='First steps']")`;
const ticked = (n) => `${FIRST}.querySelectorAll("[aria-label=done]").length === ${n}`;

const JOURNEY = [
  [
    "a first show by pointer",
    async (page) => {
      await page.open(base);
      await until(page, "the list of shows", `!!document.querySelector("[data-ready=true]")`);
      await press(page, "New show");
      for (const [k, name] of [
        "Patch 12 spots",
        "Record a group",
        "Make starter palettes",
        "Record a cue",
        "Play it",
      ].entries()) {
        await press(page, name, FIRST);
        await until(page, `step ${k + 1} ticked`, ticked(k + 1));
      }
    },
  ],
  [
    "a cue played to its bytes",
    async (page) => {
      await press(page, "Universes");
      await press(page, "Universe 1").catch(() => undefined);
      await until(page, "dimmers at full", bytes("(b) => b.filter((v) => v === 255).length >= 12"));
    },
  ],
  [
    "a reload in mid fade",
    async (page) => {
      for (const text of ["all at 20", 'record cue 2 "Low" fade 20', "clear", "go cue 2"]) await line(page, text);
      await until(page, "the fade on its way", bytes("(b) => b.some((v) => v > 60 && v < 240)"));
      await page.reload();
      await until(page, "the fade goes on", bytes("(b) => b.some((v) => v > 60 && v < 230)"));
      await until(page, "the fade complete", bytes("(b) => b.filter((v) => v === 51).length >= 12"));
    },
  ],
  [
    "the effect editor",
    async (page) => {
      await page.ask(
        `history.pushState(null, "", location.pathname.replace(/[^/]+$/, "build")) ?? dispatchEvent(new PopStateEvent("popstate")) ?? true`,
      );
      await line(page, "1 thru 12 tilt wave sine relative size 20 bpm 30");
      await press(page, "Effect");
      await until(page, "its wave", `!!document.querySelector("[aria-label='Effect editor'] svg")`);
    },
  ],
  [
    "the room",
    async (page) => {
      await press(page, "Shelf");
      await press(page, "Show the room in three dimensions");
      await until(
        page,
        "its picture",
        // Without WebGL, as a headless Firefox may be, the room says so and the way back stays.
        `!!document.querySelector("[aria-label='Save this viewpoint']") && !!document.querySelector("[aria-label='Show the plan']") && (/does not draw in three dimensions/.test(document.body.innerText) ? !document.createElement("canvas").getContext("webgl2") : [...document.querySelectorAll("[data-testid=room] canvas")].some((c) => c.width > 200 && c.height > 100))`,
      );
    },
  ],
];

function install(what, packages) {
  if (what.every((name) => spawnSync("which", [name]).status === 0)) return;
  const sudo = process.getuid() === 0 ? [] : ["sudo"];
  console.error(`installing ${packages.join(", ")} ...`);
  const run = (...args) => {
    const [command, ...rest] = [...sudo, ...args];
    if (spawnSync(command, rest, { stdio: ["ignore", "ignore", "inherit"] }).status !== 0) process.exit(1);
  };
  run("apt-get", "update", "-qq");
  run(
    "env",
    "DEBIAN_FRONTEND=noninteractive",
    "apt-get",
    "install",
    "-y",
    "-qq",
    "--no-install-recommends",
    ...packages,
  );
}

install(["firefox-esr", "WebKitWebDriver", "Xvfb"], ["firefox-esr", "webkit2gtk-driver", "xvfb"]);
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(PORT)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await once(server.stdout, "data");
let failed = 0;
try {
  for (const start of [firefox, webkit]) {
    const page = await start();
    console.log(page.name);
    try {
      for (const [what, does] of JOURNEY) {
        await does(page);
        console.log(`  ${what}`);
      }
    } catch (error) {
      failed += 1;
      console.error(`  FAILED: ${error.message}`);
    } finally {
      await page.close();
    }
  }
} finally {
  server.kill();
}
process.exit(failed > 0 ? 1 : 0);
