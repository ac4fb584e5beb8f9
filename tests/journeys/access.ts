/** What keeps people from using what is shown: axe-core over a place or a dialog, nothing serious. */
import { source } from "axe-core";
import type { Page } from "playwright-core";
import { untilStill, type App } from "./app";

/** How to come to what is looked at; one that is left by `close` is a dialog. */
export type Visit = [what: string, go: () => Promise<unknown>, leave?: () => Promise<unknown>];

interface Finding {
  id: string;
  impact: string;
  where: string[];
}

/** @param within what is looked at; the whole page where there is none. */
async function serious(page: Page, within: string | null): Promise<Finding[]> {
  await page.getByLabel("Opening the place").waitFor({ state: "detached" });
  await untilStill(page);
  await page.evaluate(source);
  return page.evaluate(async (selector) => {
    const { axe } = globalThis as unknown as {
      axe: {
        run(
          of: Element | Document,
          how: { resultTypes: string[]; runOnly?: string[] },
        ): Promise<{
          violations: { id: string; impact: string; nodes: { target: string[]; failureSummary: string }[] }[];
        }>;
      };
    };
    const of = selector === null ? document : document.querySelector(selector)!;
    const { violations } = await axe.run(of, { resultTypes: ["violations"] });
    // In daylight colours alone are others.
    const root = document.documentElement;
    root.dataset.mantineColorScheme = "light";
    const light = await axe.run(of, { resultTypes: ["violations"], runOnly: ["color-contrast"] });
    root.dataset.mantineColorScheme = "dark";
    return [...violations, ...light.violations.map((v) => ({ ...v, id: `${v.id} in daylight` }))]
      .filter((v) => v.impact === "serious" || v.impact === "critical")
      .map(({ id, impact, nodes }) => ({
        id,
        impact,
        where: nodes
          .slice(0, 3)
          .map((n) => `${n.target.join(" ")}: ${n.failureSummary.split("\n").slice(1, 2).join(" ").trim()}`),
      }));
  }, within);
}

/** What hands do on these visits. */
export const hands = (now: () => App) => ({
  place: (key: string) => now().page.keyboard.press(key),
  async ask(line: string) {
    await now().page.locator("#ask").fill(line);
    await now().page.keyboard.press("Enter");
  },
  async close() {
    await now().page.keyboard.press("Escape");
    await untilStill(now().page);
  },
});

/** Goes everywhere; returns what was found, by where. */
export async function findings(
  page: Page,
  visits: readonly Visit[],
  close: Visit[2],
): Promise<Record<string, Finding[]>> {
  const found: Record<string, Finding[]> = {};
  for (const [what, go, leave] of visits) {
    await go();
    const dialog = leave !== undefined && leave === close ? "[role=dialog]" : null;
    if (dialog) await page.locator(dialog).first().waitFor();
    const now = await serious(page, dialog);
    if (now.length > 0) found[what] = now;
    await leave?.();
  }
  return found;
}
