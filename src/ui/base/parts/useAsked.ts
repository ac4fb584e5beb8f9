"use client";

import { useState } from "react";

interface Asked {
  /** Whether it has been asked for: from then on it is there, open or not. */
  asked: boolean;
  /** First it is put around its button, which has the focus; then it opens, so that the focus comes back to it. */
  ask(): void;
  pop: { opened: boolean; onChange(opened: boolean): void };
}

/** What opens from a button of a row, made when it is first asked for: thousands of rows scroll by. */
export function useAsked(): Asked {
  const [asked, setAsked] = useState(false);
  const [opened, setOpened] = useState(false);
  const ask = () => {
    if (asked) return;
    setAsked(true);
    setTimeout(() => setOpened(true));
  };
  return { asked, ask, pop: { opened, onChange: setOpened } };
}
