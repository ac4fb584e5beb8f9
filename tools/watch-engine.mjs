// How soon the engine does what a hand does, seen from the page.

/** Runs in the page: hears where the engine's memory is, and has a worker watch one value of it. */
export function watchTheEngine() {
  const marks = (window.marks = { moves: [], changes: [] });
  const Original = window.Worker;
  let watcher;
  window.Worker = class extends Original {
    constructor(...args) {
      super(...args);
      this.addEventListener("message", ({ data }) => {
        if (data?.kind === "layout") window.engine = { memory: data.memory, layout: data.layout };
      });
    }
  };
  window.watch = (key) => {
    const { memory, layout } = window.engine;
    const [n, p] = [layout.keys.length, layout.keys.indexOf(key)];
    const text = `onmessage = ({ data: { memory, n, p } }) => {
      const size = (memory.byteLength - 16) / 2;
      const header = new Int32Array(memory, 0, 2);
      const raw = [16, 16 + size].map((at) => new Float64Array(memory, at + 8 + n * 8 + p * 8, 1));
      const read = () => raw[Atomics.load(header, 0) === 0 ? 0 : 1][0];
      const rest = new Int32Array(new SharedArrayBuffer(4));
      requestAnimationFrame(() => undefined);
      // It looks on from each movement to what comes of it only, twice a millisecond: a thread that never rests would
      // take from what it measures, and a timer comes four milliseconds late.
      onmessage = () => {
        const last = read();
        const until = performance.now() + 400;
        while (read() === last && performance.now() < until) Atomics.wait(rest, 0, 0, 0.5);
        if (read() !== last) postMessage(performance.timeOrigin + performance.now());
      };
    }`;
    watcher = new Original(URL.createObjectURL(new Blob([text], { type: "text/javascript" })));
    watcher.onmessage = ({ data }) => marks.changes.push(data);
    watcher.postMessage({ memory, n, p });
    const at = (e) => {
      marks.moves.push(performance.timeOrigin + e.timeStamp);
      watcher.postMessage(null);
    };
    addEventListener("pointerrawupdate", (e) => e.buttons && at(e), true);
    addEventListener("pointerdown", at, true);
    addEventListener("keydown", at, true);
  };
}
