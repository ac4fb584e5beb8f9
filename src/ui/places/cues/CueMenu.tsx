"use client";

import { ActionIcon, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useState, type ReactNode } from "react";
import { copyCue } from "@/core/cue/intents/copyIntent";
import { blockCue, deleteCue, setCue, unblockCue } from "@/core/cue/intents/intents";
import { reachMore } from "@/core/cue/reach";
import { dropSignature, signOff } from "@/core/cue/intents/signIntents";
import { takeCue } from "@/core/cue/intents/recordIntents";
import { setBlind } from "@/core/program/intents";
import { openBlind } from "@/ui/show/blind";
import { linesOf } from "@/core/desk/lines";
import type { Intent } from "@/core/show/change/intent";
import type { Cue, CueList } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { hinting, useForeseen } from "@/ui/show/foresight/foreseen";
import { useSession } from "@/ui/show/useSession";
import { Levels, Under, useFirstLevel } from "@/ui/base/parts/Levels";
import { useAsked } from "@/ui/base/parts/useAsked";
import { numberBefore } from "@/ui/features/cues/cueRoom";
import { CompareCues } from "@/ui/features/versions/CompareCues";
import { CleanDialog } from "@/ui/features/cues/CleanDialog";
import { Timeline } from "@/ui/features/cues/Timeline";
import { CopyDialog } from "@/ui/features/cues/CopyDialog";
import { UpdateCue } from "@/ui/features/cues/UpdateCue";

/** Those that are chosen, where they follow each other with none between. */
function inARow(cues: readonly Cue[], chosen: readonly string[]): readonly Cue[] | undefined {
  const first = cues.findIndex((c) => chosen.includes(c.id));
  const row = cues.slice(first, first + chosen.length);
  return first >= 0 && row.every((c) => chosen.includes(c.id)) ? row : undefined;
}

/** What can be done with a cue. @param together all that are chosen with it. */
export function CueMenu({ list, cue, together }: { list: CueList; cue: Cue; together: readonly string[] }) {
  const { asked, ask, pop } = useAsked();
  const button = (
    <ActionIcon
      variant="subtle"
      color="gray"
      aria-label={`More for cue ${plain(cue.number, 3)}`}
      aria-haspopup="menu"
      autoFocus={asked}
      onClick={ask}
    >
      <IconDots size={16} />
    </ActionIcon>
  );
  return asked ? <Deeds list={list} cue={cue} together={together} button={button} pop={pop} /> : button;
}

function Deeds({
  list,
  cue,
  together,
  button,
  pop,
}: {
  list: CueList;
  cue: Cue;
  together: readonly string[];
  button: ReactNode;
  pop: ReturnType<typeof useAsked>["pop"];
}) {
  const session = useSession();
  const [timing, setTiming] = useState(false);
  const [copying, setCopying] = useState(false);
  const [comparing, setComparing] = useState(false);
  const [cleaning, setCleaning] = useState(false);
  const [updating, setUpdating] = useState(false);
  const [menu, levels] = useFirstLevel();
  const row = inARow(cuesOf(list), together) ?? [cue];
  const here = { list: list.id, cue: cue.id };
  /** A deed of the menu: said beforehand, with the looks it changes, while the hand is on it. */
  const deed = (intent: Intent) => ({
    ...hinting(() => linesOf(session.store.getState().world, [intent])[0]),
    onClick: () => (useForeseen.setState({ hint: null }), void session.act([intent])),
  });
  /** What is done to all that are chosen together; several have no line of their own to be looked at beforehand. */
  const all = together.length > 1 ? cuesOf(list).filter((c) => together.includes(c.id)) : [cue];
  const deeds = (made: readonly Intent[], says: string) =>
    made.length === 1
      ? deed(made[0]!)
      : { onClick: () => (useForeseen.setState({ hint: null }), void session.act([...made], says)) };
  const each = (make: (of: { list: string; cue: string }) => Intent, says: string, of: readonly Cue[] = all) =>
    deeds(
      of.map((c) => make({ list: list.id, cue: c.id })),
      `${says} ${of.length} cues`,
    );
  const setting = (change: Omit<Parameters<typeof setCue.of>[0], "list" | "cue">) =>
    each((of) => setCue.of({ ...of, ...change }), "sets");
  /** "Delete 3 cues" in place of "Delete". */
  const many = (word: string) => (all.length > 1 ? `${word} ${all.length} cues` : word);
  const signed = all.filter((c) => c.signed);
  const after = numberBefore(cuesOf(list), cuesOf(list).indexOf(cue) + 1);
  return (
    <>
      {timing && <Timeline list={list} cue={cue} onClose={() => setTiming(false)} />}
      {cleaning && <CleanDialog list={list} cue={cue.id} onClose={() => setCleaning(false)} />}
      {comparing && <CompareCues list={list} cue={cue} onClose={() => setComparing(false)} />}
      {copying && <CopyDialog list={list} cue={row[0]!} last={row.at(-1)} onClose={() => setCopying(false)} />}
      {updating && <UpdateCue list={list} cue={cue} onClose={() => setUpdating(false)} />}
      <Menu {...pop} {...menu} position="bottom-end">
        <Menu.Target>{button}</Menu.Target>
        <Menu.Dropdown>
          <Levels {...levels}>
            <Menu.Item onClick={() => void session.event({ kind: "go", ...here })}>Go to this cue</Menu.Item>
            <Menu.Item onClick={() => void session.event({ kind: "next", ...here })}>Set as next</Menu.Item>
            <Menu.Divider />
            <Menu.Item {...deed(takeCue.of({ ...here, all: false }))}>Load into the programmer</Menu.Item>
            <Menu.Item onClick={() => setUpdating(true)}>Update with held values …</Menu.Item>
            <Menu.Item
              onClick={() => {
                session.act([setBlind.of({ on: true })]);
                openBlind(list.id, cue.id);
              }}
            >
              Edit blind
            </Menu.Item>
            <Menu.Item onClick={() => setTiming(true)}>Timeline</Menu.Item>
            <Menu.Divider />
            <Under label="Copy">
              <Menu.Item onClick={() => setCopying(true)}>
                {row.length > 1 ? `Copy these ${row.length} to …` : "Copy to …"}
              </Menu.Item>
              {after !== undefined && (
                <Menu.Item
                  {...deed(
                    copyCue.of({
                      list: list.id,
                      cue: cue.id,
                      toList: list.number,
                      to: after,
                      bring: "stored",
                      elsewhere: "keep",
                      onto: "merge",
                      looks: "keeplooks",
                    }),
                  )}
                >
                  Duplicate as cue {plain(after, 3)}
                </Menu.Item>
              )}
            </Under>
            <Under label="Its look">
              <Menu.Item onClick={() => setComparing(true)}>Compare with another …</Menu.Item>
              <Menu.Item {...each(signOff.of, "signs off")}>
                {all.length > 1
                  ? `Sign ${all.length} looks off`
                  : cue.signed
                    ? "Sign the look off again"
                    : "Sign the look off"}
              </Menu.Item>
              {signed.length > 0 && (
                <Menu.Item {...each(dropSignature.of, "takes the signatures back of", signed)}>
                  {signed.length > 1 ? `Take ${signed.length} signatures back` : "Take the signature back"}
                </Menu.Item>
              )}
            </Under>
            <Under label="What tracks">
              <Menu.Item {...each(blockCue.of, "blocks")}>{many("Block")}: store everything in force</Menu.Item>
              <Menu.Item {...each(unblockCue.of, "unblocks")}>{many("Unblock")}: drop what would track in</Menu.Item>
              <Menu.Item onClick={() => setCleaning(true)}>Clean drift …</Menu.Item>
              <Menu.Item {...setting({ fresh: !cue.fresh })}>
                {cue.fresh ? "Let earlier cues track in" : "Fresh start: nothing tracks in"}
              </Menu.Item>
              <Menu.Item {...setting({ assert: !cue.assert })}>
                {cue.assert
                  ? "Assert off: go moves only what changes"
                  : "Assert: on go, take back everything it tracks"}
              </Menu.Item>
              <Menu.Item {...setting({ reach: cue.reach ? null : reachMore(list, cue.id, 1) })}>
                {cue.reach ? "Reach all later cues" : "Reach only the next cue"}
              </Menu.Item>
            </Under>
            <Under label={many("Delete")}>
              <Menu.Item {...each((of) => deleteCue.of({ ...of, keepLooks: true }), "deletes")}>
                {many("Delete")}, later looks stay
              </Menu.Item>
              <Menu.Item {...each((of) => deleteCue.of({ ...of, keepLooks: false }), "deletes")}>
                {many("Delete")}, let {all.length > 1 ? "them" : "it"} track
              </Menu.Item>
            </Under>
          </Levels>
        </Menu.Dropdown>
      </Menu>
    </>
  );
}
