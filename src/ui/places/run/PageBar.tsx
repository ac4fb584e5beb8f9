"use client";

import { ActionIcon, Button, Menu, Tooltip } from "@mantine/core";
import { IconDots, IconLayoutGrid, IconLock, IconPlus, IconStack2 } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import { deleteOfDeck, duplicatePage, nameOfDeck, recordPage, renumberPage } from "@/core/deck/intents";
import { arm } from "@/core/program/intents";
import type { Page } from "@/core/show/deckSchema";
import type { Intent } from "@/core/show/change/intent";
import { listsByNumber } from "@/core/show/world";
import { ListIndex } from "@/ui/features/cues/ListIndex";
import { EditableText } from "@/ui/base/parts/EditableText";
import { useSession, useShow } from "@/ui/show/useSession";
import { GuardDialog } from "./GuardDialog";
import { ReleaseAll } from "./ReleaseAll";
import classes from "./Run.module.css";

interface Props {
  page: Page | undefined;
  pages: readonly Page[];
  onChoose(id: string): void;
  arranges: boolean;
  onArrange(on: boolean): void;
  onLock(): void;
}

/** The pages of the deck, what runs on others, and what holds for all. */
export function PageBar({ page, pages, onChoose, arranges, onArrange, onLock }: Props) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const runs = useShow((s) => s.playing.runs);
  const armed = useShow((s) => s.world.hands.armed);
  // The page that is being named: another one is not.
  const [naming, setNaming] = useState<string | null>(null);
  const [guarding, setGuarding] = useState(false);
  const shown = useRef<HTMLButtonElement>(null);
  useEffect(() => void shown.current?.scrollIntoView({ block: "nearest", inline: "nearest" }), [page?.id]);
  const next = (pages.at(-1)?.number ?? 0) + 1;
  const on = (of: Page) => new Set(Object.values(of.places).flatMap((p) => (p.what === "list" ? [p.id] : [])));
  const running = listsByNumber(show).filter((l) => runs[l.id]?.cue);
  const here = page ? on(page) : new Set(listsByNumber(show).map((l) => l.id));
  const elsewhere = running.filter((l) => !here.has(l.id));
  const pageOf = (list: string) => pages.find((p) => p !== page && on(p).has(list));
  const move = (by: -1 | 1) => {
    const other = page && pages[pages.indexOf(page) + by];
    if (page && other) session.act([renumberPage.of({ page: page.id, as: other.number })]);
  };
  /** A page that is made is the one that is shown. */
  const make = (intent: Intent) => {
    if (session.act([intent])) return;
    const found = Object.values(session.store.getState().world.show.pages).find((p) => p.number === next);
    if (found) onChoose(found.id);
  };
  const current = show.lists[armed];
  return (
    <div>
      <div className={classes.bar} role="toolbar" aria-label="Pages">
        <div className={classes.pages} aria-label="Pages" role="group">
          {pages.map((p) => (
            <button
              key={p.id}
              type="button"
              ref={p.id === page?.id ? shown : undefined}
              className={classes.page}
              aria-pressed={p.id === page?.id}
              data-testid={`page-${p.number}`}
              // A finger lifted is enough: a busy browser may leave its click out.
              onPointerUp={(e) => e.pointerType === "touch" && onChoose(p.id)}
              onClick={() => onChoose(p.id)}
              onDoubleClick={() => setNaming(p.id)}
            >
              {naming === p.id ? (
                <EditableText
                  value={p.name}
                  label={`Name of page ${p.number}`}
                  onSave={(name) => void session.act([nameOfDeck.of({ what: "page", id: p.id, name })])}
                  onClosed={() => setNaming(null)}
                />
              ) : (
                <>
                  <span className="num">{p.number}</span> {p.name}
                  {p.id !== page?.id && [...on(p)].some((id) => runs[id]?.cue && !here.has(id)) && (
                    <i title={`Something on page ${p.number} runs`} aria-label="something runs there" />
                  )}
                </>
              )}
            </button>
          ))}
        </div>
        <Tooltip label="A new page">
          <ActionIcon
            variant="default"
            size={32}
            aria-label="New page"
            onClick={() => make(recordPage.of({ number: next }))}
          >
            <IconPlus size={16} />
          </ActionIcon>
        </Tooltip>
        {page && (
          <Menu key={page.id} position="bottom-start">
            <Menu.Target>
              <ActionIcon variant="subtle" color="gray" size={32} aria-label={`More for page ${page.number}`}>
                <IconDots size={16} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item leftSection={<IconLayoutGrid size={16} />} onClick={() => onArrange(!arranges)}>
                {arranges ? "Done arranging" : "Arrange its places"}
              </Menu.Item>
              <Menu.Item onClick={() => setNaming(page.id)}>Rename</Menu.Item>
              <Menu.Item onClick={() => make(duplicatePage.of({ page: page.id, as: next }))}>Duplicate</Menu.Item>
              <Menu.Item disabled={pages.indexOf(page) === 0} onClick={() => move(-1)}>
                Earlier
              </Menu.Item>
              <Menu.Item disabled={pages.at(-1) === page} onClick={() => move(1)}>
                Later
              </Menu.Item>
              <Menu.Divider />
              <Menu.Item onClick={() => setGuarding(true)}>Go pressed twice ...</Menu.Item>
              <Menu.Divider />
              <Menu.Item color="red" onClick={() => session.act([deleteOfDeck.of({ what: "page", id: page.id })])}>
                Delete (can be undone)
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        )}
        {arranges && (
          <Button size="compact-sm" variant="light" flex="none" onClick={() => onArrange(false)}>
            Done arranging
          </Button>
        )}
        <span className={classes.grow} />
        {current && (
          <ListIndex
            list={current}
            onChoose={(id) => void session.act([arm.of({ list: id })], "arm")}
            icon={<IconStack2 size={16} />}
          />
        )}
        <ReleaseAll />
        <Tooltip label="Lock the screen against touches; keys still work">
          <ActionIcon variant="default" size={32} aria-label="Lock the screen" onClick={onLock}>
            <IconLock size={16} />
          </ActionIcon>
        </Tooltip>
      </div>
      <span className={classes.elsewhere} data-testid="elsewhere">
        {elsewhere.slice(0, 2).map((l) => {
          const at = pageOf(l.id);
          return at ? (
            <button key={l.id} type="button" onClick={() => onChoose(at.id)}>
              {l.name} runs on page {at.number}
            </button>
          ) : (
            <button
              key={l.id}
              type="button"
              title="Press to release it"
              onClick={() => void session.event({ kind: "release", list: l.id })}
            >
              {l.name} runs on no page
            </button>
          );
        })}
        {elsewhere.length > 2 && `and ${elsewhere.length - 2} more run elsewhere`}
      </span>
      {guarding && <GuardDialog onClose={() => setGuarding(false)} />}
    </div>
  );
}
