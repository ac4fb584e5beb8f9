"use client";

import { ActionIcon, Tooltip } from "@mantine/core";
import { IconAdjustments } from "@tabler/icons-react";
import { useState } from "react";
import type { CueList } from "@/core/show/schema";
import { LaneSheet } from "../deck/LaneSheet";

/** How a list plays. */
export function ListOptions({ list }: { list: CueList }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Tooltip label="How this list plays">
        <ActionIcon variant="default" size={28} aria-label="List options" onClick={() => setOpen(true)}>
          <IconAdjustments size={16} />
        </ActionIcon>
      </Tooltip>
      {open && <LaneSheet list={list} onClose={() => setOpen(false)} />}
    </>
  );
}
