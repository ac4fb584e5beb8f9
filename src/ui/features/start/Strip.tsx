import { ActionIcon } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import type { ReactNode } from "react";
import classes from "./Start.module.css";

/** A path for beginners beside the work, to be closed for good. */
export function Strip({ title, onClose, children }: { title: string; onClose(): void; children: ReactNode }) {
  return (
    <section className={classes.strip} aria-label={title}>
      <h2>{title}</h2>
      {children}
      <ActionIcon
        className={classes.close}
        variant="subtle"
        color="gray"
        aria-label={`Close: ${title.toLowerCase()}`}
        title="Close for good; the handbook opens it again"
        onClick={onClose}
      >
        <IconX size={16} />
      </ActionIcon>
    </section>
  );
}
