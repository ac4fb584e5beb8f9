"use client";

import { ActionIcon, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useState } from "react";
import { attributeInfo, FAMILIES, familyWord, type Family } from "@/core/fixture/attribute";
import {
  blind as blindDeed,
  clearOver,
  copyFrom,
  HOME,
  LOCATE,
  OTHERS_OUT,
  PARK,
  UNPARK,
  type Deed,
} from "@/core/command/deeds";
import { linesOf } from "@/core/desk/lines";
import { drop, keepOut } from "@/core/program/intents";
import { splitItem, splitKey, type ParamKey } from "@/core/show/ids";
import type { Intent } from "@/core/show/change/intent";
import { namesIn } from "@/core/units/names";
import { hinting, useForeseen } from "@/ui/show/foresight/foreseen";
import { AskNumber } from "@/ui/base/parts/AskNumber";
import { Levels, Under, useFirstLevel } from "@/ui/base/parts/Levels";
import { capital } from "@/ui/base/typed/capital";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Programmer.module.css";

type Asks = "copy" | "clear";
const ASKED = {
  copy: {
    title: "Copy from another fixture",
    label: "Fixture",
    start: 1,
    min: 1,
    max: 999_999,
    button: "Copy",
    deed: copyFrom,
  },
  clear: {
    title: "Clear the programmer over time",
    label: "Seconds",
    start: 3,
    min: 0,
    max: 3600,
    fraction: true,
    button: "Clear",
    deed: clearOver,
  },
};

/** What else hands do with what is selected and held; the line that does the same stands in the Ask bar while a hand is on it. */
export function HandsMenu() {
  const session = useSession();
  const [asks, setAsks] = useState<Asks | null>(null);
  const asked = asks && ASKED[asks];
  const [menu, levels] = useFirstLevel();
  return (
    <>
      {asked && (
        <AskNumber
          {...asked}
          says={(n) => asked.deed(n).line}
          onDone={(n) => void session.build(asked.deed(n))}
          onClose={() => setAsks(null)}
        />
      )}
      <Menu {...menu} position="bottom-end" shadow="md" width={272}>
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
        <Menu.Dropdown>
          <Items {...levels} onAsk={setAsks} />
        </Menu.Dropdown>
      </Menu>
    </>
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

function Items({ onAsk }: { onAsk(what: Asks): void }) {
  const session = useSession();
  const some = useShow((s) => s.world.hands.selection.length > 0);
  const blind = useShow((s) => s.world.hands.blind);
  const parked = useShow((s) => namesIn(s.world.hands.parked).length > 0);
  const families = useHeldFamilies();
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
  const item = (label: string, deed: Deed, disabled = false) => (
    <Menu.Item
      key={deed.line}
      disabled={disabled}
      {...hinting(() => deed.line)}
      onClick={() => {
        useForeseen.setState({ hint: null });
        session.build(deed);
      }}
    >
      {label}
    </Menu.Item>
  );
  return (
    <Levels>
      {item("Home: set defaults", HOME, !some)}
      {item("Locate: full, open, white, centred", LOCATE, !some)}
      {item("All other lit fixtures to 0", OTHERS_OUT, !some)}
      <Menu.Item disabled={!some} onClick={() => onAsk("copy")}>
        Copy from another fixture …
      </Menu.Item>
      {item("Park at present values", PARK, !some)}
      {item("Unpark", UNPARK, !some || !parked)}
      <Menu.Divider />
      {families.length > 0 && (
        <Under label="Clear">
          {families.map(({ family, keys }) => act(capital(familyWord(family)), drop.of({ keys })))}
        </Under>
      )}
      {families.length > 0 && (
        <Under label="Keep out of recording">
          {families.map(({ family, keys, out }) =>
            act(
              out ? `${capital(familyWord(family))}: record it again` : capital(familyWord(family)),
              keepOut.of({ keys, out: !out }),
            ),
          )}
        </Under>
      )}
      <Menu.Item disabled={families.length === 0} onClick={() => onAsk("clear")}>
        Clear over time …
      </Menu.Item>
      <Menu.Divider />
      {blind
        ? item("Leave blind: put held values on stage", blindDeed(false))
        : item("Blind: set values without output", blindDeed(true))}
    </Levels>
  );
}
