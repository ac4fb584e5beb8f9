"use client";

import { CloseButton } from "@mantine/core";
import { IconAlertTriangle, IconInfoCircle } from "@tabler/icons-react";
import { useEffect } from "react";
import type { Notice } from "@/session/state";
import { capital } from "../parts/words";
import { useSession, useShow } from "../useSession";
import classes from "./Shell.module.css";

const STAYS_MS = 8000;

/** What the product has to say, newest last; each stays its own time. */
export function Notices() {
  const notices = useShow((s) => s.notices);
  return (
    <div className={classes.notices} role="status" aria-live="polite" data-testid="notices">
      {notices.map((notice) => (
        <OneNotice key={notice.id} notice={notice} />
      ))}
    </div>
  );
}

function OneNotice({ notice: { id, text, tone } }: { notice: Notice }) {
  const session = useSession();
  useEffect(() => {
    const timer = setTimeout(() => session.dismiss(id), STAYS_MS);
    return () => clearTimeout(timer);
  }, [id, session]);
  return (
    <div className={classes.notice} data-tone={tone}>
      {tone === "refused" ? (
        <IconAlertTriangle size={18} color="var(--caution)" />
      ) : (
        <IconInfoCircle size={18} color="var(--muted)" />
      )}
      <span>{capital(text)}</span>
      <CloseButton size="sm" aria-label="Close" onClick={() => session.dismiss(id)} />
    </div>
  );
}
