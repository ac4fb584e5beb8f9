/** Catches a rehearsal that does not end or leaves something behind in the show. */
import { makeDemo } from "../demo/saltLantern";
import { rehearse } from "./prepare";

describe("a rehearsal", () => {
  it("plays fixtures of every mode of the demo, step by step, and ends", () => {
    const { show } = makeDemo();
    const before = JSON.stringify(show);
    const steps = [...rehearse(show, 3)].length;
    expect(steps).toBe(6);
    expect(JSON.stringify(show)).toBe(before);
  });

  it("has nothing to do in a show without fixtures", () => {
    const show = { ...makeDemo().show, fixtures: {} };
    expect([...rehearse(show)]).toEqual([]);
  });
});
