/** Tells the journey that runs when one of its tests fails, while its pages are still open. */
import { TestEnvironment } from "jest-environment-node";
import type { Circus } from "@jest/types";

export default class JourneyEnvironment extends TestEnvironment {
  async handleTestEvent(event: Circus.AsyncEvent | Circus.SyncEvent): Promise<void> {
    if (event.name !== "test_fn_failure" && event.name !== "hook_failure") return;
    const name = event.name === "test_fn_failure" ? event.test.name : "before or after the tests";
    await (this.global as { showFailure?: (name: string) => Promise<void> }).showFailure?.(name);
  }
}
