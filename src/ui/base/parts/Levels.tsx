"use client";

import { Menu } from "@mantine/core";
import { IconChevronLeft, IconChevronRight } from "@tabler/icons-react";
import { Children, isValidElement, useState, type ReactElement, type ReactNode } from "react";

interface UnderProps {
  label: string;
  children: ReactNode;
}

/** Entries of a menu that stand under a name of their own; drawn by the Levels they are in. */
export function Under({ children }: UnderProps) {
  return children;
}

const isUnder = (child: ReactNode): child is ReactElement<UnderProps> => isValidElement(child) && child.type === Under;

/** A menu begins at its first level each time it opens: for the menu, and for its Levels. */
export function useFirstLevel(): [menu: { onOpen(): void }, levels: { key: number }] {
  const [opened, setOpened] = useState(0);
  return [{ onOpen: () => setOpened((n) => n + 1) }, { key: opened }];
}

/**
 * What is in a menu, a level at a time: a name pressed shows what stands under it in the same place, with the way back on
 * top. Nothing opens beside it, so that a finger, a key and a small window have it too.
 */
export function Levels({ children }: { children: ReactNode }) {
  const [open, setOpen] = useState<string | null>(null);
  const [left, setLeft] = useState<string | null>(null);
  const all = Children.toArray(children);
  const under = all.find((child) => isUnder(child) && child.props.label === open);
  const back = () => (setLeft(open), setOpen(null));
  if (isUnder(under))
    return (
      <>
        <Menu.Item
          key="back"
          autoFocus
          aria-label={`Back from ${under.props.label}`}
          closeMenuOnClick={false}
          leftSection={<IconChevronLeft size={14} aria-hidden />}
          onClick={back}
          onKeyDown={(e) => e.key === "ArrowLeft" && back()}
          c="dimmed"
        >
          {under.props.label}
        </Menu.Item>
        <Menu.Divider />
        {under.props.children}
      </>
    );
  return all.map((child) =>
    isUnder(child) ? (
      <Menu.Item
        key={child.key}
        autoFocus={left === child.props.label}
        aria-haspopup="menu"
        closeMenuOnClick={false}
        rightSection={<IconChevronRight size={14} aria-hidden />}
        onClick={() => setOpen(child.props.label)}
        onKeyDown={(e) => e.key === "ArrowRight" && setOpen(child.props.label)}
      >
        {child.props.label}
      </Menu.Item>
    ) : (
      child
    ),
  );
}
