/** Catches an answer that comes late and takes the place of the one that was asked for after it. */
import { createLatest } from "./latest";

test("whatever order answers come in, only the one asked for last counts", async () => {
  const latest = createLatest();
  const give: ((value: string) => void)[] = [];
  const ask = () => latest(new Promise<string>((resolve) => give.push(resolve)));
  const [first, second] = [ask(), ask()];
  give[1]!("second");
  give[0]!("first");
  expect(await first).toBeUndefined();
  expect(await second).toEqual({ answer: "second" });
  const third = ask();
  give[2]!("third");
  expect(await third).toEqual({ answer: "third" });
});
