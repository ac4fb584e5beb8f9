"use client";

import { ActionIcon, NativeSelect, Popover } from "@mantine/core";
import { IconClockEdit } from "@tabler/icons-react";
import { setCue } from "@/core/cue/intents/intents";
import { FAMILIES, type Family } from "@/core/fixture/attribute";
import { BENDS, type Cue, type CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { useAsked } from "@/ui/base/parts/useAsked";
import { useSession } from "@/ui/show/useSession";
import classes from "./Cues.module.css";

interface Props {
  list: CueList;
  cue: Cue;
  /** All cues an edit here goes to. */
  edited: readonly string[];
}

type Change = Omit<Parameters<typeof setCue.of>[0], "list" | "cue">;

/** All times of a cue in numbers: delays, and those of families; empty goes by the cue's. */
export function FamilyTimes({ list, cue, edited }: Props) {
  const session = useSession();
  const { asked, ask, pop } = useAsked();
  const number = plain(cue.number, 3);
  const { times } = cue;
  const own = Object.keys(times.families).length;
  const set = (change: Change) =>
    void session.act(edited.map((id) => setCue.of({ list: list.id, cue: id, ...change })));
  const seconds = (text: string, then: (seconds: number) => void) => {
    const read = session.read("seconds", text);
    if (read !== undefined) then(read);
  };
  const ofFamily = (name: Family, what: "delay" | "fade") => (
    <EditableText
      mono
      value={times.families[name]?.[what] === undefined ? "" : plain(times.families[name][what])}
      empty="cue's"
      label={`${what} of ${name} in cue ${number}`}
      onSave={(text) =>
        text.trim() === ""
          ? set({ family: { name, off: true } })
          : seconds(text, (v) => set({ family: { name, [what]: v } }))
      }
    />
  );
  const ofCue = (what: "up" | "down" | "delayUp" | "delayDown", label: string) => (
    <EditableText
      mono
      value={plain(times[what])}
      label={`${label} of cue ${number}`}
      onSave={(text) => seconds(text, (v) => set({ times: { [what]: v } }))}
    />
  );
  const button = (
    <ActionIcon
      variant={own > 0 ? "light" : "subtle"}
      color="gray"
      size="sm"
      aria-label={`All times of cue ${number}`}
      aria-haspopup="dialog"
      title={own > 0 ? `Delays and times of families: ${own} have their own times` : "Delays and times of families"}
      autoFocus={asked}
      onClick={(e) => (e.stopPropagation(), asked ? pop.onChange(!pop.opened) : ask())}
    >
      <IconClockEdit size={15} />
    </ActionIcon>
  );
  if (!asked) return button;
  return (
    <Popover {...pop} position="bottom" shadow="md" withinPortal trapFocus returnFocus>
      <Popover.Target>{button}</Popover.Target>
      <Popover.Dropdown onClick={(e) => e.stopPropagation()}>
        <table className={classes.families} aria-label={`Times of cue ${number}, seconds`}>
          <thead>
            <tr>
              <th>cue {number}, s</th>
              <th>delay</th>
              <th>fade</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <th>Up and everything else</th>
              <td>{ofCue("delayUp", "Delay up")}</td>
              <td>{ofCue("up", "Fade up")}</td>
            </tr>
            <tr>
              <th>Down</th>
              <td>{ofCue("delayDown", "Delay down")}</td>
              <td>{ofCue("down", "Fade down")}</td>
            </tr>
            {FAMILIES.map((name) => (
              <tr key={name}>
                <th>{name}</th>
                <td>{ofFamily(name, "delay")}</td>
                <td>{ofFamily(name, "fade")}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <label className={classes.curve}>
          Intensity moves{" "}
          <NativeSelect
            size="xs"
            display="inline-block"
            aria-label={`Curve of cue ${number}`}
            value={times.curve ?? "linear"}
            data={["linear", ...BENDS]}
            onChange={(e) => set({ curve: e.currentTarget.value as "linear" | (typeof BENDS)[number] })}
          />
        </label>
      </Popover.Dropdown>
    </Popover>
  );
}
