/** Catches the interface running lines of its own making: what hands do is done in the typed way. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

/** The Ask bar and the line it shows in pictures are what a person typed; beginners' paths run the lines they show to be typed. */
const TYPED = ["AskBar.tsx", "FirstSteps.tsx", "RipplePanel.tsx", "WorthTrying.tsx"];

test("only what a person typed or recorded is run as text", () => {
  const running = readdirSync(join(__dirname, "../.."), { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile() && /(?<!\.test)\.tsx?$/.test(f.name))
    .filter((f) => /\bsession\.run\(/.test(readFileSync(join(f.parentPath, f.name), "utf8")))
    .map((f) => f.name);
  expect(running.sort()).toEqual(TYPED);
});
