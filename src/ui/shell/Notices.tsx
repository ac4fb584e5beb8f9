"use client";

import { notifications, Notifications } from "@mantine/notifications";
import { IconAlertTriangle, IconInfoCircle } from "@tabler/icons-react";
import { useEffect } from "react";
import { useForeseen } from "@/ui/show/foresight/foreseen";
import { capital } from "@/ui/base/typed/capital";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Shell.module.css";

const STAYS_MS = 8000;

/** What the product has to say, newest last; each stays its own time. */
export function Notices() {
  const session = useSession();
  const notices = useShow((s) => s.notices);
  useEffect(() => {
    for (const { id, text, tone } of notices) {
      // What the Ask bar says already is not said a second time.
      if (tone === "refused" && useForeseen.getState().found.says === text) {
        session.dismiss(id);
        continue;
      }
      notifications.show({
        id: `notice-${id}`,
        message: capital(text),
        autoClose: STAYS_MS,
        withBorder: true,
        role: tone === "refused" ? "alert" : "status",
        color: tone === "refused" ? "var(--caution)" : "var(--muted)",
        icon: tone === "refused" ? <IconAlertTriangle size={18} /> : <IconInfoCircle size={18} />,
        classNames: { root: classes.notice!, icon: classes.noticeIcon!, description: classes.noticeText! },
        closeButtonProps: { "aria-label": "Close" },
        "data-tone": tone,
        onClose: () => session.dismiss(id),
      });
    }
  }, [notices, session]);
  // Those of a show that was left go with it.
  useEffect(() => () => notifications.clean(), [session]);
  return <Notifications position="top-right" limit={2} className={classes.notices} data-testid="notices" />;
}
