"use client";

import { CloseButton } from "@mantine/core";
import { IconAlertTriangle, IconInfoCircle } from "@tabler/icons-react";
import { useEffect } from "react";
import { capital } from "../parts/words";
import { useSession, useShow } from "../useSession";
import classes from "./Shell.module.css";

const STAYS_MS = 8000;

/** What the product has to say, newest last; each goes by itself. */
export function Notices() {
  const session = useSession();
  const notices = useShow((s) => s.notices);
  const last = notices.at(-1)?.id;
  useEffect(() => {
    if (last === undefined) return;
    const timer = setTimeout(() => session.dismiss(last), STAYS_MS);
    return () => clearTimeout(timer);
  }, [last, session]);
  return (
    <div className={classes.notices} role="status" aria-live="polite" data-testid="notices">
      {notices.map(({ id, text, tone }) => (
        <div key={id} className={classes.notice} data-tone={tone}>
          {tone === "refused" ? <IconAlertTriangle size={18} color="var(--caution)" /> : <IconInfoCircle size={18} color="var(--muted)" />}
          <span>{capital(text)}</span>
          <CloseButton size="sm" aria-label="Close" onClick={() => session.dismiss(id)} />
        </div>
      ))}
    </div>
  );
}
