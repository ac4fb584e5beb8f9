"use client";

import { Tooltip } from "@mantine/core";
import type { CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { readNumberField } from "@/ui/base/typed/typedNumber";
import { useSession } from "@/ui/show/useSession";
import classes from "@/ui/features/cues/Lanes.module.css";

const MOST = 1000;

/** The speed of an effect lane, in percent of its effect's own. */
export function Speed({ list, rate }: { list: CueList; rate: number }) {
  const session = useSession();
  const set = (value: number) => {
    if (Number.isFinite(value))
      void session.event({ kind: "effectRate", list: list.id, value: Math.min(MOST, Math.max(0, Math.round(value))) });
  };
  return (
    <Tooltip label={`Speed of ${list.name}: drag, wheel, arrows, or press and type`} openDelay={500}>
      <span className={classes.rate}>
        speed{" "}
        <EditableText
          mono
          value={`${plain(rate, 0)} %`}
          label={`Speed of ${list.name}, percent`}
          onSave={(text) => {
            const found = readNumberField(text, rate, { min: 0, max: MOST, fraction: false, unit: "%" });
            if (typeof found === "string") session.tell(`${found}: it stays ${plain(rate, 0)} %`, "refused");
            else set(found.value);
          }}
          scrub={{ value: rate, min: 0, step: 1, onSet: set }}
        />
      </span>
    </Tooltip>
  );
}
