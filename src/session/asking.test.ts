/** Catches a question that is never answered, or answered twice. */
import { createAsking } from "./asking";

test("each question gets its own answer, whatever order they come in", async () => {
  const asking = createAsking<string>();
  const sent: number[] = [];
  const [a, b] = [asking.ask((id) => sent.push(id)), asking.ask((id) => sent.push(id))];
  asking.answer(sent[1]!, "second");
  asking.answer(sent[0]!, "first");
  asking.answer(sent[0]!, "again");
  asking.answer(99, "nobody's");
  expect(await Promise.all([a, b])).toEqual(["first", "second"]);
});

test("what is late, or has nobody left to answer it, is answered all the same", async () => {
  jest.useFakeTimers();
  try {
    const asking = createAsking<string>({ after: 5000, answer: () => "late" });
    const [a, b] = [asking.ask(() => undefined), asking.ask((id) => asking.answer(id, "at once"))];
    jest.advanceTimersByTime(5000);
    expect(await Promise.all([a, b])).toEqual(["late", "at once"]);
    const c = asking.ask(() => undefined);
    asking.end("gone");
    expect(await c).toBe("gone");
    expect(jest.getTimerCount()).toBe(0);
  } finally {
    jest.useRealTimers();
  }
});
