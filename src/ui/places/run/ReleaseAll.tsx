"use client";

import { Button, Tooltip } from "@mantine/core";
import { IconSquareRoundedX } from "@tabler/icons-react";
import { useSession, useShow } from "@/ui/show/useSession";
import { playsOn, releaseWords } from "./playsOn";

/** Releases what was started by go; pressed again, brings down what stands by its level. Its words say which. */
export function ReleaseAll() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const runs = useShow((s) => s.playing.runs);
  const on = playsOn(show, runs);
  const words = releaseWords(on);
  const press = () => {
    if (on.goes.length > 0) void session.event({ kind: "release", list: null });
    else for (const { list } of on.stands) void session.event({ kind: "level", list: list.id, value: 0 });
  };
  return (
    <Tooltip label={words?.does ?? "Nothing plays"} multiline maw={420}>
      <Button
        variant="default"
        size="compact-sm"
        h={32}
        style={{ flex: "none" }}
        disabled={!words}
        leftSection={<IconSquareRoundedX size={16} />}
        onClick={press}
        data-testid="release-all"
      >
        {words?.label ?? "Release all"}
      </Button>
    </Tooltip>
  );
}
