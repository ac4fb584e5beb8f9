/** Catches a time typed into a cell of the timing view that is read as another. */
import { typedTimes } from "./typing";

test.each([
  ["2", { fade: "2" }],
  ["1.5 s", { fade: "1.5" }],
  ["+1", { delay: "1" }],
  ["+2 1.5 s", { delay: "2", fade: "1.5" }],
  ["0 to 3", { fade: "0 to 3" }],
  ["+0 to 3", { delay: "0 to 3" }],
  ["+0 to +3 2", { delay: "0 to 3", fade: "2" }],
  ["full", undefined],
  ["-1", undefined],
])("%s", (text, times) => expect(typedTimes(text)).toEqual(times));
