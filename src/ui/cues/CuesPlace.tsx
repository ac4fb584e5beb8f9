"use client";

import { Button, Group, Tabs } from "@mantine/core";
import { IconPlus } from "@tabler/icons-react";
import { useState } from "react";
import { setList } from "@/core/cue/intents";
import { recordCue } from "@/core/cue/recordIntents";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { EditableText } from "../parts/EditableText";
import { useSession, useShow } from "../useSession";
import { CueTable } from "./CueTable";
import { ListOptions } from "./ListOptions";
import { ValuesPanel } from "./ValuesPanel";
import classes from "./Cues.module.css";

/** A cue list, and values through it. */
export function CuesPlace() {
  const session = useSession();
  const { show, hands } = useShow((s) => s.world);
  const lists = listsByNumber(show);
  const [chosen, setChosen] = useState<string | null>(null);
  const [shown, setShown] = useState<string | null>(null);
  const list = show.lists[chosen ?? ""] ?? show.lists[hands.armed] ?? lists[0];
  if (!list) return null;
  return (
    <div className={classes.cues}>
      <section className={classes.left}>
        <header className={classes.head}>
          <Tabs value={list.id} onChange={setChosen} variant="pills" classNames={{ tab: classes.tab! }}>
            <Tabs.List>
              {lists.map((l) => (
                <Tabs.Tab key={l.id} value={l.id}>
                  {l.number} {l.name}
                </Tabs.Tab>
              ))}
            </Tabs.List>
          </Tabs>
          <Group gap={8} wrap="nowrap">
            <span className={classes.title}>
              <EditableText
                value={list.name}
                label="Name of the list"
                onSave={(text) => session.act([setList.of({ list: list.id, change: { name: text } })])}
              />
            </span>
            <span className={classes.mark}>{cuesOf(list).length} cues</span>
            <ListOptions list={list} />
            <Button
              size="compact-sm"
              variant="default"
              leftSection={<IconPlus size={14} />}
              onClick={() =>
                session.act([recordCue.of({ list: (lists.at(-1)?.number ?? 0) + 1, cue: 1, empty: true })])
              }
            >
              New list
            </Button>
          </Group>
        </header>
        <CueTable list={list} shown={shown} onShow={setShown} />
      </section>
      <ValuesPanel list={list} shown={shown} />
    </div>
  );
}
