"use client";

import { ActionIcon, Tooltip } from "@mantine/core";
import { IconAdjustments } from "@tabler/icons-react";
import { useState } from "react";
import type { CueList } from "@/core/show/schema";
import { LaneSheet } from "./LaneSheet";

/** How a list plays. @param of which one, among others. */
export function ListOptions({ list, of }: { list: CueList; of?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Tooltip label="How this list plays">
        <ActionIcon
          variant="default"
          size={28}
          aria-label={of ? `Options of ${of}` : "List options"}
          onClick={() => setOpen(true)}
        >
          <IconAdjustments size={16} />
        </ActionIcon>
      </Tooltip>
      {open && <LaneSheet list={list} onClose={() => setOpen(false)} />}
    </>
  );
}
