"use client";

import { ActionIcon, Button, Menu, NumberInput } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useState } from "react";
import { attributeInfo, FAMILIES, familyWord, type Family } from "@/core/fixture/attribute";
import { linesOf } from "@/core/desk/lines";
import { drop, keepOut } from "@/core/program/intents";
import { splitItem, splitKey, type ParamKey } from "@/core/show/ids";
import type { Intent } from "@/core/show/intent";
import { namesIn } from "@/core/units/names";
import { hinting, useForeseen } from "../ask/foreseen";
import { useSession, useShow } from "../useSession";
import classes from "./Build.module.css";

/** What else hands do with what is selected and held; each is a line, which the Ask bar spells out before it is done. */
export function HandsMenu() {
  return (
    <Menu position="bottom-end" shadow="md" width={272}>
      <Menu.Target>
        <ActionIcon
          variant="subtle"
          color="gray"
          size="sm"
          className={classes["hands-menu"]}
          aria-label="More for what is selected and held"
        >
          <IconDots size={16} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown className={classes["hands-items"]}>
        <Items />
      </Menu.Dropdown>
    </Menu>
  );
}

interface HeldFamily {
  family: Family;
  keys: ParamKey[];
  /** Whether all of it is kept out of recording. */
  out: boolean;
}

/** What is held of the selected by family, or all that is held where nothing is selected. */
function useHeldFamilies(): HeldFamily[] {
  const { held, keptOut, selection } = useShow((s) => s.world.hands);
  const chosen = new Set(selection.map((i) => splitItem(i).fixture));
  const found = new Map<Family, HeldFamily>();
  for (const key of namesIn(held)) {
    if (chosen.size > 0 && !chosen.has(splitKey(key).fixture)) continue;
    const { family } = attributeInfo(held[key]!.attribute);
    const one = found.get(family) ?? { family, keys: [], out: true };
    one.keys.push(key);
    one.out &&= keptOut[key] === true;
    found.set(family, one);
  }
  return FAMILIES.flatMap((family) => found.get(family) ?? []);
}

function Items() {
  const session = useSession();
  const some = useShow((s) => s.world.hands.selection.length > 0);
  const blind = useShow((s) => s.world.hands.blind);
  const parked = useShow((s) => namesIn(s.world.hands.parked).length > 0);
  const families = useHeldFamilies();
  const doIt = async (line: string) => {
    useForeseen.setState({ hint: null });
    if (!(await session.run(line))) session.note(line);
  };
  const act = (label: string, intent: Intent) => (
    <Menu.Item
      key={label}
      {...hinting(() => linesOf(session.store.getState().world, [intent])[0])}
      onClick={() => {
        useForeseen.setState({ hint: null });
        session.act([intent]);
      }}
    >
      {label}
    </Menu.Item>
  );
  const item = (label: string, line: string, disabled = false) => (
    <Menu.Item key={line} disabled={disabled} {...hinting(() => line)} onClick={() => void doIt(line)}>
      {label}
    </Menu.Item>
  );
  return (
    <>
      {item("Home: its defaults, held", "home", !some)}
      {item("Locate: full, open, white, centred", "locate", !some)}
      {item("All others that are lit, at out", "others at out", !some)}
      <WithNumber
        label="Copy from fixture"
        button="Copy"
        start={1}
        off={!some}
        line={(n) => `copy from ${n}`}
        onDo={doIt}
      />
      {item("Park: pin what is seen", "park", !some)}
      {item("Unpark", "unpark", !some || !parked)}
      <Menu.Divider />
      {families.map(({ family, keys }) => act(`Let go of ${familyWord(family)}`, drop.of({ keys })))}
      {families.map(({ family, keys, out }) =>
        act(
          out ? `Record ${familyWord(family)} again` : `Keep ${familyWord(family)} out of recording`,
          keepOut.of({ keys, out: !out }),
        ),
      )}
      <WithNumber
        label="Let go of all, in s"
        button="Let go"
        start={3}
        off={families.length === 0}
        line={(n) => `clear over ${n}`}
        onDo={doIt}
      />
      <Menu.Divider />
      {blind
        ? item("Blind off: what is held comes on stage", "blind off")
        : item("Blind: hold without output", "blind on")}
    </>
  );
}

interface WithNumberProps {
  label: string;
  button: string;
  start: number;
  off: boolean;
  line(n: number): string;
  onDo(line: string): Promise<void>;
}

function WithNumber({ label, button, start, off, line, onDo }: WithNumberProps) {
  const [n, setN] = useState<number>(start);
  const go = () => void onDo(line(n));
  return (
    <Menu.Item component="div" closeMenuOnClick={false} disabled={off} className={classes["with-number"]}>
      <span>{label}</span>
      <NumberInput
        size="xs"
        w={62}
        hideControls
        min={0}
        value={n}
        disabled={off}
        aria-label={label}
        onChange={(v) => typeof v === "number" && setN(v)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Enter") go();
        }}
      />
      <Button size="compact-xs" variant="default" disabled={off} {...hinting(() => line(n))} onClick={go}>
        {button}
      </Button>
    </Menu.Item>
  );
}
