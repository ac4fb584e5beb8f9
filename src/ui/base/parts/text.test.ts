/** Catches the interface running lines of its own making: what hands do is done in the typed way. */
import { sourcesIn } from "@tests/setup/sources";

/** The Ask bar and the line it shows in pictures are what a person typed; beginners' paths run the lines they show to be typed. */
const TYPED = ["AskBar.tsx", "FirstSteps.tsx", "RipplePanel.tsx", "WorthTrying.tsx"];

test("only what a person typed or recorded is run as text", () => {
  const running = sourcesIn("ui").filter(({ text }) => /\bsession\.run\(/.test(text));
  expect(running.map(({ name }) => name).sort()).toEqual(TYPED);
});
