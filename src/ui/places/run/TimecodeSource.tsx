"use client";

import { Button } from "@mantine/core";

/** Opens the source that stands in for a machine with timecode. */
export function TimecodeSource() {
  return (
    <Button
      size="compact-sm"
      variant="subtle"
      title="Simulated timecode source, in a window of its own"
      onClick={() => window.open("/standin/timecode", "bold-comet-timecode", "popup,width=480,height=400")}
    >
      source
    </Button>
  );
}
