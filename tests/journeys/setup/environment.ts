/** Tells the journey that runs when one of its tests fails, while its pages are still open. */
import { TestEnvironment } from "jest-environment-node";

/** Of what the test runner tells, what a failure is. */
interface Failure {
  name: string;
  test?: { name: string };
}

export default class JourneyEnvironment extends TestEnvironment {
  async handleTestEvent(event: Failure): Promise<void> {
    if (event.name !== "test_fn_failure" && event.name !== "hook_failure") return;
    const name = event.test?.name ?? "before or after the tests";
    await (this.global as { showFailure?: (name: string) => Promise<void> }).showFailure?.(name);
  }
}
