"use client";

import { Tooltip } from "@mantine/core";
import type { CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { EditableText } from "../parts/EditableText";
import { useSession } from "../useSession";
import classes from "../deck/Deck.module.css";

/** The speed of an effect lane, in percent of its effect's own. */
export function Speed({ list, rate }: { list: CueList; rate: number }) {
  const session = useSession();
  const set = (value: number) => {
    if (Number.isFinite(value))
      void session.event({ kind: "effectRate", list: list.id, value: Math.min(1000, Math.max(0, Math.round(value))) });
  };
  return (
    <Tooltip label={`Speed of ${list.name}: drag, wheel, arrows, or press and type`} openDelay={500}>
      <span className={classes.rate}>
        speed{" "}
        <EditableText
          mono
          value={`${plain(rate, 0)} %`}
          label={`Speed of ${list.name}, percent`}
          onSave={(text) => set(parseFloat(text))}
          scrub={{ value: rate, min: 0, step: 1, onSet: set }}
        />
      </span>
    </Tooltip>
  );
}
